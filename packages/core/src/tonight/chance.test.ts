import { mean, sampleCorrelation, standardDeviation } from 'simple-statistics';
import { seeded } from '../random/seeded.ts';
import { chanceBy, chances, gains, timeOf, USUAL_SPREAD, type Chances, type EveningSpread } from './chance.ts';
import type { Task } from './task.ts';
import { schedule } from './schedule.ts';

const task = (id: string, station: string, seconds: number, after: string[] = [], hands = true): Task => ({
  ...{ id, name: id, station, seconds, hands, holds: hands ? [] : [station], works: ['w'], heads: 1 },
  after: after.map((each) => ({ task: each, lagS: 0 })),
});
/** Nobody is slow tonight, and nothing holds up. */
const STEADY = { eveningShare: 0, heldUpPerHour: 0, heldUpS: 300 };
const alone = { people: [{ name: 'One', can: null }] };
const chain = [
  task('melt', 'lead', 1200, [], false),
  task('pour', 'pour', 3600, ['melt']),
  task('trim', 'trim', 900, ['pour']),
  task('paint', 'paint', 3000, ['trim']),
  task('bake', 'bake', 1500, ['paint'], false),
  task('bag', 'finish', 600, ['bake']),
];
const plan = (tasks: readonly Task[]) => schedule(tasks, alone).placed;

test('of a chain the mean and the spread of the end are those of its parts', () => {
  const { endsS } = chances(chain, plan(chain), { evenings: 20_000, seed: 3 });
  // All hands together are off by 25 %, each kind of them by 18 %, about their middle; melting 10 %, casts 5.5 % of the
  // pour, tasks 5 %, about their mean. An hour of hands is held up 0.4 times for five minutes.
  const [e, h, m, c, t] = [0.25, 0.18, 0.1, 0.055, 0.05];
  const [evenings, station] = [Math.exp(e * e), Math.exp(h * h)];
  const hands = 8100 * Math.sqrt(evenings * station);
  expect(mean(endsS) / (2700 + hands * (1 + (0.4 * 300) / 3600))).toBeCloseTo(1, 2);
  // The mean of a log-normal factor and its square (Crow and Shimizu 1988); of what holds up, a Poisson count of
  // exponential times, twice the mean square.
  const each = [3600 * (1 + c * c) ** 0.5, 900, 3000, 600];
  const squares = each.reduce((sum, seconds) => sum + (station * (1 + t * t) - 1) * station * seconds ** 2, 0);
  const ofHands = evenings * evenings * (squares + station * 8100 ** 2) - evenings * station * 8100 ** 2;
  const heldUp = (hands / 3600) * 0.4 * 2 * 300 ** 2;
  const sd = Math.sqrt(ofHands * (1 + (0.4 * 300) / 3600) ** 2 + (m * 1200) ** 2 + (c * 3600) ** 2 + heldUp);
  expect(standardDeviation(endsS) / sd).toBeGreaterThan(0.95);
  expect(standardDeviation(endsS) / sd).toBeLessThan(1.06);
});

test('what measuring gains is what the end is surer by when it is played with that doubt taken away', () => {
  // Only casts and melting are unsure: without the casts what is left is the melting.
  const only = { ...STEADY, handsShare: 0, taskShare: 0, castsShare: 0.1, meltShare: 0.05 };
  const played = (spread: EveningSpread) => chances(chain, plan(chain), { evenings: 8000, spread });
  const span = ({ endsS }: Chances) => timeOf(endsS, 0.95) - timeOf(endsS, 0.05);
  const all = played(only);
  const [first] = gains(all);
  expect(first!.what).toBe('casts');
  const without = span(all) - span(played({ ...only, castsShare: 0 }));
  expect(first!.surerS / without).toBeGreaterThan(0.93);
  expect(first!.surerS / without).toBeLessThan(1.07);
  // What is sure already gains nothing, and is not named.
  expect(gains(all).map(({ what }) => what)).not.toContain('trim');
});
test('what the end hangs on most is how quick one is tonight, then the pour, and the doubts are told in their order', () => {
  const { doubts } = chances(chain, plan(chain), { evenings: 5000 });
  expect(doubts.slice(0, 3).map(({ what }) => what)).toEqual(['evening', 'pour', 'paint']);
  expect(doubts.map(({ share }) => share)).toEqual([...doubts.map(({ share }) => share)].sort((a, b) => b - a));
  expect(doubts.reduce((sum, { share }) => sum + share, 0)).toBeLessThan(1.05);
  expect(sampleCorrelation([1, 2, 3], [2, 4, 6.1])).toBeGreaterThan(0.99);
});

test('nothing is in doubt: every evening ends as planned', () => {
  const spread = { ...STEADY, handsShare: 0, meltShare: 0, castsShare: 0, taskShare: 0 };
  const placed = plan(chain);
  const { endsS, worksS } = chances(chain, placed, { evenings: 50, spread });
  expect(new Set(endsS.map(Math.round))).toEqual(new Set([10_800]));
  expect(worksS['w']).toEqual(endsS);
});

test('what passes beside other work does not hold it up until it is late', () => {
  const tasks = [
    task('bake', 'bake', 600, [], false),
    task('paint', 'paint', 3000),
    task('bag', 'finish', 60, ['bake']),
  ];
  const spread = { ...USUAL_SPREAD, ...STEADY, handsShare: 0, taskShare: 0 };
  expect(timeOf(chances(tasks, plan(tasks), { evenings: 100, spread }).endsS, 0.5)).toBeCloseTo(3060, 6);
});

/** An evening played by hand, not by the plan's player: nature draws, and everybody goes on with what is next. */
function nature(random: () => number): number {
  const gauss = () => {
    let sum = -6;
    for (let i = 0; i < 12; i++) sum += random();
    return sum;
  };
  const pace = (share: number) => Math.exp(share * gauss());
  const about = (share: number) => pace(share) * Math.exp(-(share * share) / 2);
  const tonight = pace(USUAL_SPREAD.eveningShare);
  /** Minute by minute: whether somebody calls, and how long that takes. */
  const heldUp = (seconds: number) => {
    let held = 0;
    for (let s = 0; s < seconds; s += 60) if (random() < 0.4 / 60) held -= 300 * Math.log(1 - random());
    return held;
  };
  const hands = (seconds: number, share = 0) => {
    const took = seconds * tonight * pace(USUAL_SPREAD.handsShare) * about(USUAL_SPREAD.taskShare) * about(share);
    return took + heldUp(took);
  };
  const molten = 1200 * about(USUAL_SPREAD.meltShare);
  return molten + hands(3600, USUAL_SPREAD.castsShare) + hands(900) + hands(3000) + 1500 + hands(600);
}

test('of evenings said to be done with 80 %, 75 to 85 in a hundred are, as another hand plays them', () => {
  const { endsS } = chances(chain, plan(chain), { seed: 8 });
  const random = seeded(77);
  for (const said of [0.2, 0.5, 0.8, 0.95]) {
    const by = timeOf(endsS, said);
    let done = 0;
    for (let evening = 0; evening < 4000; evening++) if (nature(random) <= by) done += 1;
    expect([said, Math.abs(done / 4000 - said) <= 0.05]).toEqual([said, true]);
    expect(chanceBy(endsS, by)).toBeCloseTo(said, 3);
  }
});

test('the same seed is the same evening; none is not allowed', () => {
  const placed = plan(chain);
  expect(chances(chain, placed, { evenings: 20, seed: 5 })).toEqual(chances(chain, placed, { evenings: 20, seed: 5 }));
  expect(() => chances(chain, placed, { evenings: 0 })).toThrow(/evenings is 0/);
  expect(chanceBy([], 5)).toBe(0);
});
