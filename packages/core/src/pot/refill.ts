import { SOFT_LEAD, withHolder, type Alloy } from '../metal/alloy.ts';
import { enthalpyJKg, stateAt, type MetalState } from '../metal/enthalpy.ts';
import { inRange } from '../quantity/check.ts';
import type { PotBody } from './simulate.ts';
import { meltTime } from './time-to-pour.ts';

/** What is in the pot, and what is added to it. */
interface Adding {
  potKg: number;
  potC: number;
  addKg: number;
  addC?: number;
  crucibleJPerK?: number;
  alloy?: Alloy;
}

/**
 * The pot just after cold metal has gone in and mixed: M h(T) + m h(T_cold) over M + m, the crucible with it. Range:
 * 0.05 to 50 kg in the pot, up to 50 kg added.
 * @example Math.round(afterAdding({ potKg: 2, potC: 385, addKg: 0.1 }).temperatureC) // 361
 */
export function afterAdding({ crucibleJPerK = 0, alloy = SOFT_LEAD, ...of }: Adding): MetalState {
  const M = inRange('potKg', of.potKg, 'kg', 0.05, 50);
  const m = inRange('addKg', of.addKg, 'kg', 0, 50);
  const potC = inRange('potC', of.potC, 'C', 20, 600);
  const addC = inRange('addC', of.addC ?? 20, 'C', -20, 600);
  const before = enthalpyJKg(withHolder(alloy, crucibleJPerK / M), potC);
  return stateAt(withHolder(alloy, crucibleJPerK / (M + m)), (M * before + m * enthalpyJKg(alloy, addC)) / (M + m));
}

export interface RefillInput {
  potKg: number;
  potC: number;
  capacityKg: number;
  pot: PotBody;
  /** The pot is not to fall below this, C. */
  keepAboveC: number;
  /** Where pouring goes on again, C. */
  pourC: number;
  roomC: number;
  addC?: number;
  alloy?: Alloy;
}

export interface Refill {
  /** Largest addition at once, kg; 0 where the pot is too cold or full. */
  addKg: number;
  /** What holds it back. */
  limit: 'heat' | 'room in the pot' | 'too cold to feed';
  /** The pot just after it. */
  afterC: number;
  /** Seconds at full power until it pours again. */
  recoverS: number;
}

/** A pot brim full drips at its spout and spills: this share of it is used. Common practice, no source. */
const FULL_SHARE = 0.95;

/**
 * The largest addition now that keeps the pot above a chosen temperature, by the enthalpy balance m = (M (h(T) -
 * h(T_keep)) + C (T - T_keep)) / (h(T_keep) - h(T_add)), held to the room in the pot; and the time to recover.
 * @example largestRefill({ potKg: 4, potC: 385, capacityKg: 9, pot: { powerW: 700, lossWPerK: 0.55 },
 *   keepAboveC: 345, pourC: 371, roomC: 20 }).addKg // 0.3507
 */
export function largestRefill(input: RefillInput): Refill {
  const alloy = input.alloy ?? SOFT_LEAD;
  const addC = inRange('addC', input.addC ?? 20, 'C', -20, 300);
  const keepAboveC = inRange('keepAboveC', input.keepAboveC, 'C', alloy.liquidusC, 600);
  const potC = inRange('potC', input.potC, 'C', 20, 600);
  const potKg = inRange('potKg', input.potKg, 'kg', 0.05, 50);
  const roomKg = Math.max(0, inRange('capacityKg', input.capacityKg, 'kg', 0.1, 50) * FULL_SHARE - potKg);
  const keep = enthalpyJKg(alloy, keepAboveC + 1e-9);
  const { crucibleJPerK = 0 } = input.pot;
  const over = potKg * (enthalpyJKg(alloy, potC) - keep) + crucibleJPerK * (potC - keepAboveC);
  const byHeat = over / (keep - enthalpyJKg(alloy, addC));
  if (byHeat <= 0) return { addKg: 0, limit: 'too cold to feed', afterC: potC, recoverS: recoverS(input, potKg, potC) };
  const addKg = Math.min(byHeat, roomKg);
  const afterC = afterAdding({ potKg, potC, addKg, addC, crucibleJPerK, alloy }).temperatureC;
  return {
    addKg,
    limit: roomKg < byHeat ? 'room in the pot' : 'heat',
    afterC,
    recoverS: recoverS(input, potKg + addKg, afterC),
  };
}

/**
 * Seconds at full power from what a pot has come to, to where pouring goes on.
 * @example recoverS({ pot: { powerW: 700, lossWPerK: 0.5 }, pourC: 371, roomC: 20 }, 4, 340) // 34.25
 */
export const recoverS = (
  { pot, pourC, roomC, alloy }: Pick<RefillInput, 'pot' | 'pourC' | 'roomC' | 'alloy'>,
  leadKg: number,
  fromC: number,
): number => meltTime({ leadKg, fromC, toC: pourC, roomC, ...pot, alloy }).seconds;
