import fc from 'fast-check';
import { nextUndo, standing, workSeconds } from '../log/log.ts';
import type { CavityLoad, MoldSetup, PourEntry, PourLog, PourSetup } from './pour-log.ts';
import { shotsSeconds } from '../mold/shot-seconds.ts';
import { phaseSeconds } from './phases.ts';
import { castCount, expectedClose, pourState } from './pour.ts';
import { pourRefusal } from './pour-refusal.ts';
import { loadRhythm, moldsAtPot, nextTurn, openInS, setShare, turnAfterPause } from './turns.ts';

const loadOf = (position: number, more: Partial<CavityLoad> = {}): CavityLoad => ({
  moldId: 'm',
  position,
  cavityId: `c${position}`,
  ticketIds: ['b'],
  hookMaterialId: 'hook',
  inserts: [],
  leadKg: 0.01,
  hookKg: 0.001,
  sprueKg: 0.003,
  yieldShare: 1,
  ...more,
});
const moldOf = (moldId = 'm', more: Partial<MoldSetup> = {}): MoldSetup => ({
  moldId,
  plannedBlanks: 4,
  plannedShots: 3,
  openS: 4,
  inspectS: 3,
  loadS: 8,
  ...more,
});
const setup: PourSetup = {
  molds: [moldOf()],
  atOnce: 1,
  // Cavities 1 and 2 cast for two tickets that want the same blank, 3 for one of its own.
  loads: [1, 2, 3].map((position) =>
    loadOf(position, position < 3 ? { ticketIds: ['red', 'green'] } : { ticketIds: ['heavy'], leadKg: 0.014 }),
  ),
  needs: { red: 3, green: 2, heavy: 2 },
  hooksOut: {},
};
let clock = 0;
const at = () => (clock += 30_000);
const charge = (): PourEntry => ({ id: `e${at()}`, at: clock, kind: 'charge', massKg: 2, potC: 20 });
const shot = (id: string, positions = [1, 2, 3]): PourEntry => ({
  id,
  at: at(),
  kind: 'shot',
  moldId: 'm',
  positions,
});
const reject = (id: string, shotId: string, position: number): PourEntry => ({
  id,
  at: at(),
  kind: 'reject',
  shotId,
  position,
  cause: 'short',
  goes: 'melt',
});
const undo = (target: string) => ({ id: `u${at()}`, at: clock, kind: 'undo' as const, target });

describe('a pour from its log', () => {
  test('phases: cold, warming, pouring, paused, enough, closed', () => {
    const log: PourEntry[] = [];
    const phase = () => pourState(setup, log).phase;
    expect(phase()).toBe('cold');
    log.push(charge());
    expect(phase()).toBe('warming');
    log.push({ id: 'b', at: at(), kind: 'blank', moldId: 'm' }, shot('s1'));
    expect(phase()).toBe('pouring');
    log.push({ id: 'p', at: at(), kind: 'pause' });
    expect(phase()).toBe('paused');
    log.push({ id: 'r', at: at(), kind: 'resume' }, shot('s2'), shot('s3'));
    expect(phase()).toBe('enough');
    log.push({ id: 'c', at: at(), kind: 'close', sprueBackKg: 0, rejectsBackKg: 0, drossKg: 0, heelKg: 0 });
    expect(phase()).toBe('closed');
  });

  test('good heads go to the first ticket in the row that still wants one', () => {
    const state = pourState(setup, [charge(), shot('s1'), shot('s2')]);
    expect(state.goodByTicket).toEqual({ red: 3, green: 1, heavy: 2 });
    expect(state.stillNeeded).toEqual({ red: 0, green: 1, heavy: 0 });
    // One head is wanted: one cavity is loaded, not both.
    expect(state.molds[0]).toMatchObject({ wantedPositions: [1], idlePositions: [2, 3] });
    expect(state.shotsToGo).toBe(1);
  });

  test('a reject is taken out of its ticket and named by cavity and cause', () => {
    const state = pourState(setup, [charge(), shot('s1'), reject('r1', 's1', 3)]);
    expect(state.byCavity['c3']).toEqual({ good: 0, kept: 0, rejects: { short: 1 } });
    expect(state.rejectsByTicket).toEqual({ heavy: 1 });
    expect(state.headsKg).toBeCloseTo(0.02, 12);
    expect(state.rejectsKg).toBeCloseTo(0.014, 12);
    expect(castCount(state)).toBe(3);
  });

  test('undo at any depth: a reject, then its shot, then the charge', () => {
    const log: PourLog[number][] = [charge(), shot('s1'), reject('r1', 's1', 1)];
    log.push(undo('r1'));
    expect(pourState(setup, log).rejectsByTicket).toEqual({});
    log.push(undo('s1'));
    expect(pourState(setup, log).shots).toEqual([]);
    log.push(undo(nextUndo<PourEntry>(log)!.id));
    expect(pourState(setup, log).phase).toBe('cold');
    expect(nextUndo(log)).toBeUndefined();
  });

  test('the lead closes, and what does not is shown', () => {
    const log = [charge(), shot('s1'), reject('r1', 's1', 1), shot('s2')];
    const open = pourState(setup, log);
    const expected = expectedClose(open, 0.015);
    const closed = pourState(setup, [...log, { id: 'c', at: at(), kind: 'close', ...expected }]);
    expect(closed.balance!.unexplainedKg).toBeCloseTo(0, 12);
    const spilt = pourState(setup, [
      ...log,
      { id: 'c', at: at(), kind: 'close', ...expected, heelKg: expected.heelKg - 0.05 },
    ]);
    expect(spilt.balance!.unexplainedKg).toBeCloseTo(0.05, 12);
  });

  test('a tap that arrives twice, or out of order, counts once and in its place', () => {
    const log = [charge(), shot('s1'), reject('r1', 's1', 2), shot('s2'), undo('s2'), shot('s3')];
    const once = pourState(setup, log);
    fc.assert(
      fc.property(fc.shuffledSubarray([...log, ...log], { minLength: 12, maxLength: 12 }), (shuffled) => {
        expect(pourState(setup, shuffled)).toEqual(once);
      }),
    );
  });

  test('heads are conserved: filled cavities are good or rejected, whatever was said', () => {
    const entry = fc.record({ positions: fc.subarray([1, 2, 3], { minLength: 1 }), bad: fc.subarray([1, 2, 3]) });
    fc.assert(
      fc.property(fc.array(entry, { maxLength: 30 }), (shots) => {
        const log: PourEntry[] = [charge()];
        shots.forEach(({ positions, bad }, i) => {
          log.push(shot(`x${i}`, positions), ...bad.map((position) => reject(`y${i}${position}`, `x${i}`, position)));
        });
        const state = pourState(setup, log);
        expect(castCount(state)).toBe(shots.reduce((sum, { positions }) => sum + positions.length, 0));
        expect(state.headsKg + state.rejectsKg).toBeCloseTo(
          shots.flatMap(({ positions }) => positions).reduce((sum, position) => sum + (position < 3 ? 0.01 : 0.014), 0),
          9,
        );
      }),
    );
  });
});

describe('time at work', () => {
  const entry = (seconds: number, kind: string) => ({ id: `${seconds}${kind}`, at: seconds * 1000, kind });
  test('from tap to tap, not across a pause or the oven, at most a quarter of an hour a gap', () => {
    expect(
      workSeconds([entry(0, 'shot'), entry(60, 'shot'), entry(100, 'pause'), entry(700, 'resume'), entry(730, 'shot')]),
    ).toBe(130);
    expect(workSeconds([entry(0, 'load'), entry(1500, 'unload'), entry(1560, 'good')])).toBe(60);
    expect(workSeconds([entry(0, 'shot'), entry(9000, 'shot')])).toBe(900);
    expect(workSeconds([entry(0, 'charge'), entry(1200, 'blank'), entry(1230, 'shot')])).toBe(30);
  });
  test('undone entries do not count', () => {
    expect(
      standing([entry(0, 'good'), entry(5, 'good'), { ...entry(6, 'undo'), target: '5good' } as never]),
    ).toHaveLength(1);
  });
});

describe('a cavity given up in the middle of a session', () => {
  const two: PourSetup = { ...setup, loads: [1, 2].map((position) => loadOf(position)), needs: { b: 10 } };
  const first = { id: 's', at: 2, kind: 'shot' as const, moldId: 'm', positions: [1, 2] };
  const blocked = { id: 'x', at: 3, kind: 'blocked' as const, moldId: 'm', position: 2 };
  test('is wanted no more, the others pour on for it, and an undo takes it back', () => {
    const before = pourState(two, [first]);
    const after = pourState(two, [first, blocked]);
    expect(before.molds[0]).toMatchObject({ wantedPositions: [1, 2], shotsToGo: 4, blockedPositions: [] });
    expect(after.molds[0]).toMatchObject({ wantedPositions: [1], shotsToGo: 8, blockedPositions: [2] });
    expect(after.goodByTicket).toEqual({ b: 2 });
    const undone = pourState(two, [first, blocked, { id: 'u', at: 4, kind: 'undo', target: 'x' }]);
    expect(undone.molds[0]!.wantedPositions).toEqual([1, 2]);
  });
});

describe('what becomes of a bad head', () => {
  const one: PourSetup = {
    ...setup,
    loads: [1, 2, 3].map((position) => loadOf(position)),
    needs: { b: 30 },
    hooksOut: { hook: 4 },
  };
  const fill = { id: 's', at: 2, kind: 'shot' as const, moldId: 'm', positions: [1, 2, 3] };
  const bad = (more: object): PourEntry => ({
    id: 'r',
    at: 3,
    kind: 'reject',
    shotId: 's',
    position: 2,
    cause: 'short',
    goes: 'melt',
    ...more,
  });

  test('kept as second grade: its lead and hook are gone, and it is no head for its ticket', () => {
    const state = pourState(one, [fill, bad({ where: 'barb', goes: 'second grade' })]);
    expect(state).toMatchObject({
      goodByTicket: { b: 2 },
      keptByTicket: { b: 1 },
      rejectsByTicket: {},
      hooksLeft: { hook: 1 },
    });
    expect(state.headsKg).toBeCloseTo(0.03, 12);
    expect(state.shots[0]!.heads[1]).toMatchObject({ verdict: 'short', where: 'barb', goes: 'second grade' });
    expect(castCount(state)).toBe(3);
  });

  test('re-dipped: its hook is loaded again, its lead is in the pot and not on the scale', () => {
    const thrown = pourState(one, [charge(), fill, bad({})]);
    const dipped = pourState(one, [charge(), fill, bad({ goes: 'parts back' })]);
    expect(dipped.hooksLeft).toEqual({ hook: 2 });
    expect(dipped.redippedKg).toBeCloseTo(0.01, 12);
    const [before, after] = [expectedClose(thrown, 0), expectedClose(dipped, 0)];
    expect(before.rejectsBackKg - after.rejectsBackKg).toBeCloseTo(0.01, 12);
    expect(after.heelKg - before.heelKg).toBeCloseTo(0.01, 12);
  });

  test('a lost hook is gone, and cavities without a hook are not loaded', () => {
    const state = pourState(one, [fill, bad({ goes: 'hook lost' })]);
    expect(state.hooksLeft).toEqual({ hook: 1 });
    expect(state.molds[0]).toMatchObject({ wantedPositions: [1], idlePositions: [2, 3] });
    const none: PourEntry = { id: 'h', at: 4, kind: 'hooks', materialId: 'hook', left: 0 };
    expect(pourState(one, [fill, none]).molds[0]!.wantedPositions).toEqual([]);
    const fetched: PourEntry = { id: 'f', at: 5, kind: 'hooks', materialId: 'hook', left: 20 };
    expect(pourState(one, [fill, none, fetched]).molds[0]!.wantedPositions).toEqual([1, 2, 3]);
  });
});

describe('what can still be cast', () => {
  const few: PourSetup = {
    ...setup,
    molds: [moldOf('a'), moldOf('b')],
    loads: ['a', 'b'].flatMap((moldId) =>
      [1, 2].map((n) => loadOf(n, { moldId, cavityId: `${moldId}${n}`, ticketIds: [moldId] })),
    ),
    needs: { a: 12, b: 6 },
    hooksOut: { hook: 9 },
    atOnce: 2,
  };
  const fill = (id: string, moldId: string): PourEntry => ({ id, at: at(), kind: 'shot', moldId, positions: [1, 2] });

  test('goes by the hooks that are left, each mold by its part; a pour without any asks for no shot', () => {
    const { molds, shotsToGo } = pourState(few, []);
    // Nine hooks for eighteen heads: six and three, two a shot.
    expect(molds.map((mold) => [mold.shotsToGo, mold.lacking])).toEqual([
      [3, 6],
      [2, 3],
    ]);
    expect(shotsToGo).toBe(5);
    const poured = [fill('1', 'a'), fill('2', 'a'), fill('3', 'a'), fill('4', 'b')];
    const left = pourState(few, poured);
    expect(left.hooksLeft).toEqual({ hook: 1 });
    expect(left.shotsToGo).toBe(1);
    const last: PourEntry = { id: '5', at: at(), kind: 'hooks', materialId: 'hook', left: 0 };
    const none = pourState(few, [...poured, last]);
    expect(none).toMatchObject({ shotsToGo: 0, phase: 'enough', stillNeeded: { a: 6, b: 4 } });
    expect(none.molds.map(({ lacking, wantedPositions }) => [lacking, wantedPositions])).toEqual([
      [6, []],
      [4, []],
    ]);
    expect(nextTurn(few, none, at())).toBeNull();
    // A box is fetched: it goes on.
    const fetched: PourEntry = { id: '6', at: at(), kind: 'hooks', materialId: 'hook', left: 50 };
    expect(pourState(few, [...poured, last, fetched])).toMatchObject({ phase: 'pouring', shotsToGo: 5 });
  });

  test('more than the pot holds does not go in, even if every sprue lies outside; a pour of before knows no limit', () => {
    const small = { ...few, potHoldsKg: 2 };
    const metal = (massKg: number): PourEntry => ({ id: 'm', at: at(), kind: 'feed', massKg });
    // Two are charged, four heads of 10 g and their sprues of 3 g are out: 1.948 are there at least.
    const log = [charge(), fill('1', 'a'), fill('2', 'a')];
    expect(pourRefusal(small, log, metal(0.25))).toBeNull();
    expect(pourRefusal(small, log, metal(0.3))).toBe(
      '0.3\u00a0kg do not go into this pot: it holds 2\u00a0kg, and 1.95\u00a0kg are in it.',
    );
    expect(pourRefusal(few, log, metal(30))).toBeNull();
    expect(pourRefusal(small, [], { id: 'c', at: at(), kind: 'charge', massKg: 2.3, potC: 20 })).toMatch(/^2.3/);
  });
});

describe('two molds', () => {
  const pair: PourSetup = {
    molds: [moldOf('a', { plannedBlanks: 1 }), moldOf('b', { plannedBlanks: 2, openS: 20 }), moldOf('c')],
    atOnce: 2,
    loads: ['a', 'b', 'c'].flatMap((moldId) =>
      [1, 2].map((position) => loadOf(position, { moldId, cavityId: `${moldId}${position}`, ticketIds: [moldId] })),
    ),
    needs: { a: 4, b: 4, c: 2 },
    hooksOut: {},
  };
  const seconds = (s: number) => s * 1000;
  const poured = (id: string, s: number, moldId: string): PourEntry => ({
    id,
    at: seconds(s),
    kind: 'shot',
    moldId,
    positions: [1, 2],
  });
  const blank = (id: string, s: number, moldId: string): PourEntry => ({ id, at: seconds(s), kind: 'blank', moldId });
  const turnAt = (log: PourEntry[], s: number, prefer: string | null = null) =>
    nextTurn(pair, pourState(pair, log), seconds(s), prefer);

  test('they take turns: the one that was poured longest ago is next, and why is said', () => {
    expect(turnAt([], 0)).toMatchObject({ moldId: 'a', blanksToGo: 1, why: 'it is still cold', otherId: 'b' });
    const warm = [blank('1', 0, 'a'), blank('2', 30, 'b'), blank('3', 60, 'b')];
    expect(turnAt(warm.slice(0, 1), 10)).toMatchObject({ moldId: 'b', blanksToGo: 2 });
    expect(turnAt(warm, 70)).toMatchObject({
      moldId: 'a',
      blanksToGo: 0,
      openInS: 0,
      why: 'it is open while the other one sets',
    });
    const log = [...warm, poured('4', 80, 'a')];
    expect(turnAt(log, 81)).toMatchObject({ moldId: 'b', openInS: 0 });
    expect(turnAt([...log, poured('5', 90, 'b')], 120)).toMatchObject({
      moldId: 'a',
      why: 'it has stood longer, and cools',
    });
    expect(turnAt([...log, poured('5', 90, 'b')], 91, 'b')).toMatchObject({
      moldId: 'b',
      openInS: 19,
      why: 'because you said so',
    });
  });

  test('each mold has a clock of its own: since its own shot, by its own time to set', () => {
    const state = pourState(pair, [poured('1', 100, 'a'), poured('2', 103, 'b')]);
    const opens = (at: number) => state.molds.slice(0, 2).map((mold) => openInS(pair, mold, seconds(at)));
    const { openS } = pair.molds[0]!;
    expect(opens(104)).toEqual([Math.max(0, openS - 4), 19]);
    expect(opens(103 + 20)).toEqual([Math.max(0, openS - 23), 0]);
    expect(openInS(pair, state.molds[2]!, seconds(104))).toBe(0);
  });

  test('one that has enough, or is put away, makes room for the next of the row', () => {
    const enough = [poured('1', 0, 'a'), poured('2', 60, 'a')];
    expect(moldsAtPot(pair, pourState(pair, enough)).map((mold) => mold.moldId)).toEqual(['b', 'c']);
    const away: PourEntry = { id: '3', at: seconds(70), kind: 'mold', moldId: 'b', away: true };
    expect(turnAt([...enough, away], 80)).toMatchObject({
      moldId: 'c',
      otherId: null,
      why: 'the only one that still wants heads',
    });
    const back: PourEntry = { id: '4', at: seconds(75), kind: 'mold', moldId: 'b', away: false };
    expect(turnAt([...enough, away, back], 80)).toMatchObject({ moldId: 'b', otherId: 'c' });
  });

  test('every mold keeps its own count, soot and heads', () => {
    const smoked: PourEntry = { id: '9', at: seconds(5), kind: 'smoked', moldId: 'b' };
    const state = pourState(pair, [blank('1', 0, 'b'), smoked, poured('2', 10, 'b'), poured('3', 20, 'a')]);
    expect(state.molds).toMatchObject([
      { moldId: 'a', shots: 1, blanks: 0, shotsSinceSmoked: null, lastPouredAt: 20_000, shotsToGo: 1 },
      { moldId: 'b', shots: 1, blanks: 1, shotsSinceSmoked: 1, lastPouredAt: 10_000, shotsToGo: 1 },
      { moldId: 'c', shots: 0 },
    ]);
    expect(state.goodByTicket).toEqual({ a: 2, b: 2 });
    expect(state.shotsToGo).toBe(3);
  });

  test('after a pause a cold mold gets its blank shots first; metal has set a moment before it is opened', () => {
    const state = pourState(pair, [poured('1', 0, 'a'), poured('2', 10, 'b')]);
    const turn = nextTurn(pair, state, seconds(100))!;
    expect(turnAfterPause(turn, state, 3, seconds(100)).blanksToGo).toBe(0);
    expect(turnAfterPause(turn, state, 3, seconds(400)).blanksToGo).toBe(3);
    expect(turnAfterPause(turn, state, undefined, seconds(400)).blanksToGo).toBe(0);
    // Opened twenty seconds after the pour, it has set within the last three of them.
    expect(setShare(pair, state.molds[1]!, seconds(15))).toBeGreaterThan(0.25);
    expect(setShare(pair, state.molds[1]!, seconds(15))).toBeLessThan(0.32);
    expect(setShare(pair, state.molds[1]!, seconds(28))).toBe(1);
  });

  test('the rhythm of loading: out, one beat a cavity, close; it waits for the hands', () => {
    const state = pourState(pair, [poured('1', 0, 'a'), poured('2', 10, 'b')]);
    const beatAt = (s: number) => loadRhythm(pair, state, nextTurn(pair, state, seconds(s))!, seconds(s));
    expect(beatAt(11)).toMatchObject({ beat: 0, beats: 4 });
    expect(beatAt(17)).toMatchObject({ beat: 1, says: 'Load 1 of 2' });
    expect(beatAt(25)).toMatchObject({ beat: 2, says: 'Load 2 of 2' });
    expect(beatAt(33)).toMatchObject({ beat: 3, says: 'Close: click, seam flush' });
    expect(beatAt(40)).toMatchObject({ beat: 4, says: 'Pour in one go' });
  });
});

describe('where the time went', () => {
  const minute = (m: number, entry: object): PourEntry => ({ id: `t${m}`, at: m * 60_000, ...entry }) as PourEntry;
  test('melt, warm-up, pour, pause and wind-down add up to the evening', () => {
    const log = [
      minute(0, { kind: 'charge', massKg: 2, potC: 20 }),
      minute(18, { kind: 'blank', moldId: 'm' }),
      minute(20, { kind: 'shot', moldId: 'm', positions: [1] }),
      minute(30, { kind: 'pause' }),
      minute(90, { kind: 'resume' }),
      minute(100, { kind: 'shot', moldId: 'm', positions: [1] }),
      minute(115, { kind: 'close', sprueBackKg: 0, rejectsBackKg: 0, drossKg: 0, heelKg: 2 }),
    ];
    const minutes = Object.entries(phaseSeconds(log, 0)).map(([phase, s]) => [phase, s / 60]);
    expect(Object.fromEntries(minutes)).toEqual({ melt: 18, 'warm-up': 2, pour: 20, pause: 60, 'wind-down': 15 });
    expect(phaseSeconds([], 0).melt).toBe(0);
  });
});

// Common practice, no source: a practised person with a 5-cavity mold makes about 100 heads in an hour.
test('the pace of one mold, and what a second one in turn brings', () => {
  const ways = { loadS: 17, inspectS: 12 };
  const mold = { shots: 20, cavities: 5, openS: 4 };
  const perHour = (seconds: number, heads: number) => (3600 * heads) / seconds;
  const alone = perHour(shotsSeconds(ways, [mold], 1), 100);
  expect(alone).toBeGreaterThan(80);
  expect(alone).toBeLessThan(130);
  // Ladled balls that set for 20 s gain most: hands never wait for them.
  const balls = { shots: 20, cavities: 2, openS: 40 };
  expect(shotsSeconds(ways, [balls, balls], 2)).toBeLessThan(0.75 * shotsSeconds(ways, [balls, balls], 1));
  expect(shotsSeconds(ways, [mold, { ...mold, shots: 5 }], 2)).toBeGreaterThan(shotsSeconds(ways, [mold], 1));
});
