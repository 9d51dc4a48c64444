import { ids } from '../test/fixtures.ts';
import { nextUndo, standing, type PourEntry } from '@schmelz/core';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, renderHook, waitFor } from '@testing-library/react';
import type { ReactNode } from 'react';
import { fakeApi, prepareBrowser, refuse } from '../test/render.tsx';
import { ApiProblem, request, Unreachable } from './client.ts';
import { newId } from './id.ts';
import { makeOutbox, resumeOutboxes, sayInto, useRunLog } from './outbox.ts';
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
    const kept = await tapStore.all(path);
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
    sayAt(2000, () => sayInto(other, { kind: 'load' }));
    sayAt(3000, () => result.current.say({ kind: 'smoked', moldId: ids.mold }));
    clock.mockRestore();
    await waitFor(() => expect(result.current.unsaved).toBe(2));
    await waitFor(async () => expect(await tapStore.all(other)).toHaveLength(1));
    api.state.online = true;
    await waitFor(() => expect(result.current.unsaved).toBe(0), { timeout: 4000 });
    const sent = api.writes().map(({ body }) => (body as PourEntry).kind as string);
    expect(sent.filter((kind, i) => sent.indexOf(kind) === i)).toEqual(['blank', 'load', 'smoked']);
  });

  test('what is refused for good is taken out, so that the next tap gets through', async () => {
    let calls = 0;
    const api = fakeApi({
      [`POST ${path}/entries`]: () =>
        ++calls === 1 ? refuse(422, { title: 'No', detail: 'This pour is closed.' }) : undefined,
    });
    const { result } = useLog();
    act(() => {
      result.current.say({ kind: 'blank', moldId: ids.mold });
      result.current.say({ kind: 'smoked', moldId: ids.mold });
    });
    await waitFor(() => expect(api.writes()).toHaveLength(2));
    await waitFor(() => expect(result.current.unsaved).toBe(0));
    expect(result.current.entries.map((entry) => entry.kind)).toEqual(['smoked']);
  });

  test('taps of an earlier page are sent whichever screen is opened first', async () => {
    const tap: PourEntry = { id: 'left behind', at: 1, kind: 'blank', moldId: ids.mold };
    await tapStore.add(path, tap);
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
    await tapStore.add(path, known);
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
