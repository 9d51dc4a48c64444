import type { HookDimensions } from '../geometry/hook.ts';
import type { HeadSolid } from '../geometry/solid.ts';
import { LEAD_WARMED_J_KG_K, STEEL_J_KG_K, STEEL_KG_M3 } from '../metal/materials.ts';
import { inRange } from '../quantity/check.ts';
import { figure, given, type Figure } from '../quantity/figure.ts';
import { aboveZero, range90 } from '../quantity/range.ts';
import { quantityText } from '../quantity/said.ts';
import { SPREAD } from '../quantity/spreads.ts';
import { HANDLE_BELOW_C, STILL_AIR_W_M2K } from './handling.ts';
import type { HeadOpening } from './opening.ts';

/** Hook wire, a hardened carbon steel, W/mK; from memory: 43 to 50. */
export const HOOK_W_M_K = 46;
/** Still air round a thin wire, W/m2K: thin ones lose more than a head does. From memory: 25 to 40. */
const WIRE_AIR_W_M2K = 30;
/** Followed so long after the pour: the bend is past its hottest by then. */
const FOLLOWED_S = 180;
const NODES = 12;

/** A hook in its head. */
interface HotHook {
  hook: HookDimensions;
  solid: HeadSolid;
  headKg: number;
  opening: Pick<HeadOpening, 'head' | 'openS' | 'opensC' | 'leavesC'>;
  roomC: number;
  /** Left out: as the drawing has it, and as usual. */
  shankM?: number;
  airWPerM2K?: number;
}
/** How warm a hook gets where it is held. */
export interface BendHeat {
  /** Until then it may be held with bare fingers, s after the pour; null: it never gets too hot. */
  coolUntilS: number | null;
  hottestC: number;
  hottestAtS: number;
}

/**
 * Wire from where it leaves the metal to the lowest part of the bend, m: head and collar cover the shank from the eye
 * leg on.
 * @example freeShankM(typicalHook('1/0'), cavitySolid('ball', 0.0142)) // 0.02
 */
export function freeShankM({ lengthM, gapM }: HookDimensions, solid: HeadSolid): number {
  const inMetalM = solid.flowLengthM - solid.radiusM;
  return Math.max(0.005, lengthM - gapM / 2 - inMetalM) + (Math.PI / 4) * gapM;
}

/**
 * The bend of a hook after the pour: its shank is a fin on a hot head, which comes down to `leavesC` in the mold and
 * then in still air, giving to the hook too. The bend hangs out of the mold, at the room's heat; what the hook channel
 * takes from the shank is left out, so that it is said to be hot rather too early. Explicit steps on 12 nodes. Check:
 * Carslaw & Jaeger, Conduction of Heat in Solids (1959), the semi-infinite fin, from memory (hook-heat.test.ts).
 * Range: 0.1 g to 2 kg, room -20 to 44 C.
 * @example bendHeat({ hook: typicalHook('1/0'), solid: cavitySolid('ball', 0.0142), headKg: 0.0142,
 *   opening: settled.last, roomC: 20 }).coolUntilS // 8
 */
export function bendHeat(of: HotHook): BendHeat {
  const { hook, solid, headKg, opening, roomC, airWPerM2K = WIRE_AIR_W_M2K } = of;
  inRange('headKg', headKg, 'kg', 1e-4, 2);
  inRange('roomC', roomC, 'C', -20, 44);
  const shankM = inRange('shank', of.shankM ?? freeShankM(hook, solid), 'm', 0.002, 0.3);
  const dx = shankM / NODES;
  const alpha = HOOK_W_M_K / (STEEL_KG_M3 * STEEL_J_KG_K);
  const dt = (0.4 * dx * dx) / alpha;
  const gain = (alpha * dt) / (dx * dx);
  const loss = ((4 * airWPerM2K) / (STEEL_KG_M3 * STEEL_J_KG_K * hook.wireM)) * dt;
  const sectionM2 = (Math.PI * hook.wireM ** 2) / 4;
  const headJK = headKg * LEAD_WARMED_J_KG_K;
  const headLoss = (STILL_AIR_W_M2K.usual * solid.cooledAreaM2 * dt) / headJK;
  const toHook = (HOOK_W_M_K * sectionM2 * dt) / (dx * headJK);
  const { head, openS, opensC, leavesC } = opening;
  let wire = new Float64Array(NODES).fill(roomC);
  let base = roomC;
  const met: BendHeat = { coolUntilS: null, hottestC: roomC, hottestAtS: 0 };
  for (let t = 0; t < FOLLOWED_S; t += dt) {
    // Until it is lifted out the mold says how hot it is; then air and hook do.
    if (t <= openS) {
      const share = openS > head.seconds ? Math.max(0, t - head.seconds) / (openS - head.seconds) : 0;
      base = SETS_C + (opensC - SETS_C) * Math.min(1, share);
      if (t + dt > openS) base = leavesC;
    } else base += headLoss * (roomC - base) + toHook * (wire[0]! - base);
    const next = new Float64Array(NODES);
    for (let i = 0; i < NODES; i++) {
      const before = i === 0 ? base : wire[i - 1]!;
      const after = i === NODES - 1 ? wire[i - 1]! : wire[i + 1]!;
      next[i] = wire[i]! + gain * (before - 2 * wire[i]! + after) + loss * (roomC - wire[i]!);
    }
    wire = next;
    const bendC = wire[NODES - 1]!;
    if (bendC > met.hottestC) [met.hottestC, met.hottestAtS] = [bendC, t + dt];
    if (met.coolUntilS === null && bendC > HANDLE_BELOW_C) met.coolUntilS = t + dt;
  }
  return met;
}
/** Lead sets at this: the head's heat until it has. */
const SETS_C = 327;

/**
 * How long after opening the bend of a hook may be held with bare fingers, s; null where it never gets too hot.
 * @example holdFigure({ hook: typicalHook('1/0'), solid: cavitySolid('ball', 0.0142), headKg: 0.0142,
 *   opening: settled.last, roomC: 20 }).value // 6
 */
export function holdFigure(of: HotHook): Figure | null {
  const heat = bendHeat(of);
  if (heat.coolUntilS === null) return null;
  const { openS } = of.opening;
  const shankM = of.shankM ?? freeShankM(of.hook, of.solid);
  const held = (each: BendHeat) => Math.max(0, (each.coolUntilS ?? each.hottestAtS) - openS);
  return figure(
    held(heat),
    's',
    {
      rule: `Cool at first: the heat takes so long through the wire. At its hottest, ${quantityText(Math.round(heat.hottestC), '°C')}, ${Math.round(heat.hottestAtS - openS)} s after opening.`,
      formula: 'a fin on a hot head, ∂T/∂t = α ∂²T/∂x² − 4h (T − T_room) / (ρ c d)',
      source: 'Wire 46 W/mK, still air 30 W/m²K, from memory',
      inputs: [
        given('Wire', of.hook.wireM, 'm'),
        given('From metal to bend', shankM, 'm'),
        given('Head comes out at', of.opening.leavesC, 'C'),
        given('Bare fingers hold', HANDLE_BELOW_C, 'C'),
      ],
    },
    range90(
      ([share, air]) => held(bendHeat({ ...of, shankM: shankM * share!, airWPerM2K: WIRE_AIR_W_M2K * air! })),
      [aboveZero(1, SPREAD.shankShare), aboveZero(1, SPREAD.wireAirShare)],
    ),
  );
}
