import { inRange, QuantityError } from '../quantity/check.ts';
import { celsiusToKelvin, GAS_CONSTANT } from '../quantity/units.ts';

/** One line on a jar's label: full cure after this long at this metal temperature. */
export interface LabelPoint {
  metalC: number;
  seconds: number;
}

export interface CureLaw {
  /** Full cure at `referenceC` takes this long. */
  referenceC: number;
  referenceS: number;
  activationJMol: number;
  /** Whether two label lines gave the activation energy, or a prior stands in. */
  from: 'label' | 'prior';
}

/** With one label line only: 50 to 90 kJ/mol is usual for powders; the middle, with both ends shown. From memory. */
export const PRIOR_ACTIVATION_J_MOL = { low: 50_000, middle: 70_000, high: 90_000 };

/**
 * Arrhenius cure from a jar's label: Ea = R ln(t1/t2) / (1/T1 - 1/T2). Check: 10 min at 200 C and 20 min at 177 C give
 * 53.4 kJ/mol.
 * @example cureLaw([{ metalC: 200, seconds: 600 }, { metalC: 177, seconds: 1200 }]).activationJMol // 53370
 * @throws QuantityError without points, or where the hotter line takes longer
 */
export function cureLaw(label: readonly LabelPoint[]): CureLaw {
  const points = label.map((point) => ({
    metalC: inRange('label temperature', point.metalC, 'C', 60, 300),
    seconds: inRange('label time', point.seconds, 's', 10, 36_000),
  }));
  const [first, second] = points;
  if (!first) throw new QuantityError('label', 'empty', '', 'one or two lines of time and metal temperature');
  if (!second || first.metalC === second.metalC) {
    return {
      referenceC: first.metalC,
      referenceS: first.seconds,
      activationJMol: PRIOR_ACTIVATION_J_MOL.middle,
      from: 'prior',
    };
  }
  const inverse = (celsius: number) => 1 / celsiusToKelvin(celsius);
  const activationJMol =
    (GAS_CONSTANT * Math.log(first.seconds / second.seconds)) / (inverse(first.metalC) - inverse(second.metalC));
  inRange('activation energy from the label', activationJMol, 'J/mol', 10_000, 300_000);
  return { referenceC: first.metalC, referenceS: first.seconds, activationJMol, from: 'label' };
}

/**
 * Seconds at constant metal temperature for a full cure.
 * @example fullCureS(cureLaw([{ metalC: 177, seconds: 1200 }, { metalC: 200, seconds: 600 }]), 163) // 1897
 */
export function fullCureS(law: CureLaw, metalC: number): number {
  return 1 / ratesOf(law)(inRange('metalC', metalC, 'C', 0, 400));
}

/**
 * A law as the pace of its cure by metal temperature, full cures per second: for the steps of a bake, of which there
 * are thousands, with what does not change reckoned once.
 * @example 1 / ratesOf(cureLaw([{ metalC: 177, seconds: 1200 }, { metalC: 200, seconds: 600 }]))(163) // 1897
 */
export function ratesOf({ referenceC, referenceS, activationJMol }: CureLaw): (metalC: number) => number {
  const byKelvin = activationJMol / GAS_CONSTANT;
  const atReference = byKelvin / celsiusToKelvin(referenceC);
  return (metalC) => Math.exp(atReference - byKelvin / celsiusToKelvin(metalC)) / referenceS;
}
