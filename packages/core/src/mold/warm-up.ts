import { leadEnthalpyJKg } from '../metal/enthalpy.ts';
import { ALUMINIUM_J_KG_K } from '../metal/materials.ts';
import { inRange } from '../quantity/check.ts';

export interface MoldHeatInput {
  moldKg: number;
  /** Heads and sprues of one shot. */
  shotKg: number;
  metalC: number;
  roomC?: number;
  fromC?: number;
  /** Seconds between shots while warming. */
  cycleS?: number;
  lossWPerK?: number;
  heatCapacityJKgK?: number;
  readyC?: number;
}

/** Mean temperature of the block at which it is ready: practice says 80 to 110 C, by hand at the back. */
export const MOLD_READY_C = 85;
export const MOLD_LOSS_W_K = 0.45;
/** Blank shots follow each other as fast as they freeze and are knocked out. Common practice, no source. */
export const BLANK_CYCLE_S = 25;

const EJECT_ABOVE_MOLD_K = 60;
const EJECT_AT_LEAST_C = 120;

/** Heat that one shot leaves in the mold, J: m [h(T_pour) - h(T_eject)], T_eject 60 K above the mold, at least 120 C. */
export function shotHeatJ(shotKg: number, metalC: number, moldC: number): number {
  const ejectC = Math.min(metalC, Math.max(EJECT_AT_LEAST_C, moldC + EJECT_ABOVE_MOLD_K));
  return shotKg * (leadEnthalpyJKg(metalC) - leadEnthalpyJKg(ejectC));
}

/**
 * Temperature of the mold after each of `shots` shots, C: one lump of heat capacity m c that gains
 * {@link shotHeatJ} a shot and decays to the room between shots, exactly (exponential).
 */
export function moldTemperaturesC(input: MoldHeatInput, shots: number): number[] {
  const moldKg = inRange('moldKg', input.moldKg, 'kg', 0.05, 20);
  const shotKg = inRange('shotKg', input.shotKg, 'kg', 0.0005, 10);
  const metalC = inRange('metalC', input.metalC, 'C', 328, 600);
  const roomC = inRange('roomC', input.roomC ?? 20, 'C', -20, 50);
  const cycleS = inRange('cycleS', input.cycleS ?? BLANK_CYCLE_S, 's', 1, 3600);
  const lossWPerK = inRange('lossWPerK', input.lossWPerK ?? MOLD_LOSS_W_K, 'W/K', 0, 20);
  const capacity = moldKg * inRange('heatCapacityJKgK', input.heatCapacityJKgK ?? ALUMINIUM_J_KG_K, 'J/kgK', 100, 5000);
  const keep = Math.exp((-lossWPerK * cycleS) / capacity);
  const after: number[] = [];
  let moldC = inRange('fromC', input.fromC ?? roomC, 'C', -20, 300);
  for (let shot = 0; shot < shots; shot++) {
    if (shot > 0) moldC = roomC + (moldC - roomC) * keep;
    moldC += shotHeatJ(shotKg, metalC, moldC) / capacity;
    after.push(moldC);
  }
  return after;
}

/** Blank shots beyond this do not warm the mold any further: it has found its balance with the room. */
const MOST_BLANKS = 40;

/**
 * Blank shots until the mold is ready, and its temperature after each; `ready` is false where it never gets there.
 * The schools of 3, 5 and 10 blank shots are one law: shot mass over mold mass.
 * Checks (practice): 0.55 kg with 60 g about 10; 0.6 kg with 200 g 4 to 5; 0.9 kg with 350 g 3.
 */
export function blankShots(input: MoldHeatInput): { shots: number; temperaturesC: number[]; ready: boolean } {
  const readyC = inRange('readyC', input.readyC ?? MOLD_READY_C, 'C', 20, 250);
  if ((input.fromC ?? input.roomC ?? 20) >= readyC) return { shots: 0, temperaturesC: [], ready: true };
  const all = moldTemperaturesC(input, MOST_BLANKS);
  const at = all.findIndex((moldC) => moldC >= readyC);
  const shots = at < 0 ? MOST_BLANKS : at + 1;
  return { shots, temperaturesC: all.slice(0, shots), ready: at >= 0 };
}
