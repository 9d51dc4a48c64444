import { knownOven, loadHeat, waitsForMetalS, type OvenRecord } from '../bake/known-oven.ts';
import { rackPlaces } from '../bake/packing.ts';
import { ovenLoads, roomOf, type OvenPlan, type OvenRack } from '../bake/rack.ts';
import { castMassKg } from '../cast/cast-mass.ts';
import { handlingTimeS } from '../freeze/handling.ts';
import { coldHeadSolid } from '../geometry/solid.ts';
import { stepOfRoute } from '../job/route.ts';
import { bakeCounts, type TicketState } from '../job/ticket.ts';
import type { PlanBake, PlanProduct } from '../plan/types.ts';
import type { OvenEntry } from '../run/oven.ts';
import type { HeadsInRun } from '../run/heads-in-run.ts';
import type { HungHead } from './course.ts';
import type { TicketProduct } from './ticket-product.ts';

/**
 * What a product is baked with at a step of its; null where no program is named there.
 * @example bakeAt(kept, 'bake').setC // 177
 */
export const bakeAt = ({ steps }: Pick<TicketProduct, 'steps'>, step: string): PlanBake | null =>
  stepOfRoute(steps, step)?.bake ?? null;

/**
 * What tells one program from another: two of the same heat and time hang together, whatever they are called.
 * @example programKey({ name: 'Hot', setC: 200, seconds: 600, preheated: true }) // '200 600 true door'
 */
export const programKey = ({ setC, seconds, preheated, from = 'door' }: PlanBake): string =>
  `${setC} ${seconds} ${preheated} ${from}`;

/**
 * What a product's head needs on a rack, m.
 * @example roomFor(product(10)).pitchM > 0.01 // true
 */
export const roomFor = ({ style, nominalMassKg, hook }: Pick<PlanProduct, 'style' | 'nominalMassKg' | 'hook'>) =>
  roomOf({
    style,
    massKg: castMassKg({ nominalMassKg }),
    hookSize: hook?.size ?? null,
    ...(hook?.wire ? { wire: hook.wire } : {}),
  });

/** An oven as far as places in it are asked for. */
interface OvenPlaces {
  places: number;
  racks?: readonly OvenRack[] | null | undefined;
}

/**
 * How many heads of a product go in at once: on the rack that takes most of them, or by the oven's plain count where no
 * rack is drawn that has room; any number where no oven is on record.
 * @example fitsIn({ places: 60 }, product(10)) // 60
 */
export function fitsIn(oven: OvenPlaces | undefined, product: PlanProduct): number {
  const { pitchM, hangsM } = roomFor(product);
  const most = Math.max(
    0,
    ...(oven?.racks ?? [])
      .filter((rack) => hangsM <= rack.clearM && pitchM <= rack.barM)
      .map((rack) => rackPlaces(rack, pitchM)),
  );
  return most || (oven?.places ?? Infinity);
}

/** Heads of one ticket that can go into the oven, and by which program. */
export interface WaitingHeads {
  ticket: { id: string; product: TicketProduct };
  /** The bake of its route. */
  step: string;
  heads: number;
  program: PlanBake;
}

/**
 * What waits for the oven, or is on its way there tonight: what hangs in it or has just come out of it does not.
 * @param coming with what is still being painted
 * @example waitingForOven([], true) // []
 */
export function waitingForOven(
  tickets: readonly (WaitingHeads['ticket'] & { state: TicketState })[],
  coming: boolean,
): WaitingHeads[] {
  return tickets.flatMap(({ state, ...ticket }) =>
    state.steps.flatMap(({ key, station, status }, at) => {
      if (station !== 'bake' || status === 'done') return [];
      const { toLoad } = bakeCounts(state, key);
      const before = state.steps[at - 1];
      const heads = coming && before?.station === 'paint' ? toLoad + before.left : toLoad;
      const program = bakeAt(ticket.product, key);
      return heads > 0 && program ? [{ ticket, step: key, heads, program }] : [];
    }),
  );
}

/**
 * Loads by program and rack for what waits; groups are called by their ticket.
 * @example loadsFor([], [rack]).loads // []
 */
export const loadsFor = (groups: readonly WaitingHeads[], racks: readonly OvenRack[]): OvenPlan =>
  ovenLoads(
    racks,
    groups.map(({ ticket, heads, program }) => ({
      id: ticket.id,
      program: programKey(program),
      heads,
      ...roomFor(ticket.product),
    })),
  );

/** The door as it is shut on a load, without its name and moment. */
type LoadSaid = Omit<Extract<OvenEntry, { kind: 'load' }>, 'id' | 'at'>;

/**
 * What is said when the door is shut on heads of one ticket or of several: where the count goes from warm metal, the
 * slowest head says how long that takes.
 * @example loadSaid([{ ticketId: 'a', step: 'bake', count: 12 }], [], { ...load, name: 'Hot' }, undefined).setC // 177
 */
export function loadSaid(
  heads: HeadsInRun[],
  hung: readonly HungHead[],
  { setC, seconds, preheated, from }: PlanBake,
  oven: (OvenRecord & { id: string }) | undefined,
): LoadSaid {
  const way = { setC, seconds, preheated, ...(from ? { from } : {}) };
  const known = knownOven(oven);
  const warmS = Math.max(0, ...hung.map(({ headLagS }) => waitsForMetalS(way, known, headLagS, loadHeat(hung))));
  return {
    ...{ kind: 'load', ovenId: oven?.id ?? null, heads, setC, seconds, preheated },
    ...(from === 'metal' ? { from, warmS: Math.round(warmS) } : {}),
  };
}

/**
 * Seconds until a head of a product, out of the oven at `fromC`, can be held in a bare hand.
 * @example coolDownS(product(10), 20) // 0
 */
export function coolDownS(
  { style, nominalMassKg }: Pick<PlanProduct, 'style' | 'nominalMassKg'>,
  fromC: number,
): number {
  const headKg = castMassKg({ nominalMassKg });
  const { cooledAreaM2: areaM2 } = coldHeadSolid(style, headKg);
  return handlingTimeS({ headKg, areaM2, fromC: Math.max(20, fromC) });
}
