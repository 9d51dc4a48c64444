import fc from 'fast-check';
import { averageMinor, settlingMinor, takeValueMinor, worthAfterPurchase } from '../stock/ledger.ts';
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
  test('what is there is worth nothing less than nothing, and an empty shelf nothing', () => {
    expect(settlingMinor({ quantity: 0.5, valueMinor: -8 })).toBe(8);
    expect(settlingMinor({ quantity: 0, valueMinor: 3 })).toBe(-3);
    expect(settlingMinor({ quantity: 0.5, valueMinor: 3 })).toBe(0);
    expect(settlingMinor({ quantity: -0.5, valueMinor: -8 })).toBe(0);
  });
  test('bought after it was taken: what is left is worth what it cost', () => {
    // 3 kg taken at 4.00 before 4 kg came for 32.00: the kilogram left is worth 8.00, not 32.00 - 12.00.
    expect(worthAfterPurchase({ quantity: -3, valueMinor: -1200 }, { quantity: 4, valueMinor: 3200 })).toBe(800);
    // For nothing at all: worth nothing, and not less.
    expect(worthAfterPurchase({ quantity: -3, valueMinor: -1200 }, { quantity: 4, valueMinor: 0 })).toBe(0);
    expect(worthAfterPurchase({ quantity: -3, valueMinor: -1200 }, { quantity: 3, valueMinor: 3200 })).toBe(0);
    // Not enough of it yet, or nothing owed: every cent as it came.
    expect(worthAfterPurchase({ quantity: -3, valueMinor: -1200 }, { quantity: 1, valueMinor: 900 })).toBe(-300);
    expect(worthAfterPurchase({ quantity: 2, valueMinor: 500 }, { quantity: 1, valueMinor: 900 })).toBe(1400);
  });
});
