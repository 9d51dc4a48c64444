import { inRange } from '../quantity/check.ts';

interface LeadCharged {
  chargedKg: number;
  headsKg: number;
  sprueBackKg: number;
  rejectsBackKg: number;
  drossKg: number;
  heelKg: number;
}

export interface LeadBalance extends LeadCharged {
  /** Charged less all that is accounted for; negative when more came out than went in. Shown, never hidden. */
  unexplainedKg: number;
}

/**
 * charged = heads + sprue back + rejects back + dross + heel + unexplained, kg.
 * @example leadBalance({ chargedKg: 2, headsKg: 1.2, sprueBackKg: 0.4, rejectsBackKg: 0.1, drossKg: 0.05,
 *   heelKg: 0.2 }).unexplainedKg // 0.05
 */
export function leadBalance(input: LeadCharged): LeadBalance {
  for (const [name, kg] of Object.entries(input)) inRange(name, kg, 'kg', 0, 1000);
  const { chargedKg, headsKg, sprueBackKg, rejectsBackKg, drossKg, heelKg } = input;
  return { ...input, unexplainedKg: chargedKg - headsKg - sprueBackKg - rejectsBackKg - drossKg - heelKg };
}
