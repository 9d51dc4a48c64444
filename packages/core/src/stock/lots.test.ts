import fc from 'fast-check';
import { traceLots } from './lots.ts';

describe('lots', () => {
  test('first in, first out; what comes back fills the lot used last', () => {
    const { lots, unlottedKg } = traceLots(
      [
        { id: 'old', at: 1, kg: 5 },
        { id: 'new', at: 2, kg: 10 },
      ],
      [
        { at: 3, kg: -6, reason: 'poured' },
        { at: 4, kg: 0.5, reason: 'counted' },
        { at: 5, kg: -1, reason: 'skimmed' },
      ],
    );
    expect(lots).toEqual([
      { id: 'old', leftKg: 0, went: [{ reason: 'poured', kg: 5 }] },
      {
        id: 'new',
        leftKg: 8.5,
        went: [
          { reason: 'poured', kg: 1 },
          { reason: 'counted', kg: -0.5 },
          { reason: 'skimmed', kg: 1 },
        ],
      },
    ]);
    expect(unlottedKg).toBe(0);
  });
  test('metal is conserved, and what no lot gave is not hidden', () => {
    const lot = fc.record({ at: fc.integer({ min: 0, max: 50 }), kg: fc.double({ min: 0.1, max: 20, noNaN: true }) });
    const flow = fc.record({ at: fc.integer({ min: 0, max: 99 }), kg: fc.double({ min: -8, max: 3, noNaN: true }) });
    fc.assert(
      fc.property(fc.array(lot, { maxLength: 8 }), fc.array(flow, { maxLength: 30 }), (lots, flows) => {
        const traced = traceLots(
          lots.map((each, i) => ({ ...each, id: String(i) })),
          flows.map((each) => ({ ...each, reason: 'r' })),
        );
        const sum = (values: number[]) => values.reduce((total, value) => total + value, 0);
        const left = sum(traced.lots.map((each) => each.leftKg));
        const book = sum(lots.map((each) => each.kg)) + sum(flows.map((each) => each.kg));
        expect(left + traced.unlottedKg).toBeCloseTo(book, 6);
        traced.lots.forEach((each) => {
          expect(each.leftKg).toBeGreaterThanOrEqual(-1e-9);
          const lotKg = lots[Number(each.id)]!.kg;
          expect(each.leftKg + sum(each.went.map((part) => part.kg))).toBeCloseTo(lotKg, 6);
        });
      }),
    );
  });
});
