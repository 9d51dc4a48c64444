import { COST_PARTS, type CostPart } from '../job/part-kinds.ts';
import { costPartOf } from '../job/postings.ts';
import type { TicketState } from '../job/ticket.ts';
import { costOf, sumMinor } from '../money/money.ts';
import { loadKWh } from './timing.ts';
import type { CostStack } from './types.ts';

/** What came and went of one material for a ticket, for one reason; what was used counts below zero. */
export interface TicketMove {
  materialId: string;
  name: string;
  kind: string;
  reason: string;
  quantity: number;
  valueMinor: number;
}
/** What a ticket really took, and what it cost. */
export interface TicketActual {
  materials: { materialId: string; name: string; kind: string; quantity: number; valueMinor: number }[];
  /** Seconds at work with both hands, its share of the pour included; what was not timed is by the ways. */
  workS: number;
  /** Heads that were counted all at once, by what was done to them, and what the ways say that they took. */
  notTimed?: { does: string; heads: number; seconds: number }[];
  /** Its share of the pot and of its oven loads. */
  energyKWh: number;
  /** Whole minor units by part; a good head to fractions of them, null while there is none. */
  cost: { parts: Record<CostPart, number>; totalMinor: number; perHead: CostStack | null };
}

const sumOf = <T>(all: readonly T[], value: (each: T) => number) => all.reduce((sum, each) => sum + value(each), 0);

/**
 * What a ticket really took and cost: materials by the movements of stock, work by the clocks of its steps (by the ways
 * for heads that nobody timed, and said so), electricity by its share of the pot and of each oven load (by heads, at
 * the duty of a hot oven).
 * @param of.pours its shares: seconds at work, electricity in kWh
 * @param of.ovenPowerW of the oven it was baked in
 * @example ticketActual({ state, pours: [{ workS: 600, energyKWh: 0.4 }], moves, rates, ovenPowerW: 1400 }).workS
 */
export function ticketActual(of: {
  state: Pick<TicketState, 'steps' | 'loads' | 'good'>;
  pours: readonly { workS: number; energyKWh: number }[];
  moves: readonly TicketMove[];
  rates: { labourMinorPerHour: number; energyMinorPerKWh: number };
  /** What a head's powder was to take of a gun or a flame, minor units; left out: nothing. */
  paintHeatMinor?: number;
  ovenPowerW: number;
  /** What the tools wear a good head, minor units, as it was planned; left out: nothing. */
  wearMinor?: number;
  /** What a head takes at a step by the ways, s: for those that nobody timed. */
  handsS?: (step: string) => number;
}): TicketActual {
  const { state, pours, rates } = of;
  const notTimed = state.steps
    .filter((step) => step.notTimed > 0)
    .map(({ key, does, notTimed: heads }) => ({ does, heads, seconds: heads * (of.handsS?.(key) ?? 0) }));
  const measuredS = sumOf(pours, (pour) => pour.workS) + sumOf(state.steps, (step) => step.workS);
  const workS = measuredS + sumOf(notTimed, ({ seconds }) => seconds);
  const inOvenS = sumOf(
    state.loads,
    (load) => (load.share * ((load.unloadedAt ?? load.loadedAt) - load.loadedAt)) / 1000,
  );
  const energyKWh = sumOf(pours, (pour) => pour.energyKWh) + loadKWh({ powerW: of.ovenPowerW }, inOvenS);
  // What its heads became is on the shelf at what they cost; it is no saving of the ticket.
  const spent = of.moves.filter((move) => move.reason !== 'made');
  const parts = Object.fromEntries(
    COST_PARTS.map((part) => [
      part,
      sumMinor(spent.filter((move) => costPartOf(move) === part).map((move) => -move.valueMinor)),
    ]),
  ) as Record<CostPart, number>;
  // Heads that are painted in several steps come to each of them: they are heated in all as they were planned.
  const painted = Math.max(
    0,
    ...state.steps.map(({ station, good, rejected }) => (station === 'paint' ? good + rejected : 0)),
  );
  parts.energy = sumMinor([costOf(rates.energyMinorPerKWh, energyKWh), costOf(of.paintHeatMinor ?? 0, painted)]);
  parts.work = costOf(rates.labourMinorPerHour, workS / 3600);
  parts.wear = costOf(of.wearMinor ?? 0, Math.max(0, state.good));
  const totalMinor = sumMinor(Object.values(parts));
  const perHead =
    state.good > 0
      ? (Object.fromEntries(COST_PARTS.map((part) => [part, parts[part] / state.good])) as CostStack)
      : null;
  const materials = new Map<string, TicketActual['materials'][number]>();
  for (const { materialId, name, kind, quantity, valueMinor } of spent) {
    const sum = materials.get(materialId) ?? { materialId, name, kind, quantity: 0, valueMinor: 0 };
    materials.set(materialId, { ...sum, quantity: sum.quantity - quantity, valueMinor: sum.valueMinor - valueMinor });
  }
  return { materials: [...materials.values()], workS, notTimed, energyKWh, cost: { parts, totalMinor, perHead } };
}
