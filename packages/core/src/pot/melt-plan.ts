import { SOFT_LEAD, type Alloy } from '../metal/alloy.ts';
import { figure, fitted, given, type Basis, type Figure, type WhyInput } from '../quantity/figure.ts';
import { J_PER_KWH } from '../quantity/units.ts';
import { range90 } from '../quantity/range.ts';
import { SPREAD } from '../quantity/spreads.ts';
import { simulatePot, type PotBody, type PotEvent, type PotPoint } from './simulate.ts';
import { meltTime } from './time-to-pour.ts';

/** How the dial is used. Full, then down: quicker; left at its pouring mark: nothing to forget. */
export type DialSchool = 'full then down' | 'left at the mark';

interface MeltPlanInput {
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
  crucibleJPerK?: number;
  crucibleSdJPerK?: number;
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

/** How well a pot is known: by its plate, or by its own readings. */
interface PotDoubt extends PotBody {
  basis?: Basis;
  powerSdW?: number;
  lossSdWPerK?: number;
  crucibleSdJPerK?: number;
}

/**
 * Range of an answer by how well power, loss and crucible are known.
 * @example potRange({ powerW: 700, lossWPerK: 0.55 }, ({ powerW }) => powerW) // { low: 584.4, high: 815.6 }
 */
export function potRange(pot: PotDoubt, of: (pot: PotBody) => number): { low: number; high: number } {
  const { powerW, lossWPerK, crucibleJPerK = 0, basis = 'given', powerSdW = 0, lossSdWPerK = 0 } = pot;
  const { potPowerShare, potLossShare, crucibleShare } = SPREAD;
  const sds =
    basis === 'given'
      ? [potPowerShare * powerW, potLossShare * lossWPerK, crucibleShare * crucibleJPerK]
      : [powerSdW, lossSdWPerK, pot.crucibleSdJPerK ?? crucibleShare * crucibleJPerK];
  return range90(
    ([p, l, c]) => of({ powerW: p!, lossWPerK: l!, crucibleJPerK: c! }),
    [
      { value: powerW, sd: sds[0]!, least: 60 },
      { value: lossWPerK, sd: sds[1]!, least: 0 },
      { value: crucibleJPerK, sd: sds[2]!, least: 0 },
    ],
  );
}

/**
 * From what lies in the pot to ready: a curve, with the moments to skim and to turn the dial down, and the electricity.
 * Throws the pot's own refusal where its power cannot reach the temperature.
 * @example meltPlan({ leadKg: 9.07, fromC: 20, roomC: 20, pourC: 371, powerW: 700, lossWPerK: 0.55, basis: 'given',
 *   powerSdW: 0, lossSdWPerK: 0, school: 'full then down' }).ready.value // 1122
 */
export function meltPlan(input: MeltPlanInput): MeltPlan {
  const { leadKg, fromC, roomC, pourC } = input;
  const alloy = input.alloy ?? SOFT_LEAD;
  const at = (toC: number) => (pot: PotBody) => {
    try {
      return meltTime({ leadKg, fromC, roomC, toC, ...pot, alloy });
    } catch {
      return null; // at the far end of its uncertainty the pot never gets there: the range is open
    }
  };
  const { powerW, lossWPerK, crucibleJPerK } = input;
  const pot: PotBody = { powerW, lossWPerK, crucibleJPerK };
  const now = meltTime({ leadKg, fromC, roomC, toC: pourC, ...pot, alloy });
  const seconds = (toC: number) => potRange(input, (each) => at(toC)(each)?.seconds ?? now.seconds * 3);
  const known = (label: string, value: number, unit: WhyInput['unit'], note?: string) =>
    (input.basis === 'given' ? given : fitted)(label, value, unit, note);
  const inputs: WhyInput[] = [
    given('In the pot', leadKg, 'kg', alloy.name),
    given('From', fromC, 'C'),
    given('To', pourC, 'C'),
    known('Power', input.powerW, 'W'),
    known('Loss', input.lossWPerK, 'W/K'),
    known('Crucible and element hold', crucibleJPerK ?? 0, 'J/K'),
    given('Room', roomC, 'C'),
  ];
  const formula = 'dH/dt = P − UA (T − T_room)';
  const source = 'Enthalpy method; heats of lead from the CRC Handbook, from memory';
  const { shares } = now;
  const total = Object.values(shares).reduce((sum, part) => sum + part, 0) || 1;
  const percent = (part: number) => `${Math.round((100 * part) / total)} %`;
  const downC = pourC - COAST_K;
  const down = input.school === 'full then down' ? at(downC)(pot)!.seconds : null;
  // On full the thermostat's own mark is far above; from the turn-down on it holds the pouring temperature.
  const events: PotEvent[] = down === null ? [] : [{ atS: down, kind: 'dial', setC: pourC }];
  const trace = simulatePot({
    pot,
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
        rule: `At full power. The melting itself takes ${percent(shares.latentJ)} of the heat, the crucible ${percent(shares.crucibleJ)}, the room ${percent(shares.lostJ)}.`,
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
      potRange(input, (each) => (each.powerW * (at(pourC)(each)?.seconds ?? now.seconds * 3)) / J_PER_KWH),
    ),
    points: trace.points,
  };
}
