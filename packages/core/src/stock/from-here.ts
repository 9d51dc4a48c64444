import { programText, type ProgramRow, type SolveLp, type Term } from '../numeric/program.ts';
import { countInRange, inRange } from '../quantity/check.ts';

/** A product, what one good head of it takes off the shelves, and what one counts. */
export interface Makeable {
  id: string;
  takes: Readonly<Record<string, number>>;
  /** 1: heads alike; its price: most money; anything else: the maker's own taste. */
  weight: number;
  /** Nobody wants more of it than that; left out: as many as can be. */
  most?: number;
}
export interface FromHere {
  heads: { id: string; count: number }[];
  worth: number;
  boundWorth: number;
  /** What is used up so far that it stops one more head of something worth making. */
  runsOut: string[];
  left: Record<string, number>;
}

/** More than this of one thing is no answer that helps. */
const MOST_HEADS = 20_000;
const EPS = 1e-9;

/**
 * The best mix of products from what is on the shelves, and what runs out first: an integer program over whole heads,
 * no part taken beyond what is there.
 * @param here what there is of each part; what is not named there is not there at all
 * @throws QuantityError for takings, weights or stock below zero
 * @example mostFromHere([{ id: 'ball', takes: { hook: 1 }, weight: 1 }], { hook: 12 }, solve).heads[0].count // 12
 */
export function mostFromHere(
  products: readonly Makeable[],
  here: Readonly<Record<string, number>>,
  solve: SolveLp,
): FromHere {
  for (const { id, takes, weight, most = 0 } of products) {
    inRange(`weight of ${id}`, weight, '', 0, 1e6);
    countInRange(`most of ${id}`, most, 0, MOST_HEADS);
    for (const [part, quantity] of Object.entries(takes)) inRange(`${part} in ${id}`, quantity, '', 0, 1e4);
  }
  const there = (part: string) => Math.max(0, here[part] ?? 0);
  // What takes nothing is made of nothing: it says nothing of the shelves.
  const real = products.filter(({ takes }) => Object.values(takes).some((quantity) => quantity > 0));
  const parts = [...new Set(real.flatMap(({ takes }) => Object.keys(takes).filter((part) => takes[part]! > 0)))];
  const column = (at: number) => `x${at}`;
  const rows: ProgramRow[] = [
    ...parts.map((part): ProgramRow => {
      const of = real.map(({ takes }, at): Term => [takes[part] ?? 0, column(at)]);
      return { of, is: '<=', to: there(part) };
    }),
    ...real.map(({ most = MOST_HEADS }, at): ProgramRow => ({ of: [[1, column(at)]], is: '<=', to: most })),
  ];
  const answer = real.length
    ? solve(
        programText({
          least: real.map(({ weight }, at): Term => [-weight, column(at)]),
          rows,
          whole: real.map((_, at) => column(at)),
        }),
      )
    : { columns: {} as Record<string, number>, bound: 0 };
  const counts = real.map(({ id }, at) => ({ id, count: Math.round(answer.columns[column(at)] ?? 0) }));
  const used = (part: string) => real.reduce((sum, { takes }, at) => sum + (takes[part] ?? 0) * counts[at]!.count, 0);
  const left = Object.fromEntries(parts.map((part) => [part, Math.max(0, there(part) - used(part))]));
  const worth = real.reduce((sum, { weight }, at) => sum + weight * counts[at]!.count, 0);
  const wanted = real.filter(({ weight, most = MOST_HEADS }, at) => weight > 0 && counts[at]!.count < most);
  return {
    heads: counts.filter(({ count }) => count > 0),
    ...{ worth, boundWorth: Math.max(worth, -answer.bound) },
    runsOut: parts.filter((part) => wanted.some(({ takes }) => (takes[part] ?? 0) > left[part]! + EPS)),
    left,
  };
}
