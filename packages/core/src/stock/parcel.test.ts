import fc from 'fast-check';
import { freightShares } from './parcel.ts';

// By rule of three, on paper: 12.00 of freight on lead for 30.00 and hooks for 10.00, that weigh 19.5 kg and 0.5 kg.
const LEAD = { name: 'Lead', priceMinor: 3000, massKg: 19.5 };
const HOOKS = { name: 'Hooks', priceMinor: 1000, massKg: 0.5 };

test('by value three to one, by mass thirty-nine to one', () => {
  expect(freightShares([LEAD, HOOKS], 1200, 'value')).toEqual([900, 300]);
  expect(freightShares([LEAD, HOOKS], 1200, 'mass')).toEqual([1170, 30]);
});
test('what has no mass cannot pay by mass, and is named; what was a present pays nothing by value', () => {
  expect(() => freightShares([LEAD, { ...HOOKS, massKg: null }], 1200, 'mass')).toThrow(
    /mass of Hooks is not known; allowed: a mass, or freight by value/,
  );
  expect(freightShares([LEAD, { ...HOOKS, priceMinor: 0 }], 1200, 'value')).toEqual([1200, 0]);
  // Where nothing has a price, all pay alike.
  expect(
    freightShares(
      [LEAD, HOOKS].map((line) => ({ ...line, priceMinor: 0 })),
      7,
      'value',
    ),
  ).toEqual([4, 3]);
});
test('to the last minor unit, never less than nothing, and more for more', () => {
  const line = fc.record({ priceMinor: fc.nat(1e7), massKg: fc.double({ min: 0, max: 500, noNaN: true }) });
  const by = fc.constantFrom('value' as const, 'mass' as const);
  fc.assert(
    fc.property(fc.array(line, { minLength: 1, maxLength: 20 }), fc.nat(1e6), by, (lines, freight, how) => {
      const named = lines.map((each, at) => ({ name: String(at), ...each }));
      const shares = freightShares(named, freight, how);
      expect(shares.reduce((sum, share) => sum + share, 0)).toBe(freight);
      const weight = (at: number) => (how === 'value' ? named[at]!.priceMinor : named[at]!.massKg);
      for (const [at, share] of shares.entries()) {
        expect(share).toBeGreaterThanOrEqual(0);
        // A part of a million of a line may be rounded, and a minor unit.
        for (const [other, less] of shares.entries()) {
          if (weight(at) >= weight(other)) expect(share).toBeGreaterThanOrEqual(less - 1 - freight * 1e-5);
        }
      }
    }),
  );
});
