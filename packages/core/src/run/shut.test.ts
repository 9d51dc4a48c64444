import { pour, twoShots } from '../test/examples.ts';
import type { PourSetup } from './pour-log.ts';
import { pourState } from './pour.ts';
import { hookHeldInS, rodCue, setShare } from './turns.ts';

const withTimes = (more: object): PourSetup => ({
  ...pour.setup,
  molds: pour.setup.molds.map((mold) => ({ ...mold, openS: 10, solidS: 6, ...more })),
});
const last = twoShots.findLast(({ kind }) => kind === 'shot')!;
const at = (setup: PourSetup, seconds: number) => {
  const state = pourState(setup, twoShots);
  return [setup, state, state.molds[0]!, last.at + 1000 * seconds] as const;
};

test('a rod is called for in the first moments, and not without one', () => {
  const setup = withTimes({ rodS: { fromS: 0.8, toS: 2.5 } });
  expect([0.2, 1, 2.4, 2.6, 8].map((s) => rodCue(...at(setup, s)))).toEqual(['soon', 'now', 'now', 'late', 'late']);
  expect(rodCue(...at(withTimes({}), 1))).toBeNull();
  // In a blank shot there is no rod.
  const blank = [...twoShots, { ...last, id: 'b2', kind: 'blank', at: last.at + 30_000 }] as typeof twoShots;
  const state = pourState(setup, blank);
  expect(rodCue(setup, state, state.molds[0]!, last.at + 31_000)).toBeNull();
});

test('a bend may be held so long after opening, and then not', () => {
  const setup = withTimes({ hookHeldS: 7 });
  expect([10, 12, 17, 40].map((s) => hookHeldInS(...at(setup, s)))).toEqual([7, 5, 0, 0]);
  expect(hookHeldInS(...at(withTimes({ hookHeldS: undefined }), 12))).toBeNull();
});

test('metal is solid when head and sprue are, whenever its mold is opened', () => {
  const share = (seconds: number) => {
    const [setup, , mold, now] = at(withTimes({}), seconds);
    return setShare(setup, mold, now);
  };
  expect([0, 3, 6, 9].map(share)).toEqual([0, 0.5, 1, 1]);
});
