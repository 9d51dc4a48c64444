import { seeded } from '../random/seeded.ts';
import { solver } from '../test/solve.ts';
import { castSeconds, solveCasts, type CastProblem } from './cast-model.ts';
import type { SolveLp } from '../numeric/program.ts';

let solve: SolveLp;
beforeAll(async () => {
  solve = await solver();
});

/**
 * Every way to spread the casts over groups, the shots each mold then needs, and the least of all: no program, no
 * solver. Weights are 1 here, so that casts are whole.
 */
function bruteForce({ blanks, molds, groups, limits }: CastProblem): { seconds: number; missing: number } {
  const pairs = groups.flatMap((group) => group.casts.map(({ blankId }) => ({ group, blankId })));
  let best = { seconds: Infinity, missing: Infinity };
  const casts = pairs.map(() => 0);
  const look = () => {
    const sums = new Map<string, number>();
    pairs.forEach(({ blankId }, at) => sums.set(blankId, (sums.get(blankId) ?? 0) + casts[at]!));
    const missing = blanks.reduce((sum, { id, casts: wanted }) => sum + Math.max(0, wanted - (sums.get(id) ?? 0)), 0);
    for (const { takes, most } of limits) {
      if (pairs.reduce((sum, { blankId }, at) => sum + (takes[blankId] ?? 0) * casts[at]!, 0) > most) return;
    }
    let seconds = 0;
    for (const { id, setupS, shotS, castS } of molds) {
      let [shots, filled] = [0, 0];
      for (const group of groups.filter(({ moldId }) => moldId === id)) {
        const own = pairs.reduce((sum, pair, at) => sum + (pair.group === group ? casts[at]! : 0), 0);
        shots = Math.max(shots, Math.ceil(own / group.cavities));
        filled += own;
      }
      seconds += (shots > 0 ? setupS : 0) + shots * shotS + filled * castS;
    }
    if (missing < best.missing || (missing === best.missing && seconds < best.seconds)) best = { seconds, missing };
  };
  const go = (at: number) => {
    if (at === pairs.length) return look();
    const most = blanks.find(({ id }) => id === pairs[at]!.blankId)!.casts;
    for (let n = 0; n <= most; n++) {
      casts[at] = n;
      go(at + 1);
    }
    casts[at] = 0;
  };
  go(0);
  return best;
}

function randomCase(random: () => number): CastProblem {
  const whole = (low: number, high: number) => low + Math.floor(random() * (high - low + 1));
  const blanks = ['a', 'b'].slice(0, whole(1, 2)).map((id) => ({ id, name: id, casts: whole(1, 6) }));
  const molds = ['m', 'n'].slice(0, whole(1, 2)).map((id) => ({
    ...{ id, setupS: 30 * whole(0, 20), shotS: whole(5, 40), castS: whole(5, 40) },
  }));
  const groups = molds.flatMap(({ id: moldId }) =>
    [1, 2].slice(0, whole(1, 2)).map((nth) => ({
      ...{ id: `${moldId}${nth}`, moldId, cavities: whole(1, 3) },
      casts: blanks.filter(() => random() < 0.7).map(({ id: blankId }) => ({ blankId, weight: 1 })),
    })),
  );
  // Two blanks in four groups are too many ways to try; two groups of two are enough to show a choice.
  while (groups.reduce((sum, group) => sum + group.casts.length, 0) > 4) groups.pop();
  const scarce = { id: 'hooks', name: 'hooks', takes: { a: 1 }, most: whole(0, 8) };
  return { blanks, molds, groups, limits: random() < 0.5 ? [scarce] : [] };
}

test('500 small cases: as quick as the best of every way there is, and short of as little', () => {
  const random = seeded(13);
  for (let round = 0; round < 500; round++) {
    const problem = randomCase(random);
    const found = solveCasts(problem, solve);
    const best = bruteForce(problem);
    const missing = Object.values(found.missing).reduce((sum, casts) => sum + casts, 0);
    expect([round, missing, found.seconds]).toEqual([round, best.missing, expect.closeTo(best.seconds, 6)]);
    expect(found.optimal).toBe(true);
    // No cavity is filled more often than its mold is shot.
    for (const group of problem.groups) {
      const filled = found.uses.reduce((sum, use) => sum + (use.groupId === group.id ? use.casts : 0), 0);
      expect(filled).toBeLessThanOrEqual(group.cavities * (found.shots[group.moldId] ?? 0));
    }
  }
}, 60_000);

const three = { id: 'three', setupS: 300, shotS: 10, castS: 32 };
const one = { id: 'one', setupS: 60, shotS: 10, castS: 32 };
const groupOf = (moldId: string, cavities: number, weight = 1) => ({
  ...{ id: `${moldId} ${weight}`, moldId, cavities, casts: [{ blankId: 'ball', weight }] },
});

test('a mold is warmed only where it saves more than it takes', () => {
  const problem = (casts: number): CastProblem => ({
    blanks: [{ id: 'ball', name: 'Ball', casts }],
    molds: [three, one],
    groups: [groupOf('three', 3), groupOf('one', 1)],
    limits: [],
  });
  // By hand: n casts take 60 + 42 n on the small mold, 300 + 32 n + 10 ceil(n/3) on the large one.
  expect(solveCasts(problem(6), solve)).toMatchObject({ shots: { one: 6 }, seconds: 312 });
  expect(solveCasts(problem(60), solve)).toMatchObject({ shots: { three: 20 }, seconds: 300 + 1920 + 200 });
});

test('a cavity that is short every third time is made up for, or left out', () => {
  const problem = (spare: number): CastProblem => ({
    blanks: [{ id: 'ball', name: 'Ball', casts: 30 }],
    molds: [three],
    groups: [groupOf('three', spare), groupOf('three', 1, 2 / 3)],
    limits: [],
  });
  const { uses, shots } = solveCasts(problem(2), solve);
  const worth = uses.reduce((sum, { groupId, casts }) => sum + casts * (groupId.endsWith(' 1') ? 1 : 2 / 3), 0);
  expect(worth).toBeGreaterThanOrEqual(30 - 1e-6);
  // 2 + 2/3 a shot: at least 12 shots; a cast there costs 32 s for two thirds, a shot 10 s.
  expect(shots['three']).toBeGreaterThanOrEqual(12);
  expect(castSeconds({ molds: [three] }, { shots, uses })).toBeLessThanOrEqual(300 + 15 * 10 + 30 * 32);
});

test('what is ground out keeps its neighbour empty', () => {
  const cavity = (nth: number, blankId: string, keepsEmpty: string[] = []) => ({
    ...{ id: `c${nth}`, moldId: 'three', cavities: 1, casts: [{ blankId, weight: 1, keepsEmpty }] },
  });
  const problem: CastProblem = {
    blanks: [
      { id: 'big', name: 'Big', casts: 4 },
      { id: 'small', name: 'Small', casts: 4 },
    ],
    molds: [three],
    groups: [cavity(1, 'big', ['c2']), cavity(2, 'small')],
    limits: [],
  };
  expect(solveCasts(problem, solve).shots['three']).toBe(8);
});

test('what is scarce is used up and no more, and what is missing is said', () => {
  const problem: CastProblem = {
    blanks: [{ id: 'ball', name: 'Ball', casts: 30 }],
    molds: [three],
    groups: [groupOf('three', 3)],
    limits: [{ id: 'hook', name: 'Hook', takes: { ball: 1 }, most: 21 }],
  };
  expect(solveCasts(problem, solve)).toMatchObject({ missing: { ball: 9 }, shots: { three: 7 } });
  // A better cavity uses up more of it: it is taken for its time, not to make more of the same hooks.
  const better = { ...problem, molds: [three, { ...one, setupS: 600 }] };
  better.groups = [groupOf('three', 3), groupOf('one', 1, 1.2)];
  expect(solveCasts(better, solve)).toMatchObject({ missing: { ball: 9 }, shots: { three: 7 } });
  expect(solveCasts({ ...problem, groups: [] }, solve)).toMatchObject({ missing: { ball: 30 }, shots: {} });
  expect(solveCasts({ ...problem, blanks: [] }, solve)).toMatchObject({ seconds: 0, optimal: true });
  expect(() => solveCasts({ ...problem, molds: [{ ...three, shotS: -1 }] }, solve)).toThrow(/shotS is -1/);
});
