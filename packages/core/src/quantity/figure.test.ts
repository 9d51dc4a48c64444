import fc from 'fast-check';
import { leadBalance } from '../balance/lead-balance.ts';
import { seeded } from '../random/seeded.ts';
import { countInRange, inRange, QuantityError } from './check.ts';
import { figure, fitted, given, measured, weakest } from './figure.ts';

describe('checks', () => {
  test('what is refused is named with value, unit and range', () => {
    const error = (() => {
      try {
        return inRange('moldC', 900, 'C', -20, 300);
      } catch (thrown) {
        return thrown as QuantityError;
      }
    })() as QuantityError;
    expect(error).toBeInstanceOf(RangeError);
    expect([error.quantity, error.given, error.unit, error.allowed]).toEqual([
      'moldC',
      900,
      'C',
      '-20\u00a0C to 300\u00a0C',
    ]);
    expect(error.message).toBe('moldC is 900\u00a0C; allowed: -20\u00a0C to 300\u00a0C');
    expect(() => countInRange('shots', 1.5, 0, 10)).toThrow('shots is 1.5; allowed: a whole number from 0 to 10');
  });
  test('nothing that is no number gets through', () => {
    for (const bad of [Number.NaN, Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY]) {
      expect(() => inRange('x', bad, '', -1e300, 1e300)).toThrow(QuantityError);
    }
    fc.assert(
      fc.property(fc.double({ min: 0, max: 1, noNaN: true }), (x) => expect(inRange('x', x, '', 0, 1)).toBe(x)),
    );
  });
});

describe('figures', () => {
  test('are as good as the weakest thing in them', () => {
    const [a, b, c] = [measured('a', 1, 'kg'), fitted('b', 1, 'kg'), given('c', 1, 'kg')];
    expect([weakest([a]), weakest([a, b]), weakest([a, b, c]), weakest([])]).toEqual([
      'measured',
      'fitted',
      'given',
      'measured',
    ]);
    const why = { rule: 'r', formula: 'f', source: 's', inputs: [a, b] };
    expect(figure(1, 'kg', why)).toMatchObject({ value: 1, unit: 'kg', basis: 'fitted' });
    expect(figure(1, 'kg', why, { basis: 'measured', low: 0, high: 2 })).toMatchObject({
      basis: 'measured',
      low: 0,
      high: 2,
    });
  });
});

describe('lead', () => {
  test('what was charged is accounted for, and the rest is shown, whichever way it is', () => {
    const kg = () => fc.double({ min: 0, max: 20, noNaN: true });
    fc.assert(
      fc.property(
        kg(),
        kg(),
        kg(),
        kg(),
        kg(),
        kg(),
        (chargedKg, headsKg, sprueBackKg, rejectsBackKg, drossKg, heelKg) => {
          const { unexplainedKg } = leadBalance({ chargedKg, headsKg, sprueBackKg, rejectsBackKg, drossKg, heelKg });
          expect(headsKg + sprueBackKg + rejectsBackKg + drossKg + heelKg + unexplainedKg).toBeCloseTo(chargedKg, 9);
        },
      ),
    );
    expect(() =>
      leadBalance({ chargedKg: -1, headsKg: 0, sprueBackKg: 0, rejectsBackKg: 0, drossKg: 0, heelKg: 0 }),
    ).toThrow(/chargedKg is -1\u00a0kg/);
  });
});

describe('chance', () => {
  test('is the same for the same seed, even over its range', () => {
    const draw = (seed: number) => {
      const random = seeded(seed);
      return Array.from({ length: 4000 }, random);
    };
    expect(draw(7)).toEqual(draw(7));
    expect(draw(7)).not.toEqual(draw(8));
    const values = draw(7);
    expect(values.every((value) => value >= 0 && value < 1)).toBe(true);
    expect(values.reduce((sum, value) => sum + value, 0) / values.length).toBeCloseTo(0.5, 1);
    for (let tenth = 0; tenth < 10; tenth++) {
      const share = values.filter((value) => Math.floor(value * 10) === tenth).length / values.length;
      expect(Math.abs(share - 0.1)).toBeLessThan(0.03);
    }
  });
});
