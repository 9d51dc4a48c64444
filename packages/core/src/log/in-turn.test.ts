import { ovenShares, ovenState, type OvenEntry } from '../run/oven.ts';
import { sessionState, type SessionEntry } from '../run/session.ts';
import { inTurn } from './in-turn.ts';

const HOUR = 3_600_000;
const MINUTE = 60_000;
const T = Date.UTC(2026, 5, 1, 19);
const load = (at: number, more: object = {}): OvenEntry => ({
  ...{ id: 'l', at, kind: 'load', ovenId: null, heads: [{ ticketId: 't', step: 'bake', count: 12 }] },
  ...{ setC: 177, seconds: 1200, preheated: true, ...more },
});
const unload = (at: number, more: object = {}): OvenEntry => ({ id: 'u', at, kind: 'unload', ...more });

test('a load by a device an hour fast is taken out by another, and its beginning is put right', () => {
  const log = [load(T + HOUR, { ahead: HOUR }), unload(T + 22 * MINUTE)];
  expect(ovenState(log)).toMatchObject({ phase: 'out', loadedAt: T, unloadedAt: T + 22 * MINUTE });
  // The ticket hears it in the same order.
  expect(ovenShares(log).map(({ entry }) => [entry.kind, entry.at])).toEqual([
    ['load', T],
    ['unload', T + 22 * MINUTE],
  ]);
});

test('a load that a device an hour slow takes out was in as long as the clocks together say', () => {
  const log = [load(T), unload(T + 25 * MINUTE - HOUR, { ahead: -HOUR })];
  expect(ovenState(log)).toMatchObject({ phase: 'out', loadedAt: T, unloadedAt: T + 25 * MINUTE });
});

test('where nobody knows which clock was wrong, out is not before in', () => {
  expect(ovenState([load(T + HOUR), unload(T)])).toMatchObject({
    phase: 'out',
    loadedAt: T + HOUR,
    unloadedAt: T + HOUR,
  });
});

test('clocks that contradict nothing are left: a page whose clock was moved on bakes as long as it says', () => {
  const log = [load(T), unload(T + 25 * MINUTE, { ahead: 25 * MINUTE })];
  expect(inTurn(log)).toEqual(log);
});

test('door and warmth between in and out, of a device that is behind', () => {
  const door = (id: string, at: number, open: boolean): OvenEntry => ({ id, at, kind: 'door', open });
  const log = [
    load(T + HOUR, { ahead: HOUR }),
    door('d', T + MINUTE, true),
    door('e', T + 2 * MINUTE, false),
    unload(T + 9),
  ];
  const state = ovenState(log);
  expect(state.doors).toEqual([{ fromAt: T + MINUTE, toAt: T + 2 * MINUTE }]);
  expect(state).toMatchObject({ phase: 'out', loadedAt: T, unloadedAt: T + 2 * MINUTE });
});

test('a session that another device ends is over, and its heads count', () => {
  const log: SessionEntry[] = [
    { id: 'b', at: T + HOUR, ahead: HOUR, kind: 'begin', partId: 'p', name: 'White', heads: [] },
    { id: 'g', at: T + MINUTE, kind: 'good', ticketId: 't', step: 'paint', count: 3 },
    { id: 'e', at: T + 2 * MINUTE, kind: 'end' },
  ];
  expect(sessionState(log)).toMatchObject({ phase: 'over', done: 3, beganAt: T, endedAt: T + 2 * MINUTE, workS: 120 });
});
