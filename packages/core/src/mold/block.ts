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
  /** Closed, W/K, at {@link LOSS_AT_K} above the room. */
  lossWPerK?: number;
  /** By which power of what it is above the room that grows; left out: {@link LOSS_POWER}. */
  lossPower?: number;
  /** Share of the book's heat capacity that this mold shows: handles and hinge take part only in part. Fitted. */
  capacityShare?: number;
  /** Of what they are above it when they set, its heads keep so much until lifted out; left out: as light ones. */
  keptShare?: number;
  /** How unsure a fitted loss is; left out: as an unread one. */
  doubt?: LossDoubt;
}
/** How unsure a loss is that was fitted: its share at what the mold was above the room, and the power from there. */
export interface LossDoubt {
  lossShare: number;
  powerSd: number;
  aboveK: number;
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
/**
 * Free convection with radiation: a loss in W/K grows with the quarter power of what a block is above the room
 * (McAdams, Heat Transmission, 1954, from memory: Nu = 0.59 Ra^0.25 for upright plates). It is said at 60 K, where a
 * mold is ready.
 */
export const LOSS_POWER = 0.25;
export const LOSS_AT_K = 60;
/**
 * What a block loses at so much above the room, of what it loses at {@link LOSS_AT_K}.
 * @example lossShareAt(30) // 0.8409
 */
export const lossShareAt = (aboveK: number, power = LOSS_POWER): number =>
  (Math.max(LEAST_ABOVE_K, Math.abs(aboveK)) / LOSS_AT_K) ** power;
/** Nearer the room than this nothing is left to lose that could be told. */
const LEAST_ABOVE_K = 0.01;
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
  lossPower: number;
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
  const lossPower = inRange('lossPower', block.lossPower ?? LOSS_POWER, '', 0, 1);
  const capacity = bodyKg * metal.capacityJKgK * share;
  return {
    faceJK: FACE_SHARE * capacity,
    backJK: (1 - FACE_SHARE) * capacity,
    betweenWPerK: metal.conductivityWMK * PATH_M,
    lossWPerK,
    lossPower,
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
 * @example meanC({ faceJK: 90, backJK: 360, betweenWPerK: 60, lossWPerK: 0.4, lossPower: 0.25 }, { faceC: 90,
 *   backC: 80 }) // 82
 */
export const meanC = ({ faceJK, backJK }: BlockNodes, { faceC, backC }: MoldHeat): number =>
  (faceJK * faceC + backJK * backC) / (faceJK + backJK);

/** In one step it comes down by no more than about this share: within it the loss goes by the mean of the step. */
const STEP_SHARE = 0.2;

/**
 * Face and back after `seconds` without metal: two nodes, the back losing to the room by the quarter power of what it
 * is above it. In steps within which the loss in W/K is that of the step's mean, each of them in closed form by its two
 * rates of decay; `lostJ` adds up their integrals, so that stored + lost closes. Check: npm odex, and energy to 1e-9
 * (mold.test.ts). Biot number of a face, h R / k with 1500 W/m2K over 10 mm: 0.1 in aluminium (one lump is fair), 0.3
 * in iron (less so).
 * @example relax({ faceJK: 90, backJK: 360, betweenWPerK: 60, lossWPerK: 0.4, lossPower: 0 }, { faceC: 90,
 *   backC: 90 }, 600, 20, 2).heat // { faceC: 44.16, backC: 44.09 }
 */
export function relax(nodes: BlockNodes, from: MoldHeat, seconds: number, roomC: number, lossFactor = 1) {
  let heat = from;
  let lostJ = 0;
  for (let left = seconds; left > 0;) {
    const now = nodes.lossWPerK * lossFactor * lossShareAt(meanC(nodes, heat) - roomC, nodes.lossPower);
    const slowS = (nodes.faceJK + nodes.backJK) / Math.max(1e-9, now);
    const step = nodes.lossPower === 0 ? left : Math.min(left, Math.max(STEP_SHARE * slowS, left / MOST_STEPS));
    // What the back is above the room in the middle of the step says what it loses meanwhile.
    const guess = decayOf(nodes, now).backKs(heat, step, roomC) / step;
    const lossW = nodes.lossWPerK * lossFactor * lossShareAt(guess, nodes.lossPower);
    const decay = decayOf(nodes, lossW);
    lostJ += lossW === 0 ? 0 : lossW * decay.backKs(heat, step, roomC);
    heat = decay.after(heat, step, roomC);
    left -= step;
  }
  return { heat, lostJ };
}
const MOST_STEPS = 400;

/** How a block comes down to the room while it loses so much, W/K, with its two rates reckoned once. */
function decayOf({ faceJK, backJK, betweenWPerK: g }: Omit<BlockNodes, 'lossWPerK' | 'lossPower'>, lossWPerK: number) {
  // x' = A x for excess over the room: A = [[-a, a], [b, -(b + c)]].
  const [a, b, c] = [g / faceJK, g / backJK, lossWPerK / backJK];
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
