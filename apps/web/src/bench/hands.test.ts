import { benchOpened, handsOf } from './hands.ts';

// For how long the hands of a device were at what it says: from the opening of the bench, or the last thing it said.
const T = 1_780_000_000_000;
let made = 0;
const says = (seconds: number, said: { kind: string; target?: string; by?: string } = { kind: 'good' }) => {
  const id = `e${(made += 1)}`;
  return { id, ...handsOf(said, { id, at: T + 1000 * seconds, path: '/pours/a' }) };
};
beforeEach(() => localStorage.clear());

test('nothing is told where no bench was opened', () => {
  expect(says(0)).not.toHaveProperty('sinceS');
});

test('from the opening to the first tap, from tap to tap, and from there on at the next bench', () => {
  benchOpened(T);
  expect([says(12), says(25.5), says(26)].map(({ sinceS }) => sinceS)).toEqual([12, 13.5, 0.5]);
  // Another bench is opened a minute later: what lies between is nobody's.
  benchOpened(T + 86_000);
  expect(says(96).sinceS).toBe(10);
});

test('what is taken back and said anew took as long as it did, and a probe takes nobody’s hands', () => {
  benchOpened(T);
  const first = says(20);
  says(21, { kind: 'undo', target: first.id });
  expect(says(22).sinceS).toBe(22);
  expect(says(30, { kind: 'warm', by: 'probe' })).not.toHaveProperty('sinceS');
  expect(says(40).sinceS).toBe(18);
});

test('a clock that is put back makes no time below nothing', () => {
  benchOpened(T + 60_000);
  expect(says(10).sinceS).toBe(0);
});

test('two people who share a device: each goes on where they were, whoever opened which bench meanwhile', () => {
  const as = (who: string, path: string, seconds: number) =>
    handsOf({ kind: 'good' }, { id: `e${(made += 1)}`, at: T + 1000 * seconds, who, path }).sinceS;
  benchOpened(T);
  expect(as('Ada', '/tickets/1', 60)).toBe(60);
  benchOpened(T + 65_000);
  // Ben comes to it, and nobody knows what he did before.
  expect(as('Ben', '/tickets/2', 70)).toBe(5);
  benchOpened(T + 170_000);
  expect(as('Ada', '/tickets/1', 180)).toBe(120);
  benchOpened(T + 185_000);
  expect(as('Ben', '/tickets/2', 190)).toBe(120);
  // Who goes to another bench begins there when it is opened.
  benchOpened(T + 300_000);
  expect(as('Ben', '/tickets/3', 330)).toBe(30);
});

test('a device of before that kept a number goes on from it', () => {
  localStorage.setItem('schmelz-hands', String(T));
  expect(says(30).sinceS).toBe(30);
});
