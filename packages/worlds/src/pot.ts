import { chance } from './chance.ts';
import { leadCelsius } from './lead.ts';

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

/** Heats up so much metal from the room and goes on for a while at the mark; what a probe says, every few seconds. */
export function heatUp(
  pot: WorldPot,
  of: { leadKg: number; setC: number; roomC: number; seconds: number; everyS: number; seed: number },
) {
  const { normal } = chance(of.seed);
  let wallC = of.roomC;
  let joules = 0;
  let probeC = of.roomC;
  let on = true;
  let due = 0;
  let pouringAtS: number | null = null;
  const readings: { atS: number; temperatureC: number }[] = [];
  const wetted = Math.min(1, 0.35 + (0.65 * of.leadKg) / pot.capacityKg);
  for (let t = 0; t < of.seconds; t += STEP_S) {
    const metalC = leadCelsius(joules);
    const into = pot.wallWPerK * wetted * (wallC - metalC);
    wallC += ((on ? pot.powerW : 0) - into - pot.lossWPerK * (wallC - of.roomC)) * (STEP_S / pot.crucibleJPerK);
    joules += (into * STEP_S) / of.leadKg;
    if (on && metalC > of.setC) on = false;
    else if (!on && metalC < of.setC - pot.swingK) on = true;
    probeC += ((metalC - probeC) * STEP_S) / pot.probeLagS;
    if (pouringAtS === null && metalC >= 371) pouringAtS = t;
    if (t >= due) {
      readings.push({ atS: due, temperatureC: probeC + normal(pot.noiseK) });
      due += of.everyS;
    }
  }
  return { readings, pouringAtS };
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
