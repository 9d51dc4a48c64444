import { stableStepS } from './stable-step.ts';
import { SOFT_LEAD, withHolder, type Alloy } from '../metal/alloy.ts';
import { enthalpyJKg, stateAt, temperatureOf } from '../metal/enthalpy.ts';
import { rungeKuttaWithTotal } from '../numeric/runge-kutta.ts';
import { inRange } from '../quantity/check.ts';

/** A pot as heat sees it. */
export interface PotBody {
  /** Heating power while the thermostat is on, W. */
  powerW: number;
  /** Loss to the room, W/K. */
  lossWPerK: number;
  /** What crucible and element hold, J/K; they are as hot as the metal. Left out: nothing. */
  crucibleJPerK?: number;
}

/** What happens to a pot at a moment: metal in, metal out, the dial turned. */
export type PotEvent =
  | { atS: number; kind: 'add'; kg: number; fromC: number }
  | { atS: number; kind: 'take'; kg: number }
  | { atS: number; kind: 'dial'; setC: number };

export interface PotRun {
  pot: PotBody;
  leadKg: number;
  fromC: number;
  roomC: number;
  /** Where the thermostat switches off at the start, C; it switches on again `swingK` lower. */
  setC: number;
  swingK?: number;
  seconds: number;
  events?: readonly PotEvent[];
  alloy?: Alloy;
  /** Seconds between points of the trace. */
  everyS?: number;
}

export interface PotPoint {
  atS: number;
  temperatureC: number;
  moltenShare: number;
  leadKg: number;
  heating: boolean;
}

export interface PotTrace {
  points: PotPoint[];
  /** Heat bought, lost to the room, brought in by metal and taken out with it, J; with the stored heat they close. */
  boughtJ: number;
  lostJ: number;
  addedJ: number;
  takenJ: number;
  storedJ: number;
  /** Seconds that the heater was on. */
  heatingS: number;
}

/**
 * A thermostat of a casting pot lets the metal fall by about this before it heats again. Common practice, no source.
 */
export const THERMOSTAT_SWING_K = 8;
/** Less metal than this is a dry pot. */
export const DRY_KG = 0.05;

/**
 * A pot through time by the enthalpy method: m dh/dt + C dT/dt = P (on or off) - UA (T - T_room), Runge-Kutta on
 * enthalpy and loss together with a step of 1 s at most, so that the energy closes by construction of the step and not
 * by luck. Additions mix at once; what is taken leaves with the heat of the metal, the crucible keeps its own. Range:
 * 0.05 to 50 kg, up to 24 h.
 * @throws QuantityError out of range, or where more is taken than is there
 * @example simulatePot({ pot: { powerW: 0, lossWPerK: 0.55 }, leadKg: 4, fromC: 400, roomC: 20, setC: 600,
 *   seconds: 300 }).points[1].temperatureC // 396.5
 */
export function simulatePot(run: PotRun): PotTrace {
  const alloy = run.alloy ?? SOFT_LEAD;
  const powerW = inRange('powerW', run.pot.powerW, 'W', 0, 5000);
  const lossWPerK = inRange('lossWPerK', run.pot.lossWPerK, 'W/K', 0, 20);
  const roomC = inRange('roomC', run.roomC, 'C', -20, 50);
  const seconds = inRange('seconds', run.seconds, 's', 0, 86_400);
  const swingK = inRange('swingK', run.swingK ?? THERMOSTAT_SWING_K, 'K', 0, 80);
  const everyS = inRange('everyS', run.everyS ?? 10, 's', 1, 3600);
  const crucibleJPerK = inRange('crucibleJPerK', run.pot.crucibleJPerK ?? 0, 'J/K', 0, 20_000);
  let leadKg = inRange('leadKg', run.leadKg, 'kg', DRY_KG, 50);
  let setC = inRange('setC', run.setC, 'C', 20, 600);
  // Metal and crucible as one: its enthalpy a kilogram of metal, both counted from 20 C.
  let inPot = withHolder(alloy, crucibleJPerK / leadKg);
  let temperature = temperatureOf(inPot);
  const lossW = (enthalpy: number) => lossWPerK * (temperature(enthalpy) - roomC);
  const rate = (loss: number) => (watts - loss) / leadKg;
  let watts = 0;
  let h = enthalpyJKg(inPot, inRange('fromC', run.fromC, 'C', -20, 600));
  const startJ = leadKg * h;
  const events = [...(run.events ?? [])].sort((a, b) => a.atS - b.atS);
  const trace: PotTrace = { points: [], boughtJ: 0, lostJ: 0, addedJ: 0, takenJ: 0, storedJ: 0, heatingS: 0 };
  let heating = temperature(h) < setC;
  let next = 0;

  /** So much metal from now on, with so much heat in it and its crucible. */
  const hold = (kg: number, joules: number) => {
    leadKg = kg;
    h = joules / kg;
    inPot = withHolder(alloy, crucibleJPerK / kg);
    temperature = temperatureOf(inPot);
  };
  const happen = (event: PotEvent) => {
    if (event.kind === 'dial') {
      setC = inRange('setC', event.setC, 'C', 20, 600);
    } else if (event.kind === 'add') {
      const kg = inRange('added', event.kg, 'kg', 0, 50);
      const cold = enthalpyJKg(alloy, event.fromC);
      hold(leadKg + kg, leadKg * h + kg * cold);
      trace.addedJ += kg * cold;
    } else {
      const kg = inRange('taken', event.kg, 'kg', 0, Math.max(0, leadKg - DRY_KG));
      const metalJKg = h - (crucibleJPerK / leadKg) * (temperature(h) - 20);
      hold(leadKg - kg, leadKg * h - kg * metalJKg);
      trace.takenJ += kg * metalJKg;
    }
  };
  const point = (atS: number) => {
    const { temperatureC, moltenShare } = stateAt(inPot, h);
    trace.points.push({ atS, temperatureC, moltenShare, leadKg, heating });
  };

  let due = 0;
  for (let t = 0; t < seconds;) {
    while (next < events.length && events[next]!.atS <= t) happen(events[next++]!);
    if (t >= due) {
      point(t);
      due += everyS;
    }
    const temperatureC = temperature(h);
    if (heating && temperatureC >= setC) heating = false;
    else if (!heating && temperatureC <= setC - swingK) heating = true;
    const dt = Math.min(stableStepS(inPot, leadKg, lossWPerK), seconds - t, (events[next]?.atS ?? Infinity) - t);
    watts = heating ? powerW : 0;
    const after = rungeKuttaWithTotal(rate, lossW, h, dt);
    h = after.value;
    trace.lostJ += after.total;
    trace.boughtJ += watts * dt;
    if (heating) trace.heatingS += dt;
    t += dt;
  }
  while (next < events.length && events[next]!.atS <= seconds) happen(events[next++]!);
  point(seconds);
  trace.storedJ = leadKg * h - startJ;
  return trace;
}
