import { inRange, QuantityError } from '../quantity/check.ts';
import { wilson } from './wilson.ts';

/** Casts at one value of something: a heat, shots since the mold was smoked; and how many of them were bad. */
export interface CastsAt {
  value: number;
  casts: number;
  bad: number;
}
/** Casts from one value to below another, with how sure their share of good ones is, nine times in ten. */
interface CastsWithin {
  from: number;
  to: number;
  casts: number;
  bad: number;
  goodShare: number;
  low: number;
  high: number;
}

/**
 * Casts by what something was meanwhile, stretch by stretch; those without a cast are left out.
 * @param edges two or more, each larger than the one before; what is beyond the outer ones counts to the outer stretch
 * @throws QuantityError for edges out of order, or more bad casts than casts
 * @example byValue([{ value: 4, casts: 20, bad: 1 }, { value: 31, casts: 10, bad: 4 }], [0, 10, 20, 40]).length // 2
 */
export function byValue(records: readonly CastsAt[], edges: readonly number[]): CastsWithin[] {
  if (edges.length < 2) throw new QuantityError('edges', edges.length, '', 'two or more');
  edges.forEach((edge, at) => {
    if (at > 0 && !(edge > edges[at - 1]!)) throw new QuantityError('edge', edge, '', `above ${edges[at - 1]}`);
  });
  const stretches = edges.slice(1).map((to, at) => ({ from: edges[at]!, to, casts: 0, bad: 0 }));
  for (const { value, casts, bad } of records) {
    inRange('bad casts', bad, '', 0, casts);
    const own = stretches.find(({ to }) => value < to) ?? stretches.at(-1)!;
    own.casts += casts;
    own.bad += bad;
  }
  return stretches
    .filter(({ casts }) => casts > 0)
    .map((each) => {
      const goodShare = 1 - each.bad / each.casts;
      return { ...each, goodShare, ...wilson(goodShare, each.casts) };
    });
}

/**
 * Round edges about some values, evenly apart: steps of one, two or five, and no more stretches than asked.
 * @throws QuantityError where there is no value
 * @example roundEdges([53, 118], 5) // [40, 60, 80, 100, 120]
 */
export function roundEdges(values: readonly number[], most: number): number[] {
  if (values.length === 0) throw new QuantityError('values', 'none', '', 'one or more');
  const [low, high] = [Math.min(...values), Math.max(...values)];
  if (high === low) return [Math.floor(low), Math.floor(low) + 1];
  for (let power = Math.floor(Math.log10((high - low) / most)); ; power++) {
    for (const part of [1, 2, 5]) {
      const step = part * 10 ** power;
      const first = Math.floor(low / step + 1e-9);
      const count = Math.floor(high / step + 1e-9) - first + 1;
      if (count <= most) return Array.from({ length: count + 1 }, (_, at) => (first + at) * step);
    }
  }
}
