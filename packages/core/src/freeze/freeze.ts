import { SOFT_LEAD, type Alloy } from '../metal/alloy.ts';
import { MOLD_METAL, type MoldMetal } from '../mold/block.ts';
import { countInRange, inRange } from '../quantity/check.ts';

/** Heat transfer between metal and mold, W/m2K: freshly sooted and bare aluminium. */
const SOOTED_W_M2K = 1500;
const BARE_W_M2K = 4000;
const SOOT_LIFE_SHOTS = 40;

/**
 * h(n) = h_bare - (h_bare - h_soot) exp(-n/40): soot wears off over the shots since smoking. W/m2K.
 * @example interfaceWPerM2K(0) // 1500
 */
export function interfaceWPerM2K(shotsSinceSmoked: number): number {
  countInRange('shotsSinceSmoked', shotsSinceSmoked, 0, 1e6);
  return BARE_W_M2K - (BARE_W_M2K - SOOTED_W_M2K) * Math.exp(-shotsSinceSmoked / SOOT_LIFE_SHOTS);
}

interface FreezeInput {
  /** Volume over cooled area, m. */
  modulusM: number;
  metalC: number;
  moldC: number;
  interfaceWPerM2K?: number;
  alloy?: Alloy;
  moldMetal?: MoldMetal;
}

/** How long metal takes to set, and what decides it. */
export interface Freezing {
  seconds: number;
  /**
   * `interface`: the skin between metal and mold; `mold`: a thick section heats the mold wall faster than it spreads.
   */
  rules: 'interface' | 'mold';
  interfaceS: number;
  chvorinovS: number;
  /** Share of the heat that is superheat, the rest being latent. */
  superheatShare: number;
}

/**
 * Time until metal in a metal mold is solid, seconds: the slower of interface-limited t = rho_liquid (L + c_l dT) (V/A)
 * / (h (T_m - T_mold)), which rules thin metal, and Chvorinov's t = B (V/A)^2 (1940), B = pi/4 [rho (L + c_l dT) / (T_m
 * - T_mold)]^2 / (k rho c)_mold, where the mold's surface saturates. T_m is the middle of the freezing range. Range:
 * metal to 600 C, mold -20 to 300 C and below T_m, modulus 0.05 to 20 mm. Checks: a 14.2 g ball at 371 C into a sooted
 * mold at 120 C takes 2.3 s, 0.9 g 0.9 s, 113 g 4.5 s.
 * @example freezing({ modulusM: 0.00224, metalC: 371, moldC: 120 }).rules // 'interface'
 */
export function freezing(input: FreezeInput): Freezing {
  const alloy = input.alloy ?? SOFT_LEAD;
  const modulusM = inRange('modulusM', input.modulusM, 'm', 5e-5, 0.02);
  const metalC = inRange('metalC', input.metalC, 'C', alloy.liquidusC, 600);
  const middleC = (alloy.liquidusC + alloy.solidusC) / 2;
  const moldC = inRange('moldC', input.moldC, 'C', -20, Math.min(300, middleC - 5));
  const h = inRange('interfaceWPerM2K', input.interfaceWPerM2K ?? SOOTED_W_M2K, 'W/m2K', 100, 50_000);
  const superheat = alloy.liquidJKgK * (metalC - alloy.liquidusC);
  const perVolume = alloy.liquidKgM3 * (alloy.latentJKg + superheat);
  const interfaceS = (perVolume * modulusM) / (h * (middleC - moldC));
  const { conductivityWMK, densityKgM3, capacityJKgK } = MOLD_METAL[input.moldMetal ?? 'aluminium'];
  const effusivity2 = conductivityWMK * densityKgM3 * capacityJKgK;
  const chvorinovS = ((Math.PI / 4) * (perVolume / (middleC - moldC)) ** 2 * modulusM ** 2) / effusivity2;
  return {
    seconds: Math.max(interfaceS, chvorinovS),
    rules: interfaceS >= chvorinovS ? 'interface' : 'mold',
    interfaceS,
    chvorinovS,
    superheatShare: superheat / (superheat + alloy.latentJKg),
  };
}

/**
 * Seconds until metal of this modulus has set in its mold.
 * @example freezeTimeS({ modulusM: 0.002, metalC: 371, moldC: 60 }) // 1.562
 */
export const freezeTimeS = (input: FreezeInput): number => freezing(input).seconds;

/**
 * A pull-out rod must turn in the first moments: skin enough to keep the hole, core still soft. Common practice, no
 * source.
 */
const ROD_FROM_SHARE = 0.15;
const ROD_TO_SHARE = 0.45;

/**
 * When to twist a pull-out rod, seconds after the pour, for a head that freezes in `headS`.
 * @example rodWindowS(2) // { fromS: 0.3, toS: 0.9 }
 */
export const rodWindowS = (headS: number): { fromS: number; toS: number } => ({
  fromS: ROD_FROM_SHARE * headS,
  toS: ROD_TO_SHARE * headS,
});
