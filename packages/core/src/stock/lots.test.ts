import fc from 'fast-check';
import { QUANTITY_TOLERANCE } from '../quantity/check.ts';
import { averageMinor, takeValueMinor } from './ledger.ts';
import { allotLots, traceLots } from './lots.ts';

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

describe('of which lots a use is', () => {
  const lots = [
    { id: 1, of: 10, left: 2 },
    { id: 2, of: 5, left: 5 },
    { id: 3, of: 4, left: 0 },
  ];
  test('the oldest that has any, then the next; what no lot can give is in none', () => {
    expect(allotLots(lots, 3)).toEqual([
      { id: 1, quantity: 2 },
      { id: 2, quantity: 1 },
    ]);
    expect(allotLots(lots, 2)).toEqual([{ id: 1, quantity: 2 }]);
    expect(allotLots(lots, 99).map((each) => each.quantity)).toEqual([2, 5]);
    expect(allotLots(lots, 0)).toEqual([]);
    expect(allotLots([], 3)).toEqual([]);
  });
  test('what comes back goes to the lot used last, as far as it was used', () => {
    expect(allotLots(lots, -5)).toEqual([
      { id: 3, quantity: -4 },
      { id: 1, quantity: -1 },
    ]);
    expect(allotLots(lots, -99).reduce((sum, each) => sum + each.quantity, 0)).toBe(-12);
  });
});

describe('value at the moving average', () => {
  // On paper: 4 kg that cost 10.01 in all; a quarter of it is 2.5025, and cents are whole.
  const shelf = { quantity: 4, valueMinor: 1001 };
  test('a part takes its share, the rest keeps the other cents; the last of it takes all', () => {
    expect(takeValueMinor(shelf, 1)).toBeGreaterThanOrEqual(250);
    expect(takeValueMinor(shelf, 1)).toBeLessThanOrEqual(251);
    expect(
      takeValueMinor(shelf, 1) + takeValueMinor({ quantity: 3, valueMinor: 1001 - takeValueMinor(shelf, 1) }, 3),
    ).toBe(1001);
    expect(takeValueMinor(shelf, 4 - QUANTITY_TOLERANCE / 2)).toBe(1001);
    expect(takeValueMinor(shelf, 0)).toBe(0);
    expect(() => takeValueMinor(shelf, -1)).toThrow(/quantity taken is -1/);
  });
  test('beyond the shelf it costs what was last paid', () => {
    expect(takeValueMinor(shelf, 6, 300)).toBe(1001 + 600);
    expect(takeValueMinor({ quantity: 0, valueMinor: 0 }, 2, 300)).toBe(600);
    expect(takeValueMinor({ quantity: 0, valueMinor: 0 }, 2)).toBe(0);
    expect(averageMinor(shelf)).toBe(250.25);
    expect(averageMinor({ quantity: QUANTITY_TOLERANCE / 2, valueMinor: 3 })).toBeNull();
  });
});
