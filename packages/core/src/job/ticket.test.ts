import { headsOwed } from './owed.ts';
import { runningClocks } from '../run/clocks.ts';
import type { OvenEntry } from '../run/oven.ts';
import { nextThing } from '../line/next.ts';
import { waitingByStation, type TicketOnLine } from '../line/waiting.ts';
import { usualRoute, type RouteStep } from './route.ts';
import { bakeCounts, stepState, ticketRefusal as refusal, ticketState, type TicketSetup } from './ticket.ts';
import type { TicketEntry, TicketLog } from './ticket-log.ts';

const setup: TicketSetup = {
  route: usualRoute({ painted: true, baked: true }),
  source: 'pour',
  poured: 10,
  pourClosed: true,
};
let clock = 0;
const base = () => ({ id: `t${(clock += 10_000)}`, at: clock });
const good = (step: string, count: number): TicketEntry => ({ ...base(), kind: 'good', step, count });
const reject = (step: string, cause: string, more: object = {}): TicketEntry =>
  ({ ...base(), kind: 'reject', step, cause, count: 1, goes: 'melt', ...more }) as TicketEntry;
const load = (count: number): TicketEntry => ({
  ...base(),
  kind: 'load',
  step: 'bake',
  count,
  setC: 177,
  seconds: 1500,
  preheated: true,
});

describe('a ticket along its stations', () => {
  test('bare heads skip paint and bake; unbaked ones skip the bake', () => {
    const keys = (route: readonly RouteStep[]) => route.map((step) => step.key);
    expect(keys(usualRoute({ painted: false, baked: true }))).toEqual(['trim', 'finish']);
    expect(keys(usualRoute({ painted: true, baked: false }))).toEqual(['trim', 'paint', 'finish']);
    expect(keys(usualRoute({ painted: true, baked: true, fromShelf: true }))).toEqual(['paint', 'bake', 'finish']);
  });

  test('good heads move on, rejects stay behind, a station is done when nothing is left', () => {
    const log: TicketLog = [good('trim', 9), reject('trim', 'divot'), good('paint', 4)];
    const state = ticketState(setup, log);
    expect(stepState(state, 'trim')).toMatchObject({ status: 'done', good: 9, rejected: 1, rejects: { divot: 1 } });
    expect(stepState(state, 'paint')).toMatchObject({ status: 'running', arrived: 9, left: 5 });
    expect(state.at).toBe('paint');
  });

  test('while the pour is open, trimming catches up but is not done', () => {
    const state = ticketState({ ...setup, pourClosed: false }, [good('trim', 10)]);
    expect(stepState(state, 'trim')!.status).toBe('waiting');
    expect(state.at).toBe('pour');
  });

  test('a count that goes from the metal starts anew when it is warm; the door is kept with its load', () => {
    const hung: TicketEntry = {
      ...base(),
      kind: 'load',
      step: 'bake',
      count: 10,
      setC: 177,
      seconds: 1200,
      preheated: true,
      from: 'metal',
      warmS: 480,
    };
    const say = (entry: object, afterS: number) =>
      ({ id: `d${(clock += 1)}`, at: hung.at + 1000 * afterS, step: 'bake', ...entry }) as TicketEntry;
    const before = [good('trim', 10), good('paint', 10), hung].map((entry, i) => ({ ...entry, at: hung.at - 2 + i }));
    const load = (more: TicketEntry[]) => ticketState(setup, [...before, ...more]).loads[0]!;
    expect(load([]).endsAt - hung.at).toBe(1000 * (480 + 1200));
    const warm = say({ kind: 'warm', by: 'probe' }, 600);
    expect(load([warm]).endsAt - hung.at).toBe(1000 * (600 + 1200));
    // A second word on it, of another device, moves nothing.
    expect(load([warm, say({ kind: 'warm', by: 'hand' }, 700)]).warmAt).toBe(warm.at);
    const doors = load([
      say({ kind: 'door', open: true }, 900),
      say({ kind: 'door', open: true }, 905),
      say({ kind: 'door', open: false }, 930),
    ]).doors;
    expect(doors).toEqual([{ fromAt: hung.at + 900_000, toAt: hung.at + 930_000 }]);
    expect(refusal(setup, [good('trim', 10)], { ...base(), kind: 'door', step: 'bake', open: true })).toMatch(
      /No load/,
    );
  });

  test('a coat of liquid paint dries on the shelf until it is dry', () => {
    const coat: TicketEntry = { ...base(), kind: 'coat', step: 'paint', coat: 1, paint: 'Primer', dryS: 3600 };
    const log = [good('trim', 10), coat];
    expect(ticketState(setup, log).coats).toEqual([
      { id: coat.id, step: 'paint', coat: 1, paint: 'Primer', onAt: coat.at, dryAt: coat.at + 3.6e6 },
    ]);
    const shelf = (now: number) =>
      runningClocks([], [{ id: '5', number: 7, setup, log }], [], now).map(({ body, endsAt }) => [body, endsAt]);
    expect(shelf(coat.at + 60_000)).toEqual([['dry', coat.at + 3.6e6]]);
    expect(shelf(coat.at + 3.7e6)).toEqual([]);
  });

  test('sprues weighed at the trim are summed up', () => {
    const sprue = (massKg: number): TicketEntry => ({ ...base(), kind: 'sprue', step: 'trim', massKg });
    expect(stepState(ticketState(setup, [good('trim', 4), sprue(0.12), sprue(0.05)]), 'trim')!.sprueKg).toBeCloseTo(
      0.17,
      12,
    );
  });

  test('the oven: load, out, look', () => {
    const before: TicketLog = [good('trim', 10), good('paint', 10)];
    expect(bakeCounts(ticketState(setup, before), 'bake')).toEqual({ toLoad: 10, inOven: 0, toInspect: 0 });
    const baking: TicketLog = [...before, load(6)];
    expect(bakeCounts(ticketState(setup, baking), 'bake')).toEqual({ toLoad: 4, inOven: 6, toInspect: 0 });
    const out: TicketLog = [...baking, { ...base(), kind: 'unload', step: 'bake' }, good('bake', 2)];
    expect(bakeCounts(ticketState(setup, out), 'bake')).toEqual({ toLoad: 4, inOven: 0, toInspect: 4 });
  });

  test('what cannot be is refused in words', () => {
    expect(refusal(setup, [], good('trim', 11))).toMatch(/count is 11; allowed: 1 to 10/);
    expect(refusal(setup, [], good('paint', 1))).toMatch(/allowed: none, as no head waits/);
    expect(refusal({ ...setup, route: usualRoute({ painted: false, baked: false }) }, [], good('paint', 1))).toMatch(
      /step is "paint"; allowed: trim, finish/,
    );
    const close: TicketEntry = { ...base(), kind: 'close' };
    expect(refusal(setup, [], close)).toMatch(/Heads still wait at trim/);
    const done: TicketLog = [good('trim', 10), good('paint', 10), good('bake', 10), good('finish', 10)];
    expect(refusal(setup, done, close)).toBeNull();
    expect(refusal(setup, [...done, close], good('finish', 1))).toMatch(/is closed/);
    expect(refusal(setup, [...done.slice(0, 2), load(5)], load(5))).toMatch(/take it out first/);
    // A coat is laid on at the paint, and nowhere else.
    const coat: TicketEntry = { ...base(), kind: 'coat', step: 'bake', coat: 1, paint: 'Primer', dryS: 60 };
    expect(refusal(setup, [], coat)).toMatch(/step is "bake"; allowed: paint/);
  });
});

describe('the line', () => {
  const ticket = (
    id: string,
    dueOn: string | null,
    log: TicketLog,
    more: Partial<TicketSetup> = {},
  ): TicketOnLine & { setup: TicketSetup; log: TicketLog } => {
    const own = { ...setup, ...more };
    return {
      id,
      number: Number(id),
      dueOn,
      quantity: 10,
      poured: own.poured,
      toCast: headsOwed({ quantity: 10, ...own }, ticketState(own, log), { mean: 1 }).toCast,
      state: ticketState(own, log),
      setup: own,
      log,
    };
  };

  test('next is the oven that is over, then an open pour, then what can be closed, then nearest to done', () => {
    const loading = load(10);
    const baking = ticket('1', null, [good('trim', 10), good('paint', 10), loading]);
    const trimming = ticket('2', '2026-05-01', []);
    const over = loading.at + 1_500_000;
    expect(nextThing([trimming, baking], null, [{ runId: 'r', count: 10 }], over)).toMatchObject({
      what: 'take out',
      runId: 'r',
    });
    expect(nextThing([trimming, baking], 'p', [], over - 1000)).toMatchObject({ what: 'pour on', pourId: 'p' });
    expect(nextThing([trimming, baking], null, [], over - 1000)).toMatchObject({
      what: 'step',
      station: 'trim',
      ticketId: '2',
      count: 10,
    });
    const done = ticket('3', null, [good('trim', 10), good('paint', 10), good('bake', 10), good('finish', 10)]);
    expect(nextThing([trimming, done], null, [], 0)).toMatchObject({ what: 'close', ticketId: '3' });
    expect(nextThing([ticket('4', null, [], { poured: 0, pourClosed: false })], null, [], 0)).toMatchObject({
      what: 'pour',
      count: 10,
    });
    expect(nextThing([], null, [], 0)).toBeNull();
    expect(waitingByStation([baking, trimming], 0)).toEqual({ pour: 0, trim: 10, paint: 0, bake: 10, finish: 0 });
  });

  test('clocks: melting until the first shot, setting until it may be opened, the oven until it is emptied', () => {
    const mold = { moldId: 'm', plannedBlanks: 0, plannedShots: 1, openS: 6, inspectS: 3, loadS: 8 };
    const pourSetup = { molds: [mold], atOnce: 1, loads: [], needs: {}, hooksOut: {} };
    const pour = {
      id: 'p',
      number: 7,
      setup: pourSetup,
      plannedMeltS: 600,
      log: [{ id: 'c', at: 0, kind: 'charge' as const, massKg: 2, potC: 20 }],
    };
    expect(runningClocks([pour], [], [], 1000)).toMatchObject([{ body: 'melt', endsAt: 600_000 }]);
    const poured = {
      ...pour,
      log: [...pour.log, { id: 's', at: 700_000, kind: 'shot' as const, moldId: 'm', positions: [1] }],
    };
    expect(runningClocks([poured], [], [], 703_000)).toMatchObject([{ body: 'freeze', endsAt: 706_000 }]);
    expect(runningClocks([poured], [], [], 706_001)).toEqual([]);
    const loading: OvenEntry = {
      ...base(),
      kind: 'load',
      ovenId: null,
      heads: [{ ticketId: '5', step: 'bake', count: 10 }],
      setC: 177,
      seconds: 1500,
      preheated: true,
    };
    const run = { id: 'r', kind: 'oven' as const, number: 4, log: [loading] };
    expect(runningClocks([], [], [run], loading.at + 2e6)).toMatchObject([
      { body: 'oven', to: { station: 'bake', id: 'r', run: 'oven' }, endsAt: loading.at + 1.5e6 },
    ]);
    expect(runningClocks([], [], [run], loading.at + 1e9)).toEqual([]);
  });
});
