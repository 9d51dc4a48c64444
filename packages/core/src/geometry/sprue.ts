import { LEAD_SOLID_AT_MELTING_KG_M3 } from '../metal/materials.ts';
import type { HeadSolid } from './solid.ts';

/** The funnel of metal left on the gate, as a frustum: wide at the top, open to the air there. */
export interface Sprue {
  topRadiusM: number;
  neckRadiusM: number;
  heightM: number;
  volumeM3: number;
  /** Cooled by the mold on its side only. */
  modulusM: number;
  massKg: number;
}

/**
 * Gates feed: a head shrinks by 3.4 % while it sets, and what it lacks comes out of the sprue. So the sprue sets a
 * little later than its head. Common practice, no source.
 */
const SETS_LATER = 1.05;
/** A funnel narrows to this share of its top at the gate. Common practice, no source. */
const NECK_SHARE = 0.7;
/** Funnels are milled at least so wide and deep, however small the head. Common practice, no source. */
const LEAST_RADIUS_M = 0.0025;
const LEAST_HEIGHT_M = 0.006;
/** Deeper for heavy heads, by their modulus. */
const HEIGHT_BY_MODULUS = 1.6;

/**
 * The sprue of a cavity in soft lead: as wide as it must be to set after the head it feeds, whatever that weighs. Its
 * side alone is cooled: with neck share k, V / side = R h (1 + k + k^2) / (3 (1 + k) sqrt(h^2 + (1 - k)^2 R^2)).
 * @example sprueOf(cavitySolid('ball', 0.0142)).massKg // 0.003974
 */
export function sprueOf(solid: HeadSolid): Sprue {
  const wantedM = SETS_LATER * solid.modulusM;
  const heightM = Math.max(LEAST_HEIGHT_M, HEIGHT_BY_MODULUS * wantedM);
  const k = NECK_SHARE;
  const a = (1 + k + k * k) / (3 * (1 + k));
  const room = a * a * heightM * heightM - (1 - k) ** 2 * wantedM * wantedM;
  const topRadiusM = Math.max(LEAST_RADIUS_M, (wantedM * heightM) / Math.sqrt(room));
  const neckRadiusM = k * topRadiusM;
  const sum = topRadiusM + neckRadiusM;
  const volumeM3 = (Math.PI * heightM * (sum * sum - topRadiusM * neckRadiusM)) / 3;
  const side = Math.PI * sum * Math.hypot(heightM, topRadiusM - neckRadiusM);
  return {
    topRadiusM,
    neckRadiusM,
    heightM,
    volumeM3,
    modulusM: volumeM3 / side,
    massKg: volumeM3 * LEAD_SOLID_AT_MELTING_KG_M3,
  };
}
