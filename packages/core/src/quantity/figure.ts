/**
 * How much a number can be trusted: read off an instrument, fitted to records, or a default that nobody has checked.
 */
export type Basis = 'measured' | 'fitted' | 'given';

/** What a number counts; the interface turns it into the maker's own units. */
export type Unit =
  | 'head-kg'
  | 'kg'
  | 'powder-kg'
  | 's'
  | 'C'
  | 'm'
  | 'ml'
  | 'm2'
  | 'minor'
  | 'count'
  | 'ratio'
  | 'kWh'
  | 'W'
  | 'minor/h'
  | 'minor/kWh'
  | 'minor/kg'
  | 'minor/head'
  | 'K'
  | 'W/K'
  | 'J/K'
  | 'W/m2K'
  | 'm/s'
  | 'ug/m3'
  | 'kg/m3'
  | 'K/month'
  | 'text';

export interface WhyInput {
  label: string;
  value: number | string;
  unit: Unit;
  basis: Basis;
  note?: string;
}

/** The answer to "why this number": the rule in words, what went in, and where the rule comes from. */
export interface Why {
  rule: string;
  formula: string;
  source: string;
  inputs: WhyInput[];
}

/** A number that can be asked why. `low` and `high` bound it where it is an estimate. */
export interface Figure {
  value: number;
  low?: number;
  high?: number;
  /** Counted or searched no further than this: what is true lies beyond. */
  beyond?: true;
  unit: Unit;
  basis: Basis;
  why: Why;
}

/**
 * The weakest basis among inputs: a result is only as measured as the least measured thing in it.
 * @example weakest([{ basis: 'measured' }, { basis: 'given' }]) // 'given'
 */
export function weakest(inputs: readonly { basis: Basis }[]): Basis {
  if (inputs.some((input) => input.basis === 'given')) return 'given';
  return inputs.some((input) => input.basis === 'fitted') ? 'fitted' : 'measured';
}

/**
 * Builds a {@link Figure}; its basis is the weakest of its inputs unless said otherwise.
 * @example figure(3, 'count', { rule: 'Counted.', formula: 'n', source: 'Here', inputs: [] }).basis // 'measured'
 */
export function figure(
  value: number,
  unit: Unit,
  why: Why,
  more: { low?: number; high?: number; beyond?: boolean; basis?: Basis } = {},
): Figure {
  const { basis = weakest(why.inputs), low, high } = more;
  return { value, unit, why, basis, low, high, ...(more.beyond && { beyond: true }) };
}

/**
 * What a maker or a label says, beside a figure.
 * @example given('heel', 0.8, 'kg').basis // 'given'
 */
export const given = (label: string, value: number | string, unit: Unit, note?: string): WhyInput => ({
  label,
  value,
  unit,
  basis: 'given',
  note,
});
/**
 * What was fitted to readings, beside a figure.
 * @example fitted('loss', 0.5, 'W/K').basis // 'fitted'
 */
export const fitted = (label: string, value: number | string, unit: Unit, note?: string): WhyInput => ({
  label,
  value,
  unit,
  basis: 'fitted',
  note,
});
/**
 * What was weighed, read or counted, beside a figure.
 * @example measured('on the scale', 0.0108, 'kg').basis // 'measured'
 */
export const measured = (label: string, value: number | string, unit: Unit, note?: string): WhyInput => ({
  label,
  value,
  unit,
  basis: 'measured',
  note,
});
