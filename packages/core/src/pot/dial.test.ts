import fc from 'fast-check';
import { PROBE_SD_K, dialDrift, dialTable, pairsOnDay, type DialPair } from './dial.ts';

const DAY = 86_400_000;
const pair = (dial: number, temperatureC: number, day = 0, sdK = PROBE_SD_K): DialPair => ({
  dial,
  temperatureC,
  at: day * DAY,
  sdK,
});

describe('dial table', () => {
  const pairs = [pair(4, 318), pair(6, 352), pair(7, 371), pair(8, 398), pair(10, 455)];
  test('gives the measured marks back, rises between them, and finds the mark for a temperature', () => {
    const table = dialTable(pairs);
    pairs.forEach(({ dial, temperatureC }) => expect(table.at(dial).temperatureC).toBeCloseTo(temperatureC, 9));
    expect(table.dialFor(371)).toBeCloseTo(7, 6);
    expect(table.at(table.dialFor(360)!).temperatureC).toBeCloseTo(360, 6);
    expect(table.dialFor(500)).toBeNull();
  });
  test('says at which mark it was measured last, and what lies beyond', () => {
    const table = dialTable(pairs);
    for (const dial of [4, 10]) expect(table.at(dial).outside).toBe(false);
    for (const dial of [3.9, 10.1]) expect(table.at(dial).outside).toBe(true);
    expect(table.at(10.1).temperatureC).toBe(455);
    // At a mark the doubt is that of its own pairs, not of the next one.
    const unsure = dialTable([pair(4, 318), pair(6, 352, 0, 20), pair(8, 398)]);
    expect(unsure.at(6).sdK).toBeGreaterThan(15);
    expect(unsure.at(4).sdK).toBeLessThan(8);
    expect(unsure.at(8).sdK).toBeLessThan(8);
    // Halfway, both count.
    expect(unsure.at(5).sdK).toBeGreaterThan(unsure.at(4).sdK);
    expect(unsure.at(5).sdK).toBeLessThan(unsure.at(6).sdK);
  });
  test('a mark that was measured at what is asked reaches it, at either end', () => {
    // 7 reads 700 F as somebody typed it, and 700 F is asked, whole degrees of C: 371.
    const table = dialTable([pair(5, 340), pair(7, (700 - 32) / 1.8)]);
    for (const asked of [371, 371.111, 371.2, 374]) expect(table.dialFor(asked)).toBeCloseTo(7, 1);
    expect(table.dialFor(339)).toBe(5);
    expect([table.dialFor(390), table.dialFor(320)]).toEqual([null, null]);
  });
  test('does not extrapolate without saying so', () => {
    const table = dialTable(pairs);
    expect(table.at(3)).toMatchObject({ outside: true, temperatureC: 318 });
    expect(table.at(7)).toMatchObject({ outside: false });
    expect(() => dialTable([pair(7, 371)])).toThrow(/dial marks is 1/);
    expect(() => dialTable([pair(7, 371), pair(8, 999)])).toThrow(/temperatureC is 999\u00a0C/);
  });
  test('is least sure between marks, surer the more often a mark was measured, and of a probe than of a colour', () => {
    const table = dialTable(pairs);
    expect(table.at(9).sdK).toBeGreaterThan(table.at(8).sdK);
    const often = dialTable([...pairs, pair(7, 372), pair(7, 370), pair(7, 371)]);
    expect(often.at(7).sdK).toBeLessThan(table.at(7).sdK);
    expect(dialTable([...pairs.slice(0, 4), pair(10, 455, 0, 15)]).at(10).sdK).toBeGreaterThan(14);
  });
  test('never reads colder at a higher mark, whatever was written down', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 300, max: 480 }), { minLength: 3, maxLength: 8 }), (temperatures) => {
        const table = dialTable(temperatures.map((celsius, i) => pair(i + 1, celsius)));
        let last = 0;
        for (let dial = 1; dial <= temperatures.length; dial += 0.1) {
          const { temperatureC } = table.at(dial);
          expect(temperatureC).toBeGreaterThanOrEqual(last - 1e-9);
          last = temperatureC;
        }
      }),
    );
  });
});

describe('drift', () => {
  const month = 30.4375;
  const drifting = (perMonth: number) =>
    [0, 2, 4, 6, 8].flatMap((months, i) =>
      [5, 7].map((dial) => pair(dial, 300 + 10 * dial + perMonth * months + (i % 2 ? 1 : -1), months * month)),
    );
  test('is found through marks of different height', () => {
    const drift = dialDrift(drifting(2.5))!;
    expect(drift.kPerMonth).toBeCloseTo(2.5, 0);
    expect(drift.real).toBe(true);
  });
  test('old pairs are brought to the day, and doubted the more', () => {
    const pairs = drifting(2.5);
    const today = 8 * month * DAY;
    const moved = pairsOnDay(pairs, today);
    const sevens = moved.filter((each) => each.dial === 7).map((each) => each.temperatureC);
    expect(Math.max(...sevens) - Math.min(...sevens)).toBeLessThan(4);
    expect(dialTable(moved).at(7).temperatureC).toBeCloseTo(370 + 2.5 * 8, 0);
    expect(moved[0]!.sdK).toBeGreaterThan(moved.at(-1)!.sdK);
    expect(pairsOnDay(drifting(0), today)).toEqual(drifting(0));
  });
  test('is not made out of noise, nor of single marks', () => {
    expect(dialDrift(drifting(0))!.real).toBe(false);
    expect(dialDrift([pair(5, 340), pair(7, 371, 90)])).toBeNull();
  });
});
