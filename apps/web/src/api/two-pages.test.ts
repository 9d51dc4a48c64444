import type { Entry } from '@schmelz/core';
import 'fake-indexeddb/auto';
import type * as Outbox from './outbox.ts';

// Two pages of one device: each is the whole module tree once more, over one disk, one set of locks and one channel.

/** Web Locks as the standard has them, as far as they are used: held until the page ends, stolen, listed. */
function makeLocks() {
  type Waiting = { name: string; page: object; run: () => Promise<unknown>; reject: (why: Error) => void };
  const held = new Map<string, Waiting>();
  const queue: Waiting[] = [];
  const next = (name: string) => {
    const at = queue.findIndex((each) => each.name === name);
    if (at < 0 || held.has(name)) return;
    const [first] = queue.splice(at, 1);
    held.set(name, first!);
    void first!.run();
  };
  return {
    of: (page: object) => ({
      request(name: string, second: unknown, third?: () => Promise<unknown>) {
        const [options, run] = third ? [second as { steal?: boolean }, third] : [{}, second as () => Promise<unknown>];
        return new Promise((_, reject) => {
          const own = { name, page, run, reject };
          const holder = held.get(name);
          if (options.steal) {
            held.delete(name);
            queue.unshift(own);
            if (holder) holder.reject(Object.assign(new Error('stolen'), { name: 'AbortError' }));
          } else queue.push(own);
          next(name);
        });
      },
      query: async () => ({ held: [...held.keys()].map((name) => ({ name })) }),
    }),
    close(page: object) {
      for (const [name, holder] of [...held]) {
        if (holder.page !== page) continue;
        held.delete(name);
        next(name);
      }
      for (let at = queue.length; at--;) if (queue[at]!.page === page) queue.splice(at, 1);
    },
  };
}

interface Page {
  outbox: typeof Outbox;
  toasts: string[];
  close(): void;
  /** It no longer runs: nothing that is told to it is heard. */
  sleep(): void;
}

const locks = makeLocks();
let channels: { page: object; onmessage: ((event: { data: unknown }) => void) | null; asleep: boolean }[] = [];
let sent: { page: string; entry: Entry }[] = [];
let online = true;
let refusing: string | null = null;

/** Opens a page: its modules are its own. */
async function open(name: string): Promise<Page> {
  const page = {};
  const toasts: string[] = [];
  let asleep = false;
  class Channel {
    onmessage: ((event: { data: unknown }) => void) | null = null;
    page = page;
    asleep = false;
    constructor() {
      channels.push(this);
    }
    postMessage(data: unknown) {
      for (const each of channels) {
        if (each.page !== page) queueMicrotask(() => !each.asleep && each.onmessage?.({ data }));
      }
    }
  }
  Object.defineProperty(navigator, 'locks', { value: locks.of(page), configurable: true });
  Object.assign(globalThis, { BroadcastChannel: Channel });
  let outbox!: Page['outbox'];
  await jest.isolateModulesAsync(async () => {
    jest.doMock('../design/toast.ts', () => {
      const toast = Object.assign((text: string) => toasts.push(text), {
        error: () => undefined,
        dismiss: () => undefined,
      });
      return { toast };
    });
    jest.doMock('./client.ts', () => {
      class ApiProblem extends Error {
        problem = { status: 422, detail: refusing };
      }
      return {
        ApiProblem,
        request: async (_method: string, _path: string, entry: Entry) => {
          if (asleep) return new Promise(() => undefined);
          if (!online) throw new Error('away');
          if (refusing !== null) throw new ApiProblem();
          sent.push({ page: name, entry });
        },
      };
    });
    outbox = await import('./outbox.ts');
  });
  await outbox.resumeOutboxes();
  const own = () => channels.filter((each) => each.page === page);
  return {
    outbox,
    toasts,
    close() {
      channels = channels.filter((each) => each.page !== page);
      locks.close(page);
    },
    sleep() {
      asleep = true;
      own().forEach((each) => (each.asleep = true));
    },
  };
}

const until = async (holds: () => boolean, what: string) => {
  for (let tries = 0; tries < 600; tries++) {
    if (holds()) return;
    await new Promise((resolve) => setTimeout(resolve, 10));
  }
  throw new Error(`never: ${what}`);
};
const kinds = () => sent.map(({ entry }) => entry.kind);
let nth = 0;
let path = '';
beforeEach(() => {
  [sent, online, refusing] = [[], true, null];
  path = `/tickets/t${(nth += 1)}`;
});

test('one page sends for both, in the order in which they were tapped', async () => {
  const [one, two] = [await open('one'), await open('two')];
  online = false;
  for (const [page, kind] of [
    [one, 'a'],
    [two, 'b'],
    [one, 'c'],
    [two, 'd'],
  ] as const) {
    page.outbox.sayToLog(path, { kind });
    await until(() => page.outbox.waitingHere() > 0, `${kind} is kept`);
    await new Promise((resolve) => setTimeout(resolve, 30));
  }
  online = true;
  window.dispatchEvent(new Event('online'));
  await until(() => sent.length === 4, 'all are sent');
  expect(kinds()).toEqual(['a', 'b', 'c', 'd']);
  expect(new Set(sent.map(({ page }) => page))).toEqual(new Set(['one']));
  // The other page knows that its own have counted.
  await until(() => two.outbox.waitingHere() === 0, 'nothing waits on the other page');
  expect([...one.toasts, ...two.toasts]).toEqual([]);
  two.close();
  one.close();
});

test('what a closed page left is sent by the one that is open, and told there', async () => {
  const [one, two] = [await open('one'), await open('two')];
  online = false;
  one.outbox.sayToLog(path, { kind: 'a' });
  one.outbox.sayToLog(path, { kind: 'b' });
  await until(() => one.outbox.waitingHere() === 2, 'both are kept');
  one.sleep();
  one.close();
  online = true;
  await until(() => sent.length === 2, 'both are sent');
  expect(sent.map(({ page, entry }) => [page, entry.kind])).toEqual([
    ['two', 'a'],
    ['two', 'b'],
  ]);
  expect(two.toasts).toEqual(['2 taps that a closed page had left here are being sent.']);
  two.close();
});

test('a page that sends and sleeps in the background is taken over from by the one that is tapped', async () => {
  const [one, two] = [await open('one'), await open('two')];
  one.sleep();
  two.outbox.sayToLog(path, { kind: 'a' });
  await until(() => sent.length === 1, 'it is sent');
  expect(sent[0]!.page).toBe('two');
  two.close();
  one.close();
});

test('what the server refuses of another page is taken off there too', async () => {
  const [one, two] = [await open('one'), await open('two')];
  refusing = 'There are no heads left.';
  two.outbox.sayToLog(path, { kind: 'a' });
  await until(() => two.outbox.waitingHere() === 1, 'it is kept');
  await until(() => two.outbox.waitingHere() === 0, 'it is answered');
  two.close();
  one.close();
});
