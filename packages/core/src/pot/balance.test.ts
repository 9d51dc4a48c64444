import { fitDialMarks } from './dial.ts';
import { afterAdding, largestRefill } from './refill.ts';

describe('the largest refill, put back into the balance', () => {
  const at = (more = {}) => ({
    ...{ potKg: 4, potC: 385, capacityKg: 9, keepAboveC: 345, pourC: 371, roomC: 20 },
    ...{ pot: { powerW: 700, lossWPerK: 0.41, crucibleJPerK: 540 } },
    ...more,
  });
  test.each([{}, { addC: 120 }, { potKg: 1.2 }, { pot: { powerW: 700, lossWPerK: 0.41 } }, { keepAboveC: 360 }])(
    'as much as that leaves the pot at what it was to be kept above: %o',
    (more) => {
      const input = at(more);
      const { addKg, limit, afterC } = largestRefill(input);
      expect(limit).toBe('heat');
      const { pot, potKg, potC } = input;
      const addC = 'addC' in more ? (more.addC as number) : 20;
      const crucible = 'crucibleJPerK' in pot ? { crucibleJPerK: pot.crucibleJPerK } : {};
      const after = (kg: number) => afterAdding({ potKg, potC, addKg: kg, addC, ...crucible }).temperatureC;
      expect(after(addKg)).toBeCloseTo(input.keepAboveC, 3);
      expect(afterC).toBeCloseTo(after(addKg), 9);
      // A tenth more would take it below.
      expect(after(1.1 * addKg)).toBeLessThan(input.keepAboveC);
    },
  );
  test('by hand, without a crucible: what 4 kg give off from 385 to 345 C melts and warms so much', () => {
    // Liquid lead 147 J/kgK, 64.5 kJ/kg from 20 C until it is molten (CRC Handbook, memory), then 17.5 K of liquid.
    const { addKg } = largestRefill(at({ pot: { powerW: 700, lossWPerK: 0.41 } }));
    expect(Math.abs(addKg - (4 * 147 * 40) / (64_500 + 147 * 17.5))).toBeLessThan(0.004);
    // A crucible of 540 J/K gives off its own 21.6 kJ beside it.
    expect(Math.abs(largestRefill(at()).addKg - (4 * 147 * 40 + 540 * 40) / (64_500 + 147 * 17.5))).toBeLessThan(0.007);
  });
  test('at what it is to be kept above there is nothing to feed', () => {
    expect(largestRefill(at({ potC: 345 }))).toMatchObject({ addKg: 0, limit: 'too cold to feed' });
  });
});

describe('marks of a dial', () => {
  const pair = (dial: number, temperatureC: number, sdK = 3) => ({ dial, temperatureC, sdK, at: 0 });
  test('come in the order of the dial, however they were noted', () => {
    const marks = fitDialMarks([pair(8, 420), pair(5, 330), pair(7, 392), pair(6, 361)]);
    expect(marks.map(({ dial, temperatureC }) => [dial, temperatureC])).toEqual([
      [5, 330],
      [6, 361],
      [7, 392],
      [8, 420],
    ]);
  });
  test('readings that lie apart make a mark less sure, more of them surer', () => {
    const sdAt = (temperatures: number[]) =>
      fitDialMarks([pair(5, 300), ...temperatures.map((celsius) => pair(7, celsius))])[1]!.sdK;
    expect(sdAt([380, 400])).toBeGreaterThan(sdAt([389, 391]) + 3);
    expect(sdAt([389, 391, 389, 391, 389, 391])).toBeLessThan(sdAt([389, 391]));
    expect(sdAt([390])).toBeGreaterThan(sdAt([389, 391]));
  });
});
