import fc from 'fast-check';
import { averageMinor, takeValueMinor } from '../stock/ledger.ts';
import { costOf, minorUnits, shareMinor, sumMinor } from './money.ts';

describe('money', () => {
  test('shares add up to the last minor unit', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -1e9, max: 1e9 }),
        fc.array(fc.double({ min: 0, max: 1000, noNaN: true }), { minLength: 1, maxLength: 12 }),
        (minor, weights) => {
          const shares = shareMinor(minor, weights);
          expect(sumMinor(shares)).toBe(minor);
          expect(shares.every(Number.isSafeInteger)).toBe(true);
        },
      ),
    );
    expect(shareMinor(100, [1, 1, 1])).toEqual([34, 33, 33]);
  });
  test('prices times quantities, half a unit up', () => {
    expect(costOf(250, 1.5)).toBe(375);
    expect(costOf(1, 0.5)).toBe(1);
    expect(costOf(0.1, 3)).toBe(0);
    expect(costOf(250, -1.5)).toBe(-375);
  });
  test('fractions of a minor unit are refused', () => {
    expect(() => minorUnits('price', 1.5)).toThrow(/price is 1.5 minor units/);
    expect(() => shareMinor(10, [])).toThrow(/weights is none/);
  });
});

describe('moving average, by a worked example', () => {
  // 10 kg for 20.00 and 10 kg for 30.00: 2.50 a kg; 5 kg out are 12.50, the last 15 kg take the rest.
  test('out at the average, the last of it takes the rest', () => {
    const shelf = { quantity: 20, valueMinor: 5000 };
    expect(averageMinor(shelf)).toBe(250);
    expect(takeValueMinor(shelf, 5)).toBe(1250);
    expect(takeValueMinor({ quantity: 15, valueMinor: 3751 }, 15)).toBe(3751);
  });
  test('taken beyond the shelf: at what was last paid', () => {
    expect(takeValueMinor({ quantity: 2, valueMinor: 500 }, 3, 300)).toBe(800);
    expect(takeValueMinor({ quantity: 0, valueMinor: 0 }, 3, 300)).toBe(900);
    expect(averageMinor({ quantity: 0, valueMinor: 0 })).toBeNull();
  });
});
