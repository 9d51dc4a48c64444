import { SOFT_LEAD, type Alloy } from '../metal/alloy.ts';
import { stableStepS } from './stable-step.ts';
import { enthalpyJKg, temperatureOf } from '../metal/enthalpy.ts';
import { rungeKuttaWithTotal } from '../numeric/runge-kutta.ts';
import { inRange } from '../quantity/check.ts';
import { J_PER_KWH } from '../quantity/units.ts';

export interface PotInput {
  leadKg: number;
  powerW: number;
  /** Loss to the room, W/K. */
  lossWPerK: number;
  fromC?: number;
  roomC?: number;
  toC: number;
  alloy?: Alloy;
}

export interface MeltResult {
  seconds: number;
  energyKWh: number;
  /** Seconds until everything is molten, where the way leads through the melting point. */
  moltenAtS: number;
  /** Where the bought heat went: into warming the solid, melting it, heating the melt, and the room. J. */
  shares: { solidJ: number; latentJ: number; liquidJ: number; lostJ: number };
}

/**
 * Time from cold to pouring temperature at full power, by the enthalpy method: dH/dt = P - UA (T - T_room), fourth
 * order
 * Runge-Kutta on the enthalpy with a step of 1 s at most, the last step cut by interpolation.
 * Range: 0.05 to 50 kg, 50 to 5000 W. Check: 20 lb, 700 W, 0.55 W/K is about 19 min.
 * @throws QuantityError out of range, or where the power cannot reach the temperature
 */
export function meltTime(input: PotInput): MeltResult {
  const alloy = input.alloy ?? SOFT_LEAD;
  const leadKg = inRange('leadKg', input.leadKg, 'kg', 0.05, 50);
  const powerW = inRange('powerW', input.powerW, 'W', 50, 5000);
  const lossWPerK = inRange('lossWPerK', input.lossWPerK, 'W/K', 0, 20);
  const toC = inRange('toC', input.toC, 'C', 20, 600);
  const fromC = inRange('fromC', input.fromC ?? 20, 'C', -20, 600);
  const roomC = inRange('roomC', input.roomC ?? 20, 'C', -20, 50);
  const none = { solidJ: 0, latentJ: 0, liquidJ: 0, lostJ: 0 };
  if (fromC >= toC) return { seconds: 0, energyKWh: 0, moltenAtS: 0, shares: none };
  const steadyC = roomC + powerW / Math.max(lossWPerK, 1e-12);
  inRange('toC', toC, 'C', -20, steadyC - 1);
  const start = enthalpyJKg(alloy, fromC);
  const target = enthalpyJKg(alloy, toC);
  const solid = enthalpyJKg(alloy, alloy.solidusC);
  const molten = enthalpyJKg(alloy, alloy.liquidusC + 1e-9);
  const temperature = temperatureOf(alloy);
  const lossW = (h: number) => lossWPerK * (temperature(h) - roomC);
  const rate = (loss: number) => (powerW - loss) / leadKg;
  const part = (from: number, to: number) => leadKg * Math.max(0, Math.min(to, target) - Math.max(from, start));
  const stepS = stableStepS(alloy, leadKg, lossWPerK);
  let h = start;
  let seconds = 0;
  let moltenAtS = 0;
  for (;;) {
    const { value: next } = rungeKuttaWithTotal(rate, lossW, h, stepS);
    if (h < molten && next >= molten) moltenAtS = seconds + (stepS * (molten - h)) / (next - h);
    if (next >= target) {
      seconds += (stepS * (target - h)) / (next - h);
      const boughtJ = powerW * seconds;
      const shares = { solidJ: part(-Infinity, solid), latentJ: part(solid, molten), liquidJ: part(molten, Infinity) };
      return {
        seconds,
        energyKWh: boughtJ / J_PER_KWH,
        moltenAtS,
        shares: { ...shares, lostJ: boughtJ - leadKg * (target - start) },
      };
    }
    h = next;
    seconds += stepS;
  }
}

/** Electricity to hold a pot at temperature, kWh: UA (T - T_room) times the time. */
export function holdingEnergyKWh(lossWPerK: number, potC: number, roomC: number, seconds: number): number {
  inRange('lossWPerK', lossWPerK, 'W/K', 0, 20);
  inRange('seconds', seconds, 's', 0, 1e7);
  return (Math.max(0, lossWPerK * (potC - roomC)) * seconds) / J_PER_KWH;
}
