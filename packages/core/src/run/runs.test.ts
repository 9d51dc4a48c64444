import { ticketState, type TicketSetup } from '../job/ticket.ts';
import { usualRoute } from '../job/route.ts';
import type { TicketEntry } from '../job/ticket-log.ts';
import type { Around } from './heads-in-run.ts';
import { bakedLoads, ovenRefusal, ovenShares, ovenState, type OvenEntry } from './oven.ts';
import { RUN_KINDS, withShares } from './runs.ts';
import { sessionRefusal, sessionShares, sessionState, type SessionEntry } from './session.ts';

const heads = [
  { ticketId: 'a', step: 'bake', count: 30 },
  { ticketId: 'b', step: 'bake', count: 50 },
  { ticketId: 'c', step: 'bake-2', count: 8 },
];
const load = (at: number, more: object = {}): OvenEntry =>
  ({
    id: 'load',
    at,
    kind: 'load',
    ovenId: null,
    heads,
    setC: 177,
    seconds: 1200,
    preheated: true,
    ...more,
  }) as OvenEntry;
const around = (more: Partial<Around> = {}): Around => ({
  busy: null,
  stationOf: () => 'bake',
  waiting: () => 60,
  ...more,
});

describe('a load of the oven', () => {
  test('88 heads of three tickets: one door, one clock, one taking out', () => {
    const door: OvenEntry[] = [
      { id: 'd1', at: 400_000, kind: 'door', open: true },
      { id: 'd2', at: 410_000, kind: 'door', open: false },
    ];
    const baking = ovenState([load(0), ...door]);
    expect(baking).toMatchObject({ phase: 'baking', count: 88, endsAt: 1_200_000 });
    expect(baking.doors).toEqual([{ fromAt: 400_000, toAt: 410_000 }]);
    const out: OvenEntry = { id: 'out', at: 1_300_000, kind: 'unload', coolS: 600 };
    expect(ovenState([load(0), ...door, out])).toMatchObject({ phase: 'out', unloadedAt: 1_300_000, coolS: 600 });
    expect(ovenState([load(0), { id: 'u', at: 1, kind: 'undo', target: 'load' }]).phase).toBe('empty');
  });
  test('a count that goes from the metal starts anew when it is warm, once', () => {
    const metal = load(0, { from: 'metal', warmS: 480 });
    expect(ovenState([metal]).endsAt).toBe(1000 * (480 + 1200));
    const warm: OvenEntry = { id: 'w', at: 600_000, kind: 'warm', by: 'probe' };
    expect(ovenState([metal, warm, { ...warm, id: 'w2', at: 700_000, by: 'hand' }])).toMatchObject({
      warmAt: 600_000,
      endsAt: 1_800_000,
    });
  });
  test('each ticket is told what is its own, and its part of the work and the current', () => {
    const shares = ovenShares([load(1000), { id: 'out', at: 2000, kind: 'unload', coolS: 60 }]);
    expect(shares.filter((each) => each.ticketId === 'a').map(({ entry }) => entry)).toEqual([
      {
        id: 'load',
        at: 1000,
        kind: 'load',
        step: 'bake',
        share: 30 / 88,
        count: 30,
        setC: 177,
        seconds: 1200,
        preheated: true,
      },
      { loadId: 'load', id: 'out', at: 2000, kind: 'unload', coolS: 60, step: 'bake', share: 30 / 88 },
    ]);
    const parts = shares.flatMap(({ entry }) => (entry.kind === 'load' ? [entry.share ?? 0] : []));
    expect(parts.reduce((sum, part) => sum + part, 0)).toBeCloseTo(1, 12);
  });
  test('a ticket is folded with what its loads say of it', () => {
    const setup: TicketSetup = {
      route: usualRoute({ painted: true, baked: true }),
      source: 'pour',
      poured: 40,
      pourClosed: true,
    };
    const own: TicketEntry[] = [
      { id: '1', at: 1, kind: 'good', step: 'trim', count: 40 },
      { id: '2', at: 2, kind: 'good', step: 'paint', count: 40 },
      { id: '3', at: 100_000, kind: 'start', step: 'bake' },
    ];
    const run = { kind: 'oven' as const, log: [load(188_000)] };
    const state = ticketState(setup, withShares<TicketEntry>('a', own, [run]));
    expect(state.loads[0]).toMatchObject({ count: 30, share: 30 / 88, loadedAt: 188_000 });
    const bake = state.steps.find((step) => step.key === 'bake')!;
    expect(bake).toMatchObject({ left: 40, inOven: 30 });
    // Hanging up took 88 s for all 88 heads: 30 s of it are this ticket's.
    expect(bake.workS).toBeCloseTo(30, 9);
    expect(withShares('z', own, [run])).toEqual(own);
  });
  test('what cannot be is refused: two heats at once, heads that are not there, a step that is no bake', () => {
    expect(ovenRefusal([], load(0), around())).toBeNull();
    expect(ovenRefusal([], load(0), around({ busy: 'load 4' }))).toMatch(/The oven holds load 4; take it out first/);
    expect(ovenRefusal([], load(0), around({ waiting: () => 40 }))).toMatch(/heads\[1\].count is 50; allowed: 1 to 40/);
    expect(ovenRefusal([], load(0), around({ stationOf: () => 'paint' }))).toMatch(
      /heads\[0\].step is "bake"; allowed: a step at bake/,
    );
    expect(ovenRefusal([], load(0, { heads: [heads[0], heads[0]] }), around())).toMatch(/heads\[1\] is named twice/);
    expect(ovenRefusal([load(0)], load(1), around())).toMatch(/in the oven already/);
    const out: OvenEntry = { id: 'out', at: 9, kind: 'unload' };
    expect(ovenRefusal([], out, around())).toMatch(/Nothing is in the oven/);
    expect(ovenRefusal([load(0), out], { ...out, id: 'again' }, around())).toMatch(/out of the oven/);
    expect(ovenRefusal([load(0)], { id: 'u', at: 2, kind: 'undo', target: 'x' }, around())).toMatch(/no such entry/);
  });
  test('what is over is taken out first; its wait stands on the shelf, then its cooling', () => {
    const run = { id: 'r', kind: 'oven' as const, number: 7, log: [load(0)] };
    expect(bakedLoads([run], 1_199_999)).toEqual([]);
    expect(bakedLoads([run], 1_200_000)).toEqual([{ runId: 'r', count: 88 }]);
    expect(RUN_KINDS.oven.waits(run, 1000)).toMatchObject([{ body: 'oven', name: 'Bake, load 7', endsAt: 1_200_000 }]);
    const out = { ...run, log: [load(0), { id: 'o', at: 1_300_000, kind: 'unload' as const, coolS: 60 }] };
    expect(RUN_KINDS.oven.waits(out, 1_310_000)).toMatchObject([{ body: 'cool', endsAt: 1_360_000 }]);
    expect(RUN_KINDS.oven.waits(out, 1_400_000)).toEqual([]);
    expect(RUN_KINDS.oven.closedAt(out.log)).toBe(1_300_000);
  });
});

describe('a session that serves several tickets head by head', () => {
  const begin: SessionEntry = {
    id: 'b',
    at: 0,
    kind: 'begin',
    partId: 'epoxy',
    name: 'Five-minute epoxy',
    heads: [
      { ticketId: 'a', step: 'guard', count: 12 },
      { ticketId: 'b', step: 'guard', count: 6 },
    ],
    potLifeS: 300,
    setS: 3600,
  };
  const good = (id: string, at: number, ticketId: string, count = 1): SessionEntry => {
    return { id, at, kind: 'good', ticketId, step: 'guard', count };
  };
  const finish = around({ stationOf: () => 'finish', waiting: () => 12 });
  test('a mix of glue: workable for its pot life, set its time after the last head', () => {
    const log = [begin, good('1', 60_000, 'a', 4), good('2', 240_000, 'b', 6)];
    expect(sessionState(log)).toMatchObject({ phase: 'going', done: 10, workableUntil: 300_000, setAt: 3_840_000 });
    const run = { id: 'g', kind: 'glue' as const, number: 2, log };
    expect(RUN_KINDS.glue.waits(run, 100_000)).toMatchObject([{ name: 'Five-minute epoxy can be worked, mix 2' }]);
    const over = { ...run, log: [...log, { id: 'e', at: 300_000, kind: 'end' as const }] };
    expect(RUN_KINDS.glue.waits(over, 400_000)).toMatchObject([
      { name: 'Five-minute epoxy sets, mix 2', endsAt: 3_840_000 },
    ]);
    expect(RUN_KINDS.glue.closedAt(over.log)).toBe(300_000);
  });
  test('its heads are counted in their tickets, good or not', () => {
    const bad: SessionEntry = {
      id: 'x',
      at: 3,
      kind: 'reject',
      ticketId: 'a',
      step: 'guard',
      cause: 'other',
      count: 1,
      goes: 'melt',
    };
    expect(sessionShares([begin, good('1', 1, 'a', 3), bad, { id: 'u', at: 4, kind: 'undo', target: '1' }])).toEqual([
      {
        ticketId: 'a',
        entry: { id: 'x', at: 3, kind: 'reject', step: 'guard', count: 1, cause: 'other', goes: 'melt' },
      },
    ]);
  });
  test('dips of one colour are stirred by count, and a pause is no work', () => {
    const log: SessionEntry[] = [
      begin,
      good('1', 20_000, 'a', 5),
      { id: 's', at: 21_000, kind: 'stirred' },
      good('2', 40_000, 'b'),
    ];
    expect(sessionState(log)).toMatchObject({ sinceStirred: 1, workS: 40 });
    expect(
      sessionState([...log, { id: 'p', at: 41_000, kind: 'pause' }, { id: 'r', at: 99_000, kind: 'resume' }]),
    ).toMatchObject({ phase: 'going', workS: 41 });
  });
  test('what cannot be is refused', () => {
    expect(sessionRefusal([], good('1', 1, 'a'), 'finish', finish)).toMatch(/has not begun/);
    expect(sessionRefusal([begin], begin, 'finish', finish)).toMatch(/has begun already/);
    expect(sessionRefusal([begin], good('1', 1, 'z'), 'finish', finish)).toMatch(
      /step is "guard"; allowed: the tickets/,
    );
    expect(sessionRefusal([begin], good('1', 1, 'a', 13), 'finish', finish)).toMatch(/count is 13; allowed: 1 to 12/);
    const end: SessionEntry = { id: 'e', at: 2, kind: 'end' };
    expect(sessionRefusal([begin, end], good('1', 3, 'a'), 'finish', finish)).toMatch(/is over. Undo its end first/);
    expect(sessionRefusal([begin], { id: 'r', at: 1, kind: 'stirred' }, 'finish', finish)).toBeNull();
  });
});
