import { individuals, type Individuals } from '../count/individuals.ts';
import { figure, given, measured, type Figure } from '../quantity/figure.ts';
import { Z_90 } from '../quantity/range.ts';
import { inRange } from '../quantity/check.ts';

/** A trimmed head on the scale, out of a known cavity or not. */
export interface SampledHead {
  at: number;
  massKg: number;
  position: number | null;
}
export interface SampleInput {
  heads: readonly SampledHead[];
  /** Lead by the mold and metal, and the hook in it. */
  leadKg: number;
  hookKg: number;
}
interface SampleVerdict {
  meanKg: number;
  /** (mean - expected) / lead. */
  off: number;
  /** Null with fewer than two heads. */
  chart: Individuals | null;
  byPosition: { position: number; count: number; off: number }[];
  says: string[];
}

/**
 * Off by this share of the lead is looked into; one cavity off its fellows by this is its own. Common practice, no
 * source.
 */
const TELLING_SHARE = 0.03;
const OWN_SHARE = 0.025;
const percent = (share: number) => `${Math.abs(100 * share).toFixed(1)} %`;
const mean = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;

/**
 * What a sample of weights says of metal, mold and cavity, the plainest first; heads in order of weighing.
 * @example readSample({ heads: [], leadKg: 0.01, hookKg: 0.0009 }) // null
 */
export function readSample({ heads, leadKg, hookKg }: SampleInput): SampleVerdict | null {
  inRange('leadKg', leadKg, 'kg', 1e-4, 2);
  if (heads.length === 0) return null;
  const expectedKg = leadKg + hookKg;
  const offOf = (massKg: number) => (inRange('massKg', massKg, 'kg', 1e-5, 5) - expectedKg) / leadKg;
  const offs = heads.map((head) => offOf(head.massKg));
  const off = mean(offs);
  const positions = [...new Set(heads.flatMap((head) => (head.position === null ? [] : [head.position])))].sort(
    (a, b) => a - b,
  );
  const byPosition = positions.map((position) => {
    const own = offs.filter((_, i) => heads[i]!.position === position);
    return { position, count: own.length, off: mean(own) };
  });
  const chart = heads.length > 1 ? individuals(heads.map((head) => head.massKg)) : null;
  const says: string[] = [];
  for (const cavity of byPosition) {
    const others = byPosition.filter((each) => each !== cavity);
    if (others.length === 0) continue;
    const apart = cavity.off - mean(others.map((each) => each.off));
    if (Math.abs(apart) > OWN_SHARE)
      says.push(
        `Cavity ${cavity.position} is ${percent(apart)} ${apart > 0 ? 'heavier' : 'lighter'} than its fellows: ${apart > 0 ? 'flash there, a forgotten pin, or wear' : 'not quite full, or a burr'}.`,
      );
  }
  if (off < -TELLING_SHARE)
    says.push(`All of it is ${percent(off)} light: a hard alloy casts 2 to 4 % light, bismuth-tin a quarter.`);
  if (off > TELLING_SHARE)
    says.push(`All of it is ${percent(off)} heavy: flash, a mold that does not close, or sprue left on.`);
  const drift = chart?.signals.find((signal) => signal.rule === 'a run on one side');
  if (drift) says.push('Eight in a row on one side of the mean: the weights drift, look at wear and at the metal.');
  const far = chart?.signals.filter((signal) => signal.rule !== 'a run on one side') ?? [];
  if (far.length > 0)
    says.push(`Number ${far.map((signal) => signal.index + 1).join(', ')}: ${far[0]!.rule}. Look at that head.`);
  if (says.length === 0) says.push('As it should be: nothing to look into.');
  return { meanKg: mean(heads.map((head) => head.massKg)), off, chart, byPosition, says };
}

/**
 * Mean of a sample against what the cavity should give.
 * @example sampleFigure(readSample({ heads: [1, 2, 3, 4, 5].map((at) => ({ at, massKg: 0.0109, position: null })),
 *   leadKg: 0.01, hookKg: 0.0009 }), { heads: [], leadKg: 0.01, hookKg: 0.0009 }).value // 0.0109
 */
export const sampleFigure = (verdict: SampleVerdict, { heads, leadKg, hookKg }: SampleInput): Figure => {
  const sd = verdict.chart ? verdict.chart.meanRange / 1.128 / Math.sqrt(heads.length) : 0.02 * leadKg;
  return figure(
    verdict.meanKg,
    'head-kg',
    {
      rule: `Mean of the heads on the scale; reckoned were lead and hook together. Off by ${percent(verdict.off)} of the lead.`,
      formula: 'mean ± 2 σ / √n; σ = mean moving range / 1.128',
      source: 'Your scale; NIST/SEMATECH e-Handbook 6.3.2.2',
      inputs: [
        measured('Heads', heads.length, 'count'),
        given('Lead by the stamp', leadKg, 'head-kg'),
        given('Hook', hookKg, 'head-kg'),
      ],
    },
    { low: verdict.meanKg - Z_90 * sd, high: verdict.meanKg + Z_90 * sd, basis: 'measured' },
  );
};
