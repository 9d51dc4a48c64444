import { leadEnthalpyJKg, leadStateAt } from '../metal/enthalpy.ts';
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
}

export interface MeltResult {
  seconds: number;
  energyKWh: number;
}

/**
 * Time from cold to pouring temperature at full power, by the enthalpy method: dH/dt = P - UA (T - T_room), fourth order
 * Runge-Kutta on the enthalpy with a step of 1 s, the last step cut by interpolation.
 * Range: 0.05 to 50 kg, 50 to 5000 W. Check: 20 lb, 700 W, 0.55 W/K is about 19 min.
 * @throws QuantityError out of range, or where the power cannot reach the temperature
 */
export function meltTime(input: PotInput): MeltResult {
  const leadKg = inRange('leadKg', input.leadKg, 'kg', 0.05, 50);
  const powerW = inRange('powerW', input.powerW, 'W', 50, 5000);
  const lossWPerK = inRange('lossWPerK', input.lossWPerK, 'W/K', 0, 20);
  const toC = inRange('toC', input.toC, 'C', 20, 600);
  const fromC = inRange('fromC', input.fromC ?? 20, 'C', -20, 600);
  const roomC = inRange('roomC', input.roomC ?? 20, 'C', -20, 50);
  if (fromC >= toC) return { seconds: 0, energyKWh: 0 };
  const steadyC = roomC + powerW / Math.max(lossWPerK, 1e-12);
  inRange('toC', toC, 'C', -20, steadyC - 1);
  const target = leadEnthalpyJKg(toC);
  const rate = (h: number) => (powerW - lossWPerK * (leadStateAt(h).temperatureC - roomC)) / leadKg;
  let h = leadEnthalpyJKg(fromC);
  let seconds = 0;
  for (;;) {
    const k1 = rate(h);
    const k2 = rate(h + k1 / 2);
    const k3 = rate(h + k2 / 2);
    const k4 = rate(h + k3);
    const next = h + (k1 + 2 * k2 + 2 * k3 + k4) / 6;
    if (next >= target) {
      seconds += (target - h) / (next - h);
      return { seconds, energyKWh: (powerW * seconds) / J_PER_KWH };
    }
    h = next;
    seconds += 1;
  }
}

/** Electricity to hold a pot at temperature, kWh: UA (T - T_room) times the time. */
export function holdingEnergyKWh(lossWPerK: number, potC: number, roomC: number, seconds: number): number {
  inRange('lossWPerK', lossWPerK, 'W/K', 0, 20);
  inRange('seconds', seconds, 's', 0, 1e7);
  return (Math.max(0, lossWPerK * (potC - roomC)) * seconds) / J_PER_KWH;
}
