import { seeded } from '../random/seeded.ts';
import { gathered, judgeGroups, meanwhile, summed, worstStretch, type Expected } from './shuffle.ts';

/** Pours of a year in which nothing changes, but that evenings differ more than heads do. */
function chanceYear(random: () => number, pours = 60): Expected[] {
  return Array.from({ length: pours }, () => {
    const heads = 30 + Math.floor(random() * 200);
    const share = 0.04 + 0.16 * random() ** 2;
    const bad = Array.from({ length: heads }, () => random() < share).filter(Boolean).length;
    return { heads, bad, expected: 0.09 * heads };
  });
}

test('of 300 years of pure chance, one in a hundred finds that something changed, or that someone is worse', () => {
  const random = seeded(5);
  let [changes, people] = [0, 0];
  for (let year = 0; year < 300; year++) {
    const pours = chanceYear(random);
    if (worstStretch(pours)) changes += 1;
    const shared = pours.map((pour) => ({ ...pour, group: random() < 0.4 ? 'one' : 'other' }));
    if (judgeGroups(shared).some(({ standsOut }) => standsOut)) people += 1;
  }
  // At 1 % of 300: 3 expected; 9 or more come by chance once in 260 (Poisson).
  expect(changes).toBeLessThan(9);
  expect(people).toBeLessThan(9);
}, 120_000);

test('a change is found with its beginning and its end; what was worse until then is one as well', () => {
  const random = seeded(9);
  const pours = chanceYear(random);
  const worse = (from: number, to: number) =>
    pours.map((pour, at) => ({ ...pour, bad: at < from || at > to ? pour.bad : Math.round(0.34 * pour.heads) }));
  for (const [from, to] of [
    [22, 29],
    [0, 9],
    [50, 59],
  ] as const) {
    const found = worstStretch(worse(from, to))!;
    expect(Math.abs(found.first - from)).toBeLessThanOrEqual(1);
    expect(Math.abs(found.last - to)).toBeLessThanOrEqual(1);
    const own = worse(from, to).slice(found.first, found.last + 1);
    expect(found.heads).toBe(own.reduce((sum, { heads }) => sum + heads, 0));
    expect(found.bad / found.heads).toBeGreaterThan(found.rest.bad / found.rest.heads + 0.15);
  }
});

test('who has the hard mold is not worse for it; who is worse with it is', () => {
  const random = seeded(3);
  const pours = Array.from({ length: 60 }, (_, at) => {
    const hard = at % 2 === 0;
    const heads = 80 + Math.floor(random() * 60);
    const bad = Array.from({ length: heads }, () => random() < (hard ? 0.3 : 0.05)).filter(Boolean).length;
    return { heads, bad, expected: heads * (hard ? 0.3 : 0.05), group: hard ? 'hard' : 'easy' };
  });
  expect(judgeGroups(pours).map(({ standsOut }) => standsOut)).toEqual([false, false]);
  const clumsy = pours.map((pour) => ({ ...pour, bad: pour.group === 'easy' ? pour.bad * 2 : pour.bad }));
  expect(judgeGroups(clumsy).map(({ group, standsOut }) => [group, standsOut])).toEqual([
    ['easy', true],
    ['hard', false],
  ]);
});

test('too little says nothing, and what cannot be is refused', () => {
  const point = { heads: 10, bad: 1, expected: 1 };
  expect(worstStretch([])).toBeNull();
  expect(worstStretch([point, point, point])).toBeNull();
  expect(worstStretch(Array.from({ length: 9 }, () => ({ ...point, bad: 0 })))).toBeNull();
  expect(judgeGroups([])).toEqual([]);
  // Two points of a group are no record of it, whatever they gave.
  const two = [9, 9, 0, 0, 0, 0, 0, 0].map((bad, at) => ({ ...point, bad, group: at < 2 ? 'new' : 'old' }));
  expect(judgeGroups(two).some(({ standsOut }) => standsOut)).toBe(false);
  expect(() => worstStretch([{ ...point, bad: 11 }, point, point, point])).toThrow(
    /bad heads is 11; allowed: a whole number from 0 to 10/,
  );
  expect(() => worstStretch([point, point, point, point], 2)).toThrow(/level/);
});

test('a long record is gathered without losing a head', () => {
  const year = chanceYear(seeded(2), 203);
  const together = gathered(year, 60);
  expect(together.length).toBeLessThanOrEqual(60);
  expect(together.map(summed).reduce((sum, { heads }) => sum + heads, 0)).toBe(summed(year).heads);
});

test('what went with a stretch is told; what went on before and after, or always had the bad ones, is not', () => {
  const points = [
    { heads: 40, bad: 2, inside: false, tags: ['old box', 'Fry six', 'two'] },
    { heads: 30, bad: 9, inside: true, tags: ['new box', 'Fry six'] },
    { heads: 90, bad: 1, inside: true, tags: ['old box', 'Fry six'] },
    { heads: 60, bad: 1, inside: false, tags: ['third box', 'Fry six'] },
  ];
  expect(meanwhile(points)).toEqual([{ tag: 'new box', badShare: 0.9, outsideShare: 0 }]);
  expect(meanwhile([])).toEqual([]);
});
