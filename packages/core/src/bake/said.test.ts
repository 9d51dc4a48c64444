import { cureLaw } from './cure-law.ts';
import { logCureFigure, scheduleFigure } from './figures.ts';
import { fitOven } from './fit-oven.ts';
import { cureFromLog } from './from-log.ts';
import { knownOven } from './known-oven.ts';
import { bakeProgram, type BakedHead } from './program.ts';
import { runningBake } from './running.ts';

const law = cureLaw([
  { metalC: 200, seconds: 600 },
  { metalC: 177, seconds: 1200 },
]);
const readings = (minutes: readonly number[], celsius = 177) =>
  minutes.map((minute) => ({ at: minute * 60_000, celsius }));
const every = (from: number, to: number) => Array.from({ length: to - from + 1 }, (_, i) => from + i);

test('a log without gaps says so; one with gaps says how long they are, and what is certain without them', () => {
  const figure = (minutes: readonly number[]) => {
    const cure = cureFromLog({ law, headLagS: 0, readings: readings(minutes) });
    return { cure, ...logCureFigure(cure, minutes.length, 0, law) };
  };
  const whole = figure(every(0, 20));
  expect(whole.why.rule).toBe('No gap in the log.');
  // Twenty minutes at 177 C are the label's full cure.
  expect(whole.value).toBeCloseTo(1, 3);
  expect(whole.low!).toBeLessThan(whole.value);
  // Half of it was not seen: bridged it is the same, certain is a half.
  const gap = figure([...every(0, 5), ...every(15, 20)]);
  expect(gap.value).toBeCloseTo(1, 3);
  expect(gap.why.rule).toMatch(/^Gaps of 10 min .*without them 50 % are certain/);
  expect(gap.low!).toBeLessThanOrEqual(gap.cure.certain);
});

const head: BakedHead = {
  name: 'Ball',
  headLagS: 110,
  heatJK: 2.3,
  hook: 'Hook',
  limitC: null,
  laws: [{ powder: 'White', law }],
};

test('a program that counts from warm metal says that its warming is in the time', () => {
  const said = (from: 'door' | 'metal') =>
    scheduleFigure(head, { setC: 177, seconds: 1200, preheated: true, from }, knownOven(undefined)).why.inputs.find(
      ({ label }) => label === 'Door shut to taken out',
    )!;
  expect(said('door')).toMatchObject({ value: 1200, note: 'oven hot first' });
  expect(said('metal').note).toBe('oven hot first, the warming in it');
  expect(said('metal').value).toBeGreaterThan(1200);
});

describe('a run that teaches an oven', () => {
  const rise = (minute: number) => ({ at: minute * 60_000, celsius: 20 + 160 * (1 - Math.exp(-minute / 3)) });
  const held = (minutes: number) => [
    ...every(0, 14).map(rise),
    ...every(15, 14 + minutes).map((minute) => ({ at: minute * 60_000, celsius: 180 + (minute % 2) })),
  ];
  test('is held for ten minutes or more: less is said in minutes and seconds that it was', () => {
    expect(fitOven(held(30), 177).offsetK).toBeCloseTo(3.5, 0);
    expect(() => fitOven(held(6), 177)).toThrow(/time held is \d+ s; allowed: 10 minutes or more/);
    expect(() => fitOven(readings(every(0, 30)), 177)).toThrow(/rise is 0\u00a0K; allowed: 60 K or more/);
    expect(() => fitOven(held(30).slice(0, 12), 177)).toThrow(/readings is 12; allowed: 20 or more/);
  });
});

test('where a limit forbids every program in time, the coolest that would do is the first whole degree above it', () => {
  const limited = { ...head, limitC: 150 };
  const { program, conflict } = bakeProgram({
    heads: [limited],
    oven: knownOven(undefined),
    preheated: true,
    longestS: 1500,
  });
  expect(program).toBeNull();
  const over = conflict!.ways[0]!.program!;
  expect(over.setC).toBeGreaterThan(150 - 5);
  expect(over.seconds).toBeLessThanOrEqual(1500);
  // A degree cooler it is not full in time.
  const cooler = bakeProgram({
    heads: [head],
    oven: knownOven(undefined),
    preheated: true,
    toC: over.setC - 1,
    longestS: 1500,
  });
  expect(cooler.program).toBeNull();
  expect(
    bakeProgram({ heads: [head], oven: knownOven(undefined), preheated: true, toC: over.setC, longestS: 1500 }).program,
  ).not.toBeNull();
});

test('what a probe said last holds on to now', () => {
  const base = { law, headLagS: 110, airC: 177, ovenLagS: 200, loadedAt: 0, preheated: true, doors: [] };
  const at = (now: number) => runningBake({ ...base, readings: readings(every(0, 10)), now: now * 60_000 });
  expect(at(11).probed).toBe(true);
  expect(at(11).cure).toBeGreaterThan(at(10).cure);
  expect(at(11).points.at(-1)!.at).toBe(11 * 60_000);
  // Exactly at its last word nothing is added.
  expect(at(10).points.at(-1)!.at).toBe(10 * 60_000);
});
