import { chance } from './chance.ts';
import { leadCelsius, leadJoules } from './lead.ts';

/**
 * A pot as it may really be, which the models do not know: crucible and metal apart, the element in the crucible, a
 * thermostat at the crucible's wall, a probe that follows slowly. Shares no function with the core.
 */
export interface WorldPot {
  powerW: number;
  lossWPerK: number;
  crucibleJPerK: number;
  /** From the wall into the metal, W/K at full; a low pot wets less of it. */
  wallWPerK: number;
  capacityKg: number;
  swingK: number;
  probeLagS: number;
  noiseK: number;
}

const STEP_S = 0.05;

/** What happens to a pot: metal out, metal back in. */
interface Work {
  leadKg: number;
  setC: number;
  roomC: number;
  seconds: number;
  everyS: number;
  takes?: readonly { atS: number; kg: number }[];
  feeds?: readonly { atS: number; kg: number }[];
}
/** Fed metal is warm from lying beside the pot. */
const FED_C = 60;

/** A pot from the room on, through an evening: how hot its metal is every few seconds. */
export function potAtWork(pot: WorldPot, of: Work): number[] {
  let wallC = of.roomC;
  let leadKg = of.leadKg;
  let joules = leadJoules(of.roomC);
  let on = true;
  let due = 0;
  const [takes, feeds] = [[...(of.takes ?? [])], [...(of.feeds ?? [])]];
  const every: number[] = [];
  for (let t = 0; t < of.seconds; t += STEP_S) {
    while (takes[0] && takes[0].atS <= t) leadKg = Math.max(0.3, leadKg - takes.shift()!.kg);
    while (feeds[0] && feeds[0].atS <= t) {
      const { kg } = feeds.shift()!;
      joules = (leadKg * joules + kg * leadJoules(FED_C)) / (leadKg + kg);
      leadKg += kg;
    }
    const metalC = leadCelsius(joules);
    const wetted = Math.min(1, 0.35 + (0.65 * leadKg) / pot.capacityKg);
    const into = pot.wallWPerK * wetted * (wallC - metalC);
    wallC += ((on ? pot.powerW : 0) - into - pot.lossWPerK * (wallC - of.roomC)) * (STEP_S / pot.crucibleJPerK);
    joules += (into * STEP_S) / leadKg;
    if (on && metalC > of.setC) on = false;
    else if (!on && metalC < of.setC - pot.swingK) on = true;
    if (t >= due) {
      every.push(metalC);
      due += of.everyS;
    }
  }
  return every;
}

/** A heat-up from the room and a while at the mark: what a slow, noisy probe says, and when it pours. */
export function heatUp(pot: WorldPot, of: Work & { seed: number }) {
  const { normal } = chance(of.seed);
  const metal = potAtWork(pot, { ...of, everyS: 1 });
  let probeC = of.roomC;
  const readings: { atS: number; temperatureC: number }[] = [];
  metal.forEach((metalC, atS) => {
    probeC += (metalC - probeC) * (1 - Math.exp(-1 / pot.probeLagS));
    if (atS % of.everyS === 0) readings.push({ atS, temperatureC: probeC + normal(pot.noiseK) });
  });
  const pouring = metal.findIndex((metalC) => metalC >= 371);
  return { readings, pouringAtS: pouring < 0 ? null : pouring };
}

/** Pots that differ in everything. */
export const WORLD_POTS: WorldPot[] = [
  {
    powerW: 655,
    lossWPerK: 0.46,
    crucibleJPerK: 420,
    wallWPerK: 60,
    capacityKg: 9,
    swingK: 7,
    probeLagS: 6,
    noiseK: 2,
  },
  {
    powerW: 745,
    lossWPerK: 0.38,
    crucibleJPerK: 1000,
    wallWPerK: 45,
    capacityKg: 9,
    swingK: 9,
    probeLagS: 10,
    noiseK: 2,
  },
  { powerW: 690, lossWPerK: 0.6, crucibleJPerK: 700, wallWPerK: 80, capacityKg: 9, swingK: 5, probeLagS: 4, noiseK: 2 },
  {
    powerW: 610,
    lossWPerK: 0.33,
    crucibleJPerK: 560,
    wallWPerK: 50,
    capacityKg: 9,
    swingK: 8,
    probeLagS: 8,
    noiseK: 2,
  },
];
