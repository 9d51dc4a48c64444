import {
  ALUMINIUM_J_KG_K,
  ALUMINIUM_KG_M3,
  ALUMINIUM_W_M_K,
  CAST_IRON_J_KG_K,
  CAST_IRON_KG_M3,
  CAST_IRON_W_M_K,
} from '../metal/materials.ts';
import { inRange } from '../quantity/check.ts';

export const MOLD_METALS = ['aluminium', 'iron'] as const;
export type MoldMetal = (typeof MOLD_METALS)[number];
export const MOLD_METAL: Record<MoldMetal, { capacityJKgK: number; densityKgM3: number; conductivityWMK: number }> = {
  aluminium: { capacityJKgK: ALUMINIUM_J_KG_K, densityKgM3: ALUMINIUM_KG_M3, conductivityWMK: ALUMINIUM_W_M_K },
  iron: { capacityJKgK: CAST_IRON_J_KG_K, densityKgM3: CAST_IRON_KG_M3, conductivityWMK: CAST_IRON_W_M_K },
};

/** A mold as heat sees it: a face of cavities and a back, and what it loses to the room. */
export interface MoldBlock {
  bodyKg: number;
  metal?: MoldMetal;
  /** Closed, W/K. */
  lossWPerK?: number;
  /** Share of the book's heat capacity that this mold shows: handles and hinge take part only in part. Fitted. */
  capacityShare?: number;
}
export interface MoldHeat {
  faceC: number;
  backC: number;
}

/** A block of so much loses this closed, W/K. Common practice, no source. */
const USUAL_KG = 0.55;
const USUAL_LOSS_W_K = 0.45;
/**
 * Surface of a block over that of the usual one: blocks are alike in shape, so it goes with mass^(2/3).
 * @example surfaceShare(0.55) // 1
 */
export const surfaceShare = (bodyKg: number): number => (bodyKg / USUAL_KG) ** (2 / 3);
/**
 * What a closed mold of this mass loses, by its surface, W/K.
 * @example moldLossWPerK(0.55) // 0.45
 */
export const moldLossWPerK = (bodyKg: number): number => USUAL_LOSS_W_K * surfaceShare(bodyKg);
/** An open mold shows its faces to the room too: about twice the surface. Common practice, no source. */
export const OPEN_LOSS_FACTOR = 2;
/** Share of the block that lies within some millimetres of the cavities. */
const FACE_SHARE = 0.2;
/** From face to back: conductivity x 40 cm2 over 10 mm. */
const PATH_M = 0.4;

interface BlockNodes {
  faceJK: number;
  backJK: number;
  betweenWPerK: number;
  lossWPerK: number;
}

/**
 * The two heat capacities of a block, what joins them, and its loss. Range: 0.05 to 20 kg.
 * @example blockNodes({ bodyKg: 0.5 }).lossWPerK // 0.4223
 */
export function blockNodes(block: MoldBlock): BlockNodes {
  const metal = MOLD_METAL[block.metal ?? 'aluminium'];
  const bodyKg = inRange('moldKg', block.bodyKg, 'kg', 0.05, 20);
  const share = inRange('capacityShare', block.capacityShare ?? 1, '', 0.3, 2);
  const lossWPerK = inRange('lossWPerK', block.lossWPerK ?? moldLossWPerK(bodyKg), 'W/K', 0, 20);
  const capacity = bodyKg * metal.capacityJKgK * share;
  return {
    faceJK: FACE_SHARE * capacity,
    backJK: (1 - FACE_SHARE) * capacity,
    betweenWPerK: metal.conductivityWMK * PATH_M,
    lossWPerK,
  };
}

/**
 * What of a shot's heat the face cannot take without getting hotter than the metal goes on into the back.
 * @example takeIn({ faceJK: 100, backJK: 300 }, { faceC: 60, backC: 55 }, 1000, 371) // { faceC: 70, backC: 55 }
 */
export function takeIn({ faceJK, backJK }: BlockNodes, heat: MoldHeat, joules: number, metalC: number): MoldHeat {
  const face = Math.min(joules, Math.max(0, faceJK * (metalC - heat.faceC)));
  return { faceC: heat.faceC + face / faceJK, backC: heat.backC + (joules - face) / backJK };
}

/**
 * What a block is at on average, by what its two halves hold.
 * @example meanC({ faceJK: 90, backJK: 360, betweenWPerK: 60, lossWPerK: 0.4 }, { faceC: 90, backC: 80 }) // 82
 */
export const meanC = ({ faceJK, backJK }: BlockNodes, { faceC, backC }: MoldHeat): number =>
  (faceJK * faceC + backJK * backC) / (faceJK + backJK);

/**
 * Face and back after `seconds` without metal: two nodes, the back losing to the room. Linear, so in closed form by the
 * two rates of decay; `lostJ` is the integral of the loss, so that stored + lost closes. Check: npm odex, and energy to
 * 1e-9 (mold.test.ts). Biot number of a face, h R / k with 1500 W/m2K over 10 mm: 0.1 in aluminium (one lump is fair),
 * 0.3 in iron (less so).
 * @example relax({ faceJK: 90, backJK: 360, betweenWPerK: 60, lossWPerK: 0.4 }, { faceC: 90, backC: 90 }, 600, 20,
 *   2).heat // { faceC: 44.16, backC: 44.09 }
 */
export function relax(nodes: BlockNodes, heat: MoldHeat, seconds: number, roomC: number, lossFactor = 1) {
  const decay = decayOf(nodes, lossFactor);
  const lossWPerK = nodes.lossWPerK * lossFactor;
  return {
    heat: decay.after(heat, seconds, roomC),
    lostJ: lossWPerK === 0 ? 0 : lossWPerK * decay.backKs(heat, seconds, roomC),
  };
}

/**
 * How a block comes down to the room, with its two rates reckoned once: for a fit, which asks thousands of times.
 * @example decayOf({ faceJK: 90, backJK: 360, betweenWPerK: 60, lossWPerK: 0.4 }, 2)
 *   .after({ faceC: 90, backC: 90 }, 600, 20) // { faceC: 44.16, backC: 44.09 }
 */
export function decayOf({ faceJK, backJK, betweenWPerK: g, lossWPerK }: BlockNodes, lossFactor = 1) {
  // x' = A x for excess over the room: A = [[-a, a], [b, -(b + c)]].
  const [a, b, c] = [g / faceJK, g / backJK, (lossWPerK * lossFactor) / backJK];
  const trace = -(a + b + c);
  const root = Math.sqrt(trace * trace - 4 * a * c);
  const fast = (trace - root) / 2;
  // The slow rate by the product of the roots: the difference would cancel.
  const slow = (a * c) / fast;
  const gap = slow - fast;
  // Sylvester's formula: f(At) = (f(slow) (A - fast) - f(fast) (A - slow)) / (slow - fast).
  const ofBack = (u: number, v: number, kf: number, ks: number) =>
    (ks * (b * u - (b + c + fast) * v) - kf * (b * u - (b + c + slow) * v)) / gap;
  return {
    /** Face and back so much later. */
    after({ faceC, backC }: MoldHeat, seconds: number, roomC: number): MoldHeat {
      const [u, v] = [faceC - roomC, backC - roomC];
      const [kf, ks] = [Math.exp(fast * seconds), Math.exp(slow * seconds)];
      const face = (ks * (a * (v - u) - fast * u) - kf * (a * (v - u) - slow * u)) / gap;
      return { faceC: roomC + face, backC: roomC + ofBack(u, v, kf, ks) };
    },
    /** What the back is over the room, added up over the time, K s. */
    backKs({ faceC, backC }: MoldHeat, seconds: number, roomC: number): number {
      const integral = (rate: number) =>
        Math.abs(rate * seconds) < 1e-12 ? seconds : Math.expm1(rate * seconds) / rate;
      return ofBack(faceC - roomC, backC - roomC, integral(fast), integral(slow));
    },
  };
}
