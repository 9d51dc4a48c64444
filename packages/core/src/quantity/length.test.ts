import fc from 'fast-check';
import { lengthText } from './format.ts';
import { parseLength } from './parse.ts';

/** The international inch is 25.4 mm exactly (NIST Handbook 44, appendix C). */
test.each([
  ['3.2 mm', 'g', 0.0032],
  ['3,2', 'g', 0.0032],
  ['1/8 in', 'g', 0.003175],
  ['1/8', 'oz', 0.003175],
  ['1 1/2"', 'g', 0.0381],
  ['12 inches', 'g', 0.3048],
  ['30 cm', 'oz', 0.3],
  ['0.3 m', 'oz', 0.3],
] as const)('%s beside %s is a length', (text, unit, metres) => {
  expect(parseLength(text, unit)).toBeCloseTo(metres, 12);
});

test.each(['', 'wide', '3 ft', '3 mm 4', '1/0 in'])('%j is none, and is quoted with its field', (text) => {
  expect(() => parseLength(text, 'g', 'pin')).toThrow(/^pin is .*allowed: a number with mm, cm, m or in/);
});

test('a length in a form is a fraction of an inch only where it is one', () => {
  expect(lengthText(0.003175, 'oz')).toBe('1/8 in');
  expect(lengthText(0.0032, 'oz')).toBe('0.126 in');
  expect(lengthText(0.0032, 'g')).toBe('3.2 mm');
  expect(lengthText(0.3, 'g')).toBe('300 mm');
});

test('what stands in a form is read as it was: kept again, nothing drifts', () => {
  fc.assert(
    fc.property(fc.double({ min: 0.0003, max: 0.9, noNaN: true }), fc.constantFrom('g', 'oz'), (metres, unit) => {
      const once = parseLength(lengthText(metres, unit), unit);
      expect(Math.abs(once - metres)).toBeLessThanOrEqual(2e-6);
      expect(parseLength(lengthText(once, unit), unit)).toBeCloseTo(once, 12);
    }),
  );
});
