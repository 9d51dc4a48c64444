import { SOFT_LEAD, withHolder, type Alloy } from '../metal/alloy.ts';
import { stableStepS } from './stable-step.ts';
import { enthalpyJKg, liquidusJKg, solidusJKg, temperatureOf } from '../metal/enthalpy.ts';
import { rungeKuttaWithTotal } from '../numeric/runge-kutta.ts';
import { inRange } from '../quantity/check.ts';
import { J_PER_KWH } from '../quantity/units.ts';

export interface PotInput {
  leadKg: number;
  powerW: number;
  /** Loss to the room, W/K. */
  lossWPerK: number;
  /** What crucible and element hold, J/K; left out: nothing. */
  crucibleJPerK?: number;
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
  /** Where the bought heat went: warming the solid, melting it, heating the melt, the crucible, and the room. J. */
  shares: { solidJ: number; latentJ: number; liquidJ: number; crucibleJ: number; lostJ: number };
}

/**
 * Time from cold to pouring temperature at full power, by the enthalpy method: dH/dt = P - UA (T - T_room), metal and
 * crucible together, fourth order Runge-Kutta on the enthalpy with a step of 1 s at most, the last step cut by
 * interpolation. Range: 0.05 to 50 kg, 50 to 5000 W. Checks: 20 lb in a pot of 700 W, 0.41 W/K and 540 J/K 20 to 24
 * min, 1.6 kg in it 8 to 11, 0.8 kg 6 to 9.
 * @throws QuantityError out of range, or where the power cannot reach the temperature
 * @example meltTime({ leadKg: 9.07, powerW: 700, lossWPerK: 0.41, crucibleJPerK: 540, toC: 371 }).seconds // 1363
 */
export function meltTime(input: PotInput): MeltResult {
  const alloy = input.alloy ?? SOFT_LEAD;
  const leadKg = inRange('leadKg', input.leadKg, 'kg', 0.05, 50);
  const powerW = inRange('powerW', input.powerW, 'W', 50, 5000);
  const lossWPerK = inRange('lossWPerK', input.lossWPerK, 'W/K', 0, 20);
  const toC = inRange('toC', input.toC, 'C', 20, 600);
  const fromC = inRange('fromC', input.fromC ?? 20, 'C', -20, 600);
  const roomC = inRange('roomC', input.roomC ?? 20, 'C', -20, 50);
  const none = { solidJ: 0, latentJ: 0, liquidJ: 0, crucibleJ: 0, lostJ: 0 };
  const crucibleJPerK = inRange('crucibleJPerK', input.crucibleJPerK ?? 0, 'J/K', 0, 20_000);
  if (fromC >= toC) return { seconds: 0, energyKWh: 0, moltenAtS: 0, shares: none };
  const steadyC = roomC + powerW / Math.max(lossWPerK, 1e-12);
  inRange('toC', toC, 'C', -20, steadyC - 1);
  const inPot = withHolder(alloy, crucibleJPerK / leadKg);
  const start = enthalpyJKg(inPot, fromC);
  const target = enthalpyJKg(inPot, toC);
  const molten = enthalpyJKg(inPot, inPot.liquidusC + 1e-9);
  const temperature = temperatureOf(inPot);
  const lossW = (h: number) => lossWPerK * (temperature(h) - roomC);
  const rate = (loss: number) => (powerW - loss) / leadKg;
  const stepS = stableStepS(inPot, leadKg, lossWPerK);
  let h = start;
  let seconds = 0;
  let moltenAtS = 0;
  for (;;) {
    const { value: next } = rungeKuttaWithTotal(rate, lossW, h, stepS);
    if (h < molten && next >= molten) moltenAtS = seconds + (stepS * (molten - h)) / (next - h);
    if (next >= target) {
      seconds += (stepS * (target - h)) / (next - h);
      const boughtJ = powerW * seconds;
      const lostJ = boughtJ - leadKg * (target - start);
      const crucibleJ = crucibleJPerK * (toC - fromC);
      return {
        seconds,
        energyKWh: boughtJ / J_PER_KWH,
        moltenAtS,
        shares: { ...sharesOf(alloy, leadKg, fromC, toC), crucibleJ, lostJ },
      };
    }
    h = next;
    seconds += stepS;
  }
}

/** What metal takes up on its way: as a solid, in melting, as a melt, J. */
function sharesOf(alloy: Alloy, leadKg: number, fromC: number, toC: number) {
  const [start, target] = [enthalpyJKg(alloy, fromC), enthalpyJKg(alloy, toC)];
  const [solid, molten] = [solidusJKg(alloy), liquidusJKg(alloy)];
  const part = (from: number, to: number) => leadKg * Math.max(0, Math.min(to, target) - Math.max(from, start));
  return { solidJ: part(-Infinity, solid), latentJ: part(solid, molten), liquidJ: part(molten, Infinity) };
}

/**
 * Electricity to hold a pot at temperature, kWh: UA (T - T_room) times the time.
 * @example holdingEnergyKWh({ lossWPerK: 0.5, potC: 371, roomC: 21, seconds: 3600 }) // 0.175
 */
export function holdingEnergyKWh(of: { lossWPerK: number; potC: number; roomC: number; seconds: number }): number {
  const { lossWPerK, potC, roomC, seconds } = of;
  inRange('lossWPerK', lossWPerK, 'W/K', 0, 20);
  inRange('seconds', seconds, 's', 0, 1e7);
  return (Math.max(0, lossWPerK * (potC - roomC)) * seconds) / J_PER_KWH;
}
