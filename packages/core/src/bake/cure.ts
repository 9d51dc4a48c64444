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
 * Arrhenius cure from a jar's label: Ea = R ln(t1/t2) / (1/T1 - 1/T2).
 * Check: 10 min at 200 C and 20 min at 177 C give 53.4 kJ/mol.
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

/** Seconds at constant metal temperature for a full cure. */
export function fullCureS(law: CureLaw, metalC: number): number {
  inRange('metalC', metalC, 'C', 0, 400);
  const inverse = 1 / celsiusToKelvin(metalC) - 1 / celsiusToKelvin(law.referenceC);
  return law.referenceS * Math.exp((law.activationJMol / GAS_CONSTANT) * inverse);
}

export interface BakeInput {
  law: CureLaw;
  /** Lag of the head behind the oven air, s. */
  headLagS: number;
  setC: number;
  /** Lag of the oven itself from cold; 0 when preheated. */
  ovenLagS?: number;
  fromC?: number;
}

/** Oven air and metal at a time after the door was closed; both lags are first order. */
export function bakeTemperaturesC(input: BakeInput, seconds: number): { ovenC: number; metalC: number } {
  const fromC = input.fromC ?? 20;
  const ovenLagS = input.ovenLagS ?? 0;
  const rise = input.setC - fromC;
  const tau = input.headLagS;
  const ovenC = ovenLagS === 0 ? input.setC : input.setC - rise * Math.exp(-seconds / ovenLagS);
  if (ovenLagS === 0) return { ovenC, metalC: input.setC - rise * Math.exp(-seconds / tau) };
  // Two lags in a row; equal lags are nudged apart, the limit is smooth.
  const a = ovenLagS;
  const b = Math.abs(tau - a) < 1e-6 ? tau + 1e-3 : tau;
  const left = (a * Math.exp(-seconds / a) - b * Math.exp(-seconds / b)) / (a - b);
  return { ovenC, metalC: input.setC - rise * left };
}

/** The count of a program starts here: metal this near to the oven's heat cures at about nine tenths of its pace. */
export const WARM_WITHIN_K = 5;

/** Seconds after the door is shut until the metal is within {@link WARM_WITHIN_K} of the oven's heat. */
export function warmUpS({ setC, headLagS, ovenLagS = 0, fromC = 20 }: Omit<BakeInput, 'law'>): number {
  const input = {
    law: { referenceC: setC, referenceS: 1, activationJMol: 0, from: 'label' as const },
    setC,
    headLagS,
    ovenLagS,
    fromC,
  };
  let [low, high] = [0, 20 * (headLagS + ovenLagS)];
  for (let i = 0; i < 50; i++) {
    const middle = (low + high) / 2;
    if (bakeTemperaturesC(input, middle).metalC < setC - WARM_WITHIN_K) low = middle;
    else high = middle;
  }
  return high;
}

/**
 * Share of a full cure reached `seconds` after closing the door: the integral of dt / t_full(T_metal(t)), by Simpson.
 */
export function cureShare(input: BakeInput, seconds: number): number {
  inRange('setC', input.setC, 'C', 40, 300);
  inRange('headLagS', input.headLagS, 's', 1, 7200);
  inRange('bake time', seconds, 's', 0, 86_400);
  if (seconds === 0) return 0;
  const steps = 2 * Math.max(20, Math.ceil(seconds / 10));
  const h = seconds / steps;
  let sum = 0;
  for (let i = 0; i <= steps; i++) {
    const weight = i === 0 || i === steps ? 1 : i % 2 ? 4 : 2;
    sum += weight / fullCureS(input.law, bakeTemperaturesC(input, i * h).metalC);
  }
  return (sum * h) / 3;
}

/** From this share on a cure is as good as full: below it heads chip on rock. Common practice, no source. */
export const FULL_ENOUGH = 0.9;

/** Longest bake that is looked at, s. */
const LONGEST_S = 8 * 3600;
/** Small beside every lag; Simpson's rule within. */
const STEP_S = 10;

/** Seconds after closing the door until the cure is full; null when it is not full within eight hours. */
export function timeToFullCureS(input: BakeInput, withinS = LONGEST_S): number | null {
  inRange('setC', input.setC, 'C', 40, 300);
  inRange('headLagS', input.headLagS, 's', 1, 7200);
  // Metal is never hotter than the oven: what takes too long at its mark takes too long.
  if (fullCureS(input.law, Math.max(input.setC, input.fromC ?? 20)) > withinS) return null;
  const rate = (seconds: number) => 1 / fullCureS(input.law, bakeTemperaturesC(input, seconds).metalC);
  let share = 0;
  let here = rate(0);
  for (let seconds = 0; seconds < withinS; seconds += STEP_S) {
    const next = rate(seconds + STEP_S);
    const more = (STEP_S / 6) * (here + 4 * rate(seconds + STEP_S / 2) + next);
    if (share + more >= 1) return seconds + (STEP_S * (1 - share)) / more;
    share += more;
    here = next;
  }
  return null;
}
