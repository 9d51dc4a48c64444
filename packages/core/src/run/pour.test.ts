import fc from 'fast-check';
import { nextUndo, standing, workSeconds } from './log.ts';
import { castCount, expectedClose, pourState, type PourEntry, type PourLog, type PourSetup } from './pour.ts';

const setup: PourSetup = {
  loads: [1, 2, 3].map((position) => ({
    position,
    cavityId: `c${position}`,
    // Cavities 1 and 2 cast for two tickets that want the same blank, 3 for one of its own.
    batchIds: position < 3 ? ['red', 'green'] : ['heavy'],
    hookMaterialId: 'hook',
    leadKg: position < 3 ? 0.01 : 0.014,
    sprueKg: 0.003,
    yieldShare: 1,
  })),
  needs: { red: 3, green: 2, heavy: 2 },
  plannedBlanks: 4,
};
let clock = 0;
const at = () => (clock += 30_000);
const charge = (): PourEntry => ({ id: `e${at()}`, at: clock, kind: 'charge', massKg: 2, potC: 20 });
const shot = (id: string, positions = [1, 2, 3]): PourEntry => ({ id, at: at(), kind: 'shot', positions });
const reject = (id: string, shotId: string, position: number): PourEntry => ({
  id,
  at: at(),
  kind: 'reject',
  shotId,
  position,
  cause: 'short',
});
const undo = (target: string) => ({ id: `u${at()}`, at: clock, kind: 'undo' as const, target });

describe('a pour from its log', () => {
  test('phases: cold, warming, pouring, paused, enough, closed', () => {
    const log: PourEntry[] = [];
    const phase = () => pourState(setup, log).phase;
    expect(phase()).toBe('cold');
    log.push(charge());
    expect(phase()).toBe('warming');
    log.push({ id: 'b', at: at(), kind: 'blank' }, shot('s1'));
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
    expect(state.goodByBatch).toEqual({ red: 3, green: 1, heavy: 2 });
    expect(state.stillNeeded).toEqual({ red: 0, green: 1, heavy: 0 });
    expect(state.wantedPositions).toEqual([1, 2]);
    expect(state.shotsToGo).toBe(1);
  });

  test('a reject is taken out of its ticket and named by cavity and cause', () => {
    const state = pourState(setup, [charge(), shot('s1'), reject('r1', 's1', 3)]);
    expect(state.byPosition[3]).toEqual({ good: 0, rejects: { short: 1 } });
    expect(state.rejectsByBatch).toEqual({ heavy: 1 });
    expect(state.headsKg).toBeCloseTo(0.02, 12);
    expect(state.rejectsKg).toBeCloseTo(0.014, 12);
    expect(castCount(state)).toBe(3);
  });

  test('undo at any depth: a reject, then its shot, then the charge', () => {
    const log: PourLog[number][] = [charge(), shot('s1'), reject('r1', 's1', 1)];
    log.push(undo('r1'));
    expect(pourState(setup, log).rejectsByBatch).toEqual({});
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
  const load = (position: number) => ({
    position,
    cavityId: `c${position}`,
    batchIds: ['b'],
    hookMaterialId: 'h',
    leadKg: 0.01,
    sprueKg: 0.003,
    yieldShare: 1,
  });
  const setup = { loads: [1, 2].map(load), needs: { b: 10 }, plannedBlanks: 0 };
  const shot = { id: 's', at: 2, kind: 'shot' as const, positions: [1, 2] };
  const blocked = { id: 'x', at: 3, kind: 'blocked' as const, position: 2 };
  test('is wanted no more, the others pour on for it, and an undo takes it back', () => {
    const before = pourState(setup, [shot]);
    const after = pourState(setup, [shot, blocked]);
    expect(before).toMatchObject({ wantedPositions: [1, 2], shotsToGo: 4, blockedPositions: [] });
    expect(after).toMatchObject({ wantedPositions: [1], shotsToGo: 8, blockedPositions: [2] });
    expect(after.goodByBatch).toEqual({ b: 2 });
    const undone = pourState(setup, [shot, blocked, { id: 'u', at: 4, kind: 'undo', target: 'x' }]);
    expect(undone.wantedPositions).toEqual([1, 2]);
  });
});
