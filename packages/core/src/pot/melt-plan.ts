import { SOFT_LEAD, type Alloy } from '../metal/alloy.ts';
import { figure, fitted, given, type Basis, type Figure, type WhyInput } from '../quantity/figure.ts';
import { J_PER_KWH } from '../quantity/units.ts';
import { simulatePot, type PotEvent, type PotPoint } from './simulate.ts';
import { meltTime } from './time-to-pour.ts';

/** How the dial is used. Full, then down: quicker; left at its pouring mark: nothing to forget. */
export type DialSchool = 'full then down' | 'left at the mark';

export interface MeltPlanInput {
  leadKg: number;
  fromC: number;
  roomC: number;
  pourC: number;
  powerW: number;
  lossWPerK: number;
  /** Whether power and loss are fitted to this pot's own readings, and how sure they are. */
  basis: Basis;
  powerSdW: number;
  lossSdWPerK: number;
  school: DialSchool;
  alloy?: Alloy;
}

export interface MeltPlan {
  ready: Figure;
  /** When to turn the dial down, s; null in the school that leaves it. */
  turnDown: Figure | null;
  /** When everything is molten: skim, flux, stir. */
  skim: Figure;
  energy: Figure;
  points: PotPoint[];
}

/** Turned down this much before it is there: what heat is still in element and wall carries it on. No source. */
const COAST_K = 6;
const SHOWN_AFTER_S = 900;

const band = (input: MeltPlanInput, of: (powerW: number, lossWPerK: number) => number) => {
  const spread =
    input.basis === 'given' ? [0.1 * input.powerW, 0.25 * input.lossWPerK] : [input.powerSdW, input.lossSdWPerK];
  const [dp, dl] = [2 * spread[0]!, 2 * spread[1]!];
  return {
    low: of(input.powerW + dp, Math.max(0, input.lossWPerK - dl)),
    high: of(Math.max(60, input.powerW - dp), input.lossWPerK + dl),
  };
};

/**
 * From what lies in the pot to ready: a curve, with the moments to skim and to turn the dial down, and the electricity.
 * Throws the pot's own refusal where its power cannot reach the temperature.
 */
export function meltPlan(input: MeltPlanInput): MeltPlan {
  const { leadKg, fromC, roomC, pourC } = input;
  const alloy = input.alloy ?? SOFT_LEAD;
  const at = (toC: number) => (powerW: number, lossWPerK: number) => {
    try {
      return meltTime({ leadKg, fromC, roomC, toC, powerW, lossWPerK, alloy });
    } catch {
      return null; // at the far end of its uncertainty the pot never gets there: the range is open
    }
  };
  const now = meltTime({ leadKg, fromC, roomC, toC: pourC, powerW: input.powerW, lossWPerK: input.lossWPerK, alloy });
  const seconds = (toC: number) => band(input, (p, l) => at(toC)(p, l)?.seconds ?? now.seconds * 3);
  const known = (label: string, value: number, unit: WhyInput['unit'], note?: string) =>
    (input.basis === 'given' ? given : fitted)(label, value, unit, note);
  const inputs: WhyInput[] = [
    given('In the pot', leadKg, 'kg', alloy.name),
    given('From', fromC, 'C'),
    given('To', pourC, 'C'),
    known('Power', input.powerW, 'W'),
    known('Loss', input.lossWPerK, 'W/K'),
    given('Room', roomC, 'C'),
  ];
  const formula = 'dH/dt = P − UA (T − T_room)';
  const source = 'Enthalpy method; heats of lead from the CRC Handbook, from memory';
  const { shares } = now;
  const total = Object.values(shares).reduce((sum, part) => sum + part, 0) || 1;
  const percent = (part: number) => `${Math.round((100 * part) / total)} %`;
  const downC = pourC - COAST_K;
  const down = input.school === 'full then down' ? at(downC)(input.powerW, input.lossWPerK)!.seconds : null;
  // On full the thermostat's own mark is far above; from the turn-down on it holds the pouring temperature.
  const events: PotEvent[] = down === null ? [] : [{ atS: down, kind: 'dial', setC: pourC }];
  const trace = simulatePot({
    pot: input,
    leadKg,
    fromC,
    roomC,
    setC: down === null ? pourC : Math.min(600, pourC + 150),
    seconds: Math.min(86_400, now.seconds + SHOWN_AFTER_S),
    events,
    alloy,
    everyS: 15,
  });
  return {
    ready: figure(
      now.seconds,
      's',
      {
        rule: `At full power. The melting itself takes ${percent(shares.latentJ)} of the heat, the room ${percent(shares.lostJ)}.`,
        formula,
        source,
        inputs,
      },
      seconds(pourC),
    ),
    turnDown:
      down === null
        ? null
        : figure(
            down,
            's',
            {
              rule: 'A little before it is there: the element goes on giving.',
              formula,
              source,
              inputs: [...inputs, given('Turn down at', downC, 'C')],
            },
            seconds(downC),
          ),
    skim: figure(
      now.moltenAtS,
      's',
      { rule: 'Everything is molten: skim the old scum, then stir.', formula, source, inputs },
      seconds(Math.min(pourC, alloy.liquidusC + 0.5)),
    ),
    energy: figure(
      now.energyKWh,
      'kWh',
      { rule: 'Power times time to ready; holding it comes on top.', formula: 'E = P · t', source, inputs },
      band(input, (p, l) => (p * (at(pourC)(p, l)?.seconds ?? now.seconds * 3)) / J_PER_KWH),
    ),
    points: trace.points,
  };
}
