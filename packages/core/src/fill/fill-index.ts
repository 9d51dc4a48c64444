import { interfaceWPerM2K } from '../freeze/freeze.ts';
import type { HeadSolid } from '../geometry/solid.ts';
import { SOFT_LEAD, type Alloy } from '../metal/alloy.ts';
import { LEAD_SURFACE_TENSION_N_M } from '../metal/materials.ts';
import { inRange } from '../quantity/check.ts';

/** How the metal gets in: poured into the gate, or the gate pressed to the spout. */
export type Pouring = 'gravity' | 'inject';
export type Stream = 'quick' | 'slow' | 'thin';

/** Everything at the bench that decides whether a cavity fills. */
export interface FillSettings {
  metalC: number;
  moldC: number;
  roomC: number;
  /** Hooks laid in and warmed with the mold, or cold from the box. */
  hookWarm: boolean;
  shotsSinceSmoked: number;
  pouring: Pouring;
  /** Level of the metal above the spout, m: the head when it is injected. */
  potLevelM: number;
  /** How far the mold is tipped so that the far end lies lower, degrees. */
  tiltDeg: number;
  stream: Stream;
  alloy: Alloy;
  /** Dross and dirt drawn in with the metal, 0 clean to 1 dirty. */
  dirt: number;
}

export const FILL_DEFAULTS: FillSettings = {
  metalC: 371,
  moldC: 120,
  roomC: 20,
  hookWarm: true,
  shotsSinceSmoked: 0,
  pouring: 'gravity',
  potLevelM: 0.06,
  tiltDeg: 0,
  stream: 'quick',
  alloy: SOFT_LEAD,
  dirt: 0,
};

/**
 * How a bench reads the index: the heat that the mold has, hooks as they come out of the box.
 * @example benchSettings({ metalC: 371, moldC: 60, roomC: 20, shotsSinceSmoked: 5 }).hookWarm // false
 */
export const benchSettings = (
  of: Pick<FillSettings, 'metalC' | 'moldC' | 'roomC' | 'shotsSinceSmoked'>,
): FillSettings => ({ ...FILL_DEFAULTS, ...of, hookWarm: false });

export interface FillCavity {
  solid: HeadSolid;
  /** Height of the funnel, m: the head of metal under gravity. */
  sprueHeightM: number;
  /** Wire of the shank, m. */
  wireM: number;
}

/** The index with the terms it is made of: what a maker may ask about. */
interface FillIndex {
  index: number;
  verdict: 'short expected' | 'marginal' | 'fills';
  speedMS: number;
  headM: number;
  /** Seconds until the thinnest section stops running. */
  stopS: number;
  reachM: number;
  flowLengthM: number;
  thinM: number;
  interfaceWPerM2K: number;
  /** Sharpest edge that the metal's pressure presses out, radius in m. */
  sharpestM: number;
}

const G = 9.80665;
/**
 * Discharge of a gate by the stream given to it; a thin stream cannot keep the gate full. Common practice, no source.
 */
const DISCHARGE: Record<Stream, number> = { quick: 0.7, slow: 0.5, thin: 0.3 };
/** Tipping lets the metal run straight at the far end: up to this much of the path saved at 45 degrees. No source. */
const TILT_SAVES = 0.2;
/**
 * Pasty metal runs less far at the same heat: in fluidity spirals lead-antimony falls to about half between the pure
 * metal and the long range near 3 %, and rises again to the eutectic. From memory; together with the smaller solid
 * share it may run, this gives that fall.
 */
const PASTY_COSTS = 0.4;
/** Dirt thickens the stream: dirty metal runs this much less far. Common practice, no source. */
const DIRT_COSTS = 0.35;

/**
 * Will it fill? v = C_d sqrt(2 g H); the thinnest section, metal of bore D round a wire d, stops running after t = rho
 * (c_l dT + phi L) A / (h [pi D (T_m - T_mold) + pi d (T_m - T_hook)]), which for a hook as warm as the mold is the
 * plain M_thin = (D - d)/4; reach = v t, less for dirty and for pasty metal; index = reach / flow length. A cold shank
 * chills the thinnest metal from inside. Below 1 a short is expected, 1 to 1.5 is marginal. Sharpest radius = gamma /
 * (rho g H). Range: metal to 520 C and above its liquidus, mold -10 to 260 C, tilt 0 to 60 degrees. Interface-limited;
 * no source for C_d and phi, which stand for a class of metal and gate, not for this one.
 * @example fillIndex(dart, FILL_DEFAULTS).index // 3.052
 */
export function fillIndex({ solid, sprueHeightM, wireM }: FillCavity, settings: FillSettings): FillIndex {
  const { alloy } = settings;
  const middleC = (alloy.liquidusC + alloy.solidusC) / 2;
  const metalC = inRange('metalC', settings.metalC, 'C', alloy.liquidusC, 520);
  const moldC = inRange('moldC', settings.moldC, 'C', -10, Math.min(260, middleC - 5));
  const roomC = inRange('roomC', settings.roomC, 'C', -20, 50);
  const tiltDeg = inRange('tiltDeg', settings.tiltDeg, 'degrees', 0, 60);
  const potLevelM = inRange('potLevelM', settings.potLevelM, 'm', 0.005, 0.5);
  const dirt = inRange('dirt', settings.dirt, '', 0, 1);
  const bore = Math.max(solid.thinnestM, wireM + 2e-4);
  const wire = inRange('wireM', wireM, 'm', 1e-4, 0.01);
  const h = interfaceWPerM2K(settings.shotsSinceSmoked);

  const tilt = Math.sin((tiltDeg * Math.PI) / 180);
  const flowLengthM = solid.flowLengthM * (1 - TILT_SAVES * Math.min(1, tilt / Math.SQRT1_2));
  const gravityM = sprueHeightM + solid.flowLengthM * tilt;
  const headM = settings.pouring === 'inject' ? potLevelM + gravityM : gravityM;
  const speedMS = DISCHARGE[settings.stream] * Math.sqrt(2 * G * headM);

  const heat = alloy.liquidJKgK * (metalC - alloy.liquidusC) + alloy.runsUntilSolidShare * alloy.latentJKg;
  const area = (bore ** 2 - wire ** 2) / 4;
  const hookC = settings.hookWarm ? moldC : roomC;
  const cooling = h * (bore * (middleC - moldC) + wire * (middleC - hookC));
  const stopS = (alloy.liquidKgM3 * heat * area) / cooling;
  const reachM = speedMS * stopS * (1 - DIRT_COSTS * dirt) * (1 - PASTY_COSTS * alloy.pasty);
  const index = reachM / flowLengthM;
  return {
    index,
    verdict: index < 1 ? 'short expected' : index < 1.5 ? 'marginal' : 'fills',
    speedMS,
    headM,
    stopS,
    reachM,
    flowLengthM,
    thinM: (bore - wire) / 4,
    interfaceWPerM2K: h,
    sharpestM: LEAD_SURFACE_TENSION_N_M / (alloy.liquidKgM3 * G * headM),
  };
}
