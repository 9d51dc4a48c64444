import { finite } from './finite.ts';

test('an answer of numbers is passed on as it is', () => {
  const answer = { a: 1, rows: [{ t: 0 }, { t: -1e300 }], words: 'none', nothing: null };
  expect(finite(answer)).toBe(answer);
});

test.each([
  [{ rows: [{ atS: 1 }, { atS: Number.NaN }] }, /^atS is beyond what can be reckoned; allowed: /],
  [{ low: 1, high: Infinity }, /^high is/],
  [{ seconds: [1, -Infinity] }, /^seconds is/],
  [Number.NaN, /^the answer is/],
])('%j is refused by the name of what is no number', (answer, says) => {
  expect(() => finite(answer)).toThrow(says);
});
