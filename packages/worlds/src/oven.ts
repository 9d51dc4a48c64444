import { chance } from './chance.ts';

/**
 * A small oven as it may really be, which the models do not know: a glowing element, air and walls apart, a thermostat
 * that feels late, a back that is hotter than its front, heads that see the walls as well as the air. Shares no
 * function with the core.
 */
export interface WorldOven {
  powerW: number;
  elementJK: number;
  airJK: number;
  wallsJK: number;
  elementToAirWPerK: number;
  elementToWallsWPerK: number;
  airToWallsWPerK: number;
  wallsToRoomWPerK: number;
  /** What the thermostat takes for its mark, and how late and how coarsely it does. */
  offK: number;
  feelsLateS: number;
  swingK: number;
  /** Of what a head sees, this share is the element: some hang behind a tray. */
  elementSeen: number;
  /** The back is warmer than the front by twice this. */
  zoneK: number;
  noiseK: number;
}

/** Heads that hang in it, all alike, half of them behind. */
interface WorldLoad {
  heads: number;
  leadKg: number;
  steelKg: number;
  surfaceM2: number;
}

/** A bake: from cold, or hot first and loaded through an open door; what of it was opened in between. */
interface WorldBake {
  setC: number;
  roomC: number;
  seconds: number;
  preheated?: boolean;
  doors?: readonly { fromS: number; toS: number }[];
  load?: WorldLoad;
}

const STEP_S = 0.5;
const PREHEAT_S = 2400;
const LOADED_THROUGH_THE_DOOR_S = 20;
/** Convection and radiation onto a head, W/m2K. */
const AIR_W_M2K = 15;
const WALLS_W_M2K = 11;

/** Air in the middle and the metal of the slowest head, every second after the door was shut. */
export function ovenAtWork(oven: WorldOven, of: WorldBake): { airC: number; metalC: number }[] {
  let [element, air, walls, feels] = [of.roomC, of.roomC, of.roomC, of.roomC];
  let on = true;
  let [front, back] = [of.roomC, of.roomC];
  const step = (open: boolean, load?: WorldLoad) => {
    if (on && feels > of.setC + oven.offK + oven.swingK / 2) on = false;
    else if (!on && feels < of.setC + oven.offK - oven.swingK / 2) on = true;
    feels += ((air - feels) * STEP_S) / oven.feelsLateS;
    const warm = 1 + 0.0012 * Math.max(0, element - 200);
    const toAir = oven.elementToAirWPerK * warm * (element - air);
    const toWalls = oven.elementToWallsWPerK * warm * (element - walls);
    const between = oven.airToWallsWPerK * (air - walls);
    const out = open ? 22 * (air - of.roomC) : 0;
    let taken = 0;
    let fromWalls = 0;
    if (load) {
      const heatJK = 133 * load.leadKg + 475 * load.steelKg;
      const onto = (head: number, zoneK: number) => {
        const a = AIR_W_M2K * load.surfaceM2 * (air + zoneK - head);
        const seen = walls + oven.elementSeen * (element - walls);
        const w = WALLS_W_M2K * load.surfaceM2 * (seen + zoneK - head);
        taken += 0.5 * load.heads * a;
        fromWalls += 0.5 * load.heads * w;
        return head + ((a + w) * STEP_S) / heatJK;
      };
      front = onto(front, -oven.zoneK);
      back = onto(back, oven.zoneK);
    }
    element += (((on ? oven.powerW : 0) - toAir - toWalls) * STEP_S) / oven.elementJK;
    air += ((toAir - between - out - taken) * STEP_S) / oven.airJK;
    walls += ((toWalls + between - fromWalls - oven.wallsToRoomWPerK * (walls - of.roomC)) * STEP_S) / oven.wallsJK;
  };
  if (of.preheated) {
    for (let t = 0; t < PREHEAT_S; t += STEP_S) step(false);
    for (let t = 0; t < LOADED_THROUGH_THE_DOOR_S; t += STEP_S) step(true);
  }
  const every: { airC: number; metalC: number }[] = [];
  for (let t = 0; t < of.seconds; t += STEP_S) {
    if (Number.isInteger(t)) every.push({ airC: air, metalC: Math.min(front, back) });
    step(
      (of.doors ?? []).some(({ fromS, toS }) => fromS <= t && t < toS),
      of.load,
    );
  }
  return every;
}

/** An empty run from cold with a probe in the middle of it. */
export function emptyRun(
  oven: WorldOven,
  of: { setC: number; roomC: number; seconds: number; everyS: number; seed: number },
) {
  const { normal } = chance(of.seed);
  return ovenAtWork(oven, of).flatMap(({ airC }, atS) =>
    atS % of.everyS === 0 ? [{ at: 1000 * atS, celsius: airC + normal(oven.noiseK) }] : [],
  );
}

/** Ovens that differ in everything. */
export const WORLD_OVENS: WorldOven[] = [
  {
    ...{
      powerW: 1400,
      elementJK: 220,
      airJK: 120,
      wallsJK: 1700,
      offK: 2,
      feelsLateS: 12,
      swingK: 7,
      zoneK: 1,
      elementSeen: 0.09,
    },
    ...{ elementToAirWPerK: 1.1, elementToWallsWPerK: 3.4, airToWallsWPerK: 9, wallsToRoomWPerK: 3.0, noiseK: 0.5 },
  },
  {
    ...{
      powerW: 1100,
      elementJK: 160,
      airJK: 90,
      wallsJK: 1250,
      offK: -6,
      feelsLateS: 20,
      swingK: 10,
      zoneK: 2,
      elementSeen: 0.07,
    },
    ...{ elementToAirWPerK: 0.9, elementToWallsWPerK: 3.0, airToWallsWPerK: 10, wallsToRoomWPerK: 2.4, noiseK: 0.8 },
  },
  {
    ...{
      powerW: 1800,
      elementJK: 320,
      airJK: 160,
      wallsJK: 2600,
      offK: 5,
      feelsLateS: 8,
      swingK: 5,
      zoneK: 1,
      elementSeen: 0.06,
    },
    ...{ elementToAirWPerK: 1.5, elementToWallsWPerK: 4.2, airToWallsWPerK: 13, wallsToRoomWPerK: 3.6, noiseK: 0.5 },
  },
  {
    ...{
      powerW: 1300,
      elementJK: 260,
      airJK: 110,
      wallsJK: 2300,
      offK: 0,
      feelsLateS: 15,
      swingK: 8,
      zoneK: 1.5,
      elementSeen: 0.12,
    },
    ...{ elementToAirWPerK: 1.2, elementToWallsWPerK: 3.2, airToWallsWPerK: 11, wallsToRoomWPerK: 2.7, noiseK: 0.6 },
  },
];
