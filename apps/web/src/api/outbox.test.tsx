import { ids } from '../test/fixtures.ts';
import { nextUndo, standing, type PourEntry } from '@schmelz/core';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, renderHook, waitFor } from '@testing-library/react';
import type { ReactNode } from 'react';
import { fakeApi, prepareBrowser, refuse } from '../test/render.tsx';
import { ApiProblem, request, Unreachable } from './client.ts';
import { newId } from './id.ts';
import { toast } from '../design/toast.ts';
import { onLockedOut, tryAgain } from './delivery.ts';
import { clearRefused, useDidNotCount } from './did-not-count.ts';
import { makeOutbox, resumeOutboxes, sayAgain, sayToLog, useRunLog } from './outbox.ts';
import { tapStore } from './tap-store.ts';

const wrapper = ({ children }: { children: ReactNode }) => (
  <QueryClientProvider client={new QueryClient()}>{children}</QueryClientProvider>
);
// Every test has a run of its own: an outbox lives as long as the page.
let path = '';
let runs = 0;
const useLog = (onServer: PourEntry[] = []) => renderHook(() => useRunLog<PourEntry>(path, onServer), { wrapper });

beforeEach(() => {
  prepareBrowser();
  path = `/pours/p${(runs += 1)}`;
});

describe('taps on their way', () => {
  test('a tap is shown at once, written on this device at once, and sent once', async () => {
    const api = fakeApi();
    const { result } = useLog();
    act(() => result.current.say({ kind: 'blank', moldId: ids.mold }));
    await waitFor(() => expect(result.current.entries).toHaveLength(1));
    const { id } = result.current.entries[0]!;
    await waitFor(() => expect(result.current.unsaved).toBe(0));
    expect(api.writes()).toHaveLength(1);
    expect(api.writes()[0]!.body).toMatchObject({ id, kind: 'blank', moldId: ids.mold });
    expect(result.current.entries.map((entry) => entry.id)).toEqual([id]);
  });

  test('while the server is away they are kept, in order, and survive a reload', async () => {
    const api = fakeApi();
    api.state.online = false;
    const first = useLog();
    act(() => {
      first.result.current.say({ kind: 'charge', massKg: 2, potC: 20 });
      first.result.current.say({ kind: 'blank', moldId: ids.mold });
    });
    await waitFor(() => expect(first.result.current.unsaved).toBe(2));
    first.unmount();
    const kept = (await tapStore.all(path)).map(({ entry }) => entry);
    expect(kept.map((entry) => entry.kind)).toEqual(['charge', 'blank']);

    // A reload: the page and its outbox are gone, the storage is not.
    api.state.online = true;
    const reloaded = makeOutbox(path);
    await reloaded.settled();
    await waitFor(() => expect(reloaded.contents().confirmed.map((entry) => entry.kind)).toEqual(['charge', 'blank']), {
      timeout: 4000,
    });
    expect(reloaded.contents().pending).toEqual([]);
    expect(new Set(api.writes().map(({ body }) => (body as PourEntry).id))).toEqual(
      new Set(kept.map((entry) => entry.id)),
    );
    expect(await tapStore.all(path)).toEqual([]);
  });

  test('whoever leaves the screen and comes back finds the same taps, and sees them arrive', async () => {
    const api = fakeApi();
    api.state.online = false;
    const first = useLog();
    act(() => first.result.current.say({ kind: 'blank', moldId: ids.mold }));
    await waitFor(() => expect(first.result.current.unsaved).toBe(1));
    first.unmount();
    const back = useLog();
    expect(back.result.current.unsaved).toBe(1);
    api.state.online = true;
    await waitFor(() => expect(back.result.current.unsaved).toBe(0), { timeout: 4000 });
    expect(back.result.current.entries).toHaveLength(1);
    expect(api.writes().filter((sent) => sent.path === `${path}/entries`)).toHaveLength(1);
  });

  test('what was said in two logs is sent in the order in which it was said', async () => {
    const api = fakeApi();
    api.state.online = false;
    const other = `/runs/oven/r${runs}`;
    const { result } = useLog();
    const clock = jest.spyOn(Date, 'now');
    const sayAt = (at: number, say: () => void) => {
      clock.mockReturnValue(at);
      act(say);
    };
    sayAt(1000, () => result.current.say({ kind: 'blank', moldId: ids.mold }));
    sayAt(2000, () => sayToLog(other, { kind: 'load' }));
    sayAt(3000, () => result.current.say({ kind: 'smoked', moldId: ids.mold }));
    clock.mockRestore();
    await waitFor(() => expect(result.current.unsaved).toBe(2));
    await waitFor(async () => expect(await tapStore.all(other)).toHaveLength(1));
    api.state.online = true;
    await waitFor(() => expect(result.current.unsaved).toBe(0), { timeout: 4000 });
    const sent = api.writes().map(({ body }) => (body as PourEntry).kind as string);
    expect(sent.filter((kind, i) => sent.indexOf(kind) === i)).toEqual(['blank', 'load', 'smoked']);
  });

  describe('a tap that does not count', () => {
    const refusals = [400, 404, 409, 413, 422];
    test.each(refusals)('at %i is kept until it was seen, and holds up none behind it', async (status) => {
      let calls = 0;
      const api = fakeApi({
        [`POST ${path}/entries`]: () =>
          ++calls === 1 ? refuse(status, { title: 'No', detail: 'This pour is closed.' }) : undefined,
      });
      const { result } = useLog();
      const list = renderHook(() => useDidNotCount());
      act(() => {
        result.current.say({ kind: 'blank', moldId: ids.mold });
        result.current.say({ kind: 'smoked', moldId: ids.mold });
      });
      await waitFor(() => expect(api.writes()).toHaveLength(2));
      await waitFor(() => expect(result.current.unsaved).toBe(0));
      expect(result.current.entries.map((entry) => entry.kind)).toEqual(['smoked']);
      const why = status === 404 ? /nothing at POST/ : 'This pour is closed.';
      const mine = () => list.result.current.filter((tap) => tap.path === path);
      expect(mine()).toEqual([
        expect.objectContaining({ why: typeof why === 'string' ? why : expect.stringMatching(why) }),
      ]);
      const { entry } = mine()[0]!;
      // On the disk as well, so that a reload forgets neither the tap nor why.
      await waitFor(async () => expect((await tapStore.refused()).map((tap) => tap.entry.id)).toContain(entry.id));
      await act(() => clearRefused(entry.id));
      expect(mine()).toEqual([]);
      expect((await tapStore.refused()).map((tap) => tap.entry.id)).not.toContain(entry.id);
    });

    test('a server that stumbles over one tap is asked three times; then the tap is set aside and can be said again', async () => {
      let broken = true;
      const api = fakeApi({
        [`POST ${path}/entries`]: ({ body }: { body: unknown }) =>
          broken && (body as PourEntry).kind === 'blank'
            ? refuse(500, { title: 'Our mistake', detail: 'It stumbled.' })
            : undefined,
      });
      const { result } = useLog();
      const list = renderHook(() => useDidNotCount());
      act(() => {
        result.current.say({ kind: 'blank', moldId: ids.mold });
        result.current.say({ kind: 'smoked', moldId: ids.mold });
      });
      const mine = () => api.writes().filter((each) => each.path === `${path}/entries`);
      const sent = () => mine().map(({ body }) => (body as PourEntry).kind);
      await waitFor(() => expect(sent()).toEqual(['blank', 'blank', 'blank', 'smoked']));
      await waitFor(() => expect(result.current.unsaved).toBe(0));
      const [tap] = list.result.current.filter((each) => each.path === path);
      expect(tap!.why).toBe('It stumbled.');
      broken = false;
      await act(() => sayAgain(tap!));
      await waitFor(() => expect(sent()).toEqual(['blank', 'blank', 'blank', 'smoked', 'blank']));
      expect(list.result.current.filter((each) => each.path === path)).toEqual([]);
      expect(result.current.entries.map((entry) => entry.kind).sort()).toEqual(['blank', 'smoked']);
    });

    test('what the application says by itself is dropped without a word when it comes too late', async () => {
      const api = fakeApi({ [`POST ${path}/entries`]: refuse(422, { title: 'No', detail: 'Warm already.' }) });
      const { result } = useLog();
      const list = renderHook(() => useDidNotCount());
      act(() => (result.current.say as (said: unknown) => void)({ kind: 'warm', by: 'model' }));
      await waitFor(() => expect(api.writes()).toHaveLength(1));
      await waitFor(() => expect(result.current.unsaved).toBe(0));
      expect(result.current.entries).toEqual([]);
      expect(list.result.current.filter((each) => each.path === path)).toEqual([]);
    });
  });

  test('who must log in is asked to, and then all goes on its way', async () => {
    let inside = false;
    const api = fakeApi({
      [`POST ${path}/entries`]: () =>
        inside ? undefined : refuse(401, { title: 'Log in first', detail: 'This workshop has a password.' }),
    });
    const asked = jest.fn();
    const stop = onLockedOut(asked);
    const { result } = useLog();
    act(() => result.current.say({ kind: 'blank', moldId: ids.mold }));
    await waitFor(() => expect(asked).toHaveBeenCalled());
    expect(result.current.unsaved).toBe(1);
    expect(await tapStore.all(path)).toHaveLength(1);
    inside = true;
    tryAgain();
    await waitFor(() => expect(result.current.unsaved).toBe(0));
    const mine = api.writes().filter((sent) => sent.path === `${path}/entries`);
    expect(new Set(mine.map(({ body }) => (body as PourEntry).id)).size).toBe(1);
    stop();
  });

  test('too many at once, a full disk, a foreign name: the tap stays and is tried again', async () => {
    const statuses = [429, 503, 403, 502, 504];
    let calls = 0;
    fakeApi({
      [`POST ${path}/entries`]: () => {
        const status = statuses[calls++];
        return status && refuse(status, { title: 'Later', detail: `says ${status}` });
      },
    });
    const { result } = useLog();
    act(() => result.current.say({ kind: 'blank', moldId: ids.mold }));
    await waitFor(() => {
      tryAgain();
      expect(calls).toBe(statuses.length + 1);
    });
    await waitFor(() => expect(result.current.unsaved).toBe(0));
    expect(result.current.entries).toHaveLength(1);
  });

  test('another device with a clock a year ahead moves no time said here; its own time is as the server says', async () => {
    fakeApi();
    const year = 365 * 24 * 3600 * 1000;
    const ahead: PourEntry = { id: 'ahead', at: Date.now() + year, kind: 'blank', moldId: ids.mold };
    const { result } = useLog([ahead]);
    act(() => result.current.say({ kind: 'smoked', moldId: ids.mold }));
    await waitFor(() => expect(result.current.entries).toHaveLength(2));
    expect(Math.abs(result.current.entries[1]!.at - Date.now())).toBeLessThan(60_000);
  });

  test('a disk that never answers is noticed within two seconds; taps go on from memory and to the server', async () => {
    const api = fakeApi();
    const add = jest
      .spyOn(IDBObjectStore.prototype, 'add')
      .mockImplementation(() => new (IDBRequest as unknown as new () => never)());
    const warned = jest.spyOn(toast, 'error');
    const { result } = useLog();
    act(() => result.current.say({ kind: 'blank', moldId: ids.mold }));
    await waitFor(() => expect(result.current.entries).toHaveLength(1));
    expect(warned.mock.calls.flat().join()).toMatch(/does not keep taps .*does not answer/);
    await waitFor(() => expect(api.writes()).toHaveLength(1));
    add.mockRestore();
    warned.mockRestore();
  });

  test('taps of an earlier page are sent whichever screen is opened first', async () => {
    const tap: PourEntry = { id: 'left behind', at: 1, kind: 'blank', moldId: ids.mold };
    await tapStore.add({ path, entry: tap });
    const api = fakeApi();
    await resumeOutboxes();
    await waitFor(() => expect(api.writes()).toContainEqual({ method: 'POST', path: `${path}/entries`, body: tap }));
    await waitFor(async () => expect(await tapStore.all(path)).toEqual([]));
  });

  test('a clock that jumps back does not turn the log round', async () => {
    fakeApi();
    const { result } = useLog();
    const clock = jest.spyOn(Date, 'now');
    clock.mockReturnValue(5_000_000);
    act(() => result.current.say({ kind: 'blank', moldId: ids.mold }));
    clock.mockReturnValue(1_000_000);
    act(() => result.current.say({ kind: 'smoked', moldId: ids.mold }));
    clock.mockRestore();
    await waitFor(() => expect(result.current.entries).toHaveLength(2));
    const [first, second] = result.current.entries;
    expect(second!.at).toBe(first!.at + 1);
  });

  test('a second key in the same breath sees what the first has done', async () => {
    fakeApi();
    const { result } = useLog();
    const seen: string[][] = [];
    act(() => {
      result.current.say({ kind: 'blank', moldId: ids.mold });
      result.current.next((entries) => seen.push(entries.map((entry) => entry.kind)));
    });
    await waitFor(() => expect(seen).toEqual([['blank']]));
  });

  test('keys pressed in one breath each see what all before them have said: none amends what another has amended', async () => {
    fakeApi();
    const { result } = useLog();
    const amend = () =>
      result.current.next((entries) => {
        const last = nextUndo<PourEntry>(entries);
        if (last?.kind !== 'feed') return;
        result.current.say({ kind: 'undo', target: last.id });
        result.current.say({ kind: 'feed', massKg: last.massKg + 1 });
      });
    act(() => {
      result.current.say({ kind: 'feed', massKg: 1 });
      amend();
      amend();
      amend();
    });
    await waitFor(() => expect(result.current.entries).toHaveLength(7));
    const left = standing<PourEntry>(result.current.entries);
    expect(left.map((entry) => entry.kind === 'feed' && entry.massKg)).toEqual([4]);
  });

  test('an undo takes back what was last said before it, not the tap that follows', async () => {
    fakeApi();
    const { result } = useLog();
    act(() => {
      result.current.say({ kind: 'charge', massKg: 2, potC: 20 });
      result.current.say({ kind: 'smoked', moldId: ids.mold });
      result.current.next((entries) => result.current.say({ kind: 'undo', target: nextUndo<PourEntry>(entries)!.id }));
      result.current.say({ kind: 'blank', moldId: ids.mold });
    });
    await waitFor(() => expect(result.current.entries).toHaveLength(4));
    expect(standing<PourEntry>(result.current.entries).map((entry) => entry.kind)).toEqual(['charge', 'blank']);
  });

  test('a turn that fails does not hold up the next', async () => {
    fakeApi();
    const { result } = useLog();
    const thrown: unknown[] = [];
    const micro = jest.spyOn(globalThis, 'queueMicrotask').mockImplementation((work) => {
      try {
        work();
      } catch (error) {
        thrown.push(error);
      }
    });
    act(() => {
      result.current.next(() => {
        throw new Error('stumbled');
      });
      result.current.say({ kind: 'blank', moldId: ids.mold });
    });
    await waitFor(() => expect(result.current.entries).toHaveLength(1));
    expect(thrown).toEqual([new Error('stumbled')]);
    micro.mockRestore();
  });

  test('a server in trouble is asked again', async () => {
    let calls = 0;
    fakeApi({
      [`POST ${path}/entries`]: () => (++calls < 2 ? refuse(503, { title: 'Later', detail: 'busy' }) : undefined),
    });
    const { result } = useLog();
    act(() => result.current.say({ kind: 'blank', moldId: ids.mold }));
    await waitFor(() => expect(calls).toBe(2), { timeout: 4000 });
    await waitFor(() => expect(result.current.unsaved).toBe(0), { timeout: 4000 });
    expect(result.current.entries).toHaveLength(1);
  });

  test('what the server already has is not counted twice', async () => {
    fakeApi();
    const known: PourEntry = { id: 'a', at: 1, kind: 'blank', moldId: ids.mold };
    await tapStore.add({ path, entry: known });
    const { result } = useLog([known]);
    expect(result.current.entries).toHaveLength(1);
    expect(nextUndo<PourEntry>(result.current.entries)?.id).toBe('a');
    await waitFor(() => expect(result.current.unsaved).toBe(0));
  });
});

describe('requests', () => {
  test('problems keep their fields; a dead network is its own error', async () => {
    const api = fakeApi({
      'POST /pots': refuse(422, { title: 'Not allowed', status: 422, detail: 'powerW is 0', fields: [] }),
    });
    const problem = await request('POST', '/pots', {}).catch((error: unknown) => error);
    expect(problem).toBeInstanceOf(ApiProblem);
    expect((problem as ApiProblem).problem.status).toBe(422);
    api.state.online = false;
    await expect(request('GET', '/pots')).rejects.toBeInstanceOf(Unreachable);
  });

  test('ids are random UUIDs of version 4, also without a secure context', () => {
    const made = new Set(Array.from({ length: 200 }, newId));
    expect(made.size).toBe(200);
    for (const id of made) expect(id).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-4[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/);
  });
});
