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
 * Funnels are milled about as deep whatever the head, and a little wider for heavy heads: common practice, no source.
 */
const FUNNEL_HEIGHT_M = 0.008;

/** The sprue of a cavity in soft lead, sized from the head's radius. */
export function sprueOf(solid: HeadSolid): Sprue {
  const r = Math.cbrt((3 * solid.volumeM3) / (4 * Math.PI));
  const topRadiusM = 0.0022 + 0.4 * r;
  const neckRadiusM = 0.0009 + 0.1 * r;
  const heightM = FUNNEL_HEIGHT_M;
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
