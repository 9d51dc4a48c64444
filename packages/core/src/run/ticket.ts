import { COUNT_STATIONS, type CountStation, type Station } from './causes.ts';
import type { DoorOpening } from '../bake/running.ts';
import { standing, workSeconds, type Entry, type UndoEntry } from './log.ts';

export type TicketEntry =
  | (Entry & { kind: 'start'; station: CountStation })
  | (Entry & { kind: 'good'; station: CountStation; count: number })
  | (Entry & { kind: 'reject'; station: CountStation; cause: string; count: number; hookLost?: boolean })
  | (Entry & { kind: 'pause'; station: CountStation })
  | (Entry & { kind: 'resume'; station: CountStation })
  | (Entry & {
      kind: 'load';
      station: 'bake';
      count: number;
      setC: number;
      seconds: number;
      preheated: boolean;
      from?: CountFrom;
      warmS?: number;
    })
  /** Out of the oven; so many seconds until a bare hand may take a head. */
  | (Entry & { kind: 'unload'; station: 'bake'; coolS?: number })
  /** The metal is at the oven's heat: a count that goes from there begins. */
  | (Entry & { kind: 'warm'; station: 'bake'; by: 'probe' | 'model' | 'hand' })
  /** The oven's door is opened, or shut again, with heads in it. */
  | (Entry & { kind: 'door'; station: 'bake'; open: boolean })
  /** A coat of liquid paint is on all of them: it dries so long before the next. */
  | (Entry & { kind: 'coat'; station: 'paint'; coat: number; paint: string; dryS: number })
  /** Cut-off sprues on the scale, back to the pot. */
  | (Entry & { kind: 'sprue'; station: 'trim'; massKg: number })
  | (Entry & { kind: 'close'; station: 'finish' });

export type TicketLog = readonly (TicketEntry | UndoEntry)[];

/** What a program's minutes are counted from: the shutting of the door, or the metal's own heat. */
export const COUNT_FROM = ['door', 'metal'] as const;
export type CountFrom = (typeof COUNT_FROM)[number];

export interface OvenLoad {
  id: string;
  count: number;
  setC: number;
  seconds: number;
  preheated: boolean;
  from: CountFrom;
  /** What the metal was reckoned to take to the oven's heat, s; 0 where the count goes from the door. */
  warmS: number;
  loadedAt: number;
  warmAt: number | null;
  doors: DoorOpening[];
  /** When the program is over, as far as is known now. */
  endsAt: number;
  unloadedAt: number | null;
  coolS: number;
}

/** A coat of liquid paint on the heads of a ticket. */
export interface WetCoat {
  id: string;
  coat: number;
  paint: string;
  onAt: number;
  dryAt: number;
}

export interface StationState {
  status: 'waiting' | 'ready' | 'running' | 'paused' | 'done';
  /** Good heads that came from the station before. */
  arrived: number;
  good: number;
  rejects: Record<string, number>;
  rejected: number;
  hooksLost: number;
  /** Cut-off sprues weighed here, kg. */
  sprueKg: number;
  /** Heads here that are neither good nor rejected yet. */
  left: number;
  /** Of those, in the oven. */
  inOven: number;
  workS: number;
  lastAt: number | null;
}

export interface TicketState {
  stations: Partial<Record<CountStation, StationState>>;
  loads: OvenLoad[];
  coats: WetCoat[];
  /** Where the ticket's work is: the first station that is not done. */
  at: Station | 'close' | 'closed';
  good: number;
  closedAt: number | null;
}

export interface TicketSetup {
  /** The count stations on this product's route, in order; bare heads skip paint, some are never baked. */
  route: readonly CountStation[];
  /** Good heads from the pour so far. */
  poured: number;
  /** Whether the pour is closed, so that no more will come. */
  pourClosed: boolean;
}

/** Stations after the pour for a product: painted or not, baked or not. */
export function routeOf(product: { painted: boolean; baked: boolean }): CountStation[] {
  return COUNT_STATIONS.filter(
    (station) => (station !== 'paint' || product.painted) && (station !== 'bake' || (product.painted && product.baked)),
  );
}

function stationState(
  station: CountStation,
  arrived: number,
  upstreamDone: boolean,
  entries: readonly TicketEntry[],
  loads: readonly OvenLoad[],
): StationState {
  const own = entries.filter((entry) => entry.station === station && entry.kind !== 'close');
  let good = 0;
  let hooksLost = 0;
  let sprueKg = 0;
  const rejects: Record<string, number> = {};
  for (const entry of own) {
    if (entry.kind === 'good') good += entry.count;
    if (entry.kind === 'sprue') sprueKg += entry.massKg;
    if (entry.kind === 'reject') {
      rejects[entry.cause] = (rejects[entry.cause] ?? 0) + entry.count;
      if (entry.hookLost) hooksLost += entry.count;
    }
  }
  const rejected = Object.values(rejects).reduce((sum, count) => sum + count, 0);
  const inOven =
    station === 'bake'
      ? loads.filter((load) => load.unloadedAt === null).reduce((sum, load) => sum + load.count, 0)
      : 0;
  const left = arrived - good - rejected;
  const pausing = own.findLast((entry) => entry.kind === 'pause' || entry.kind === 'resume' || entry.kind === 'start');
  let status: StationState['status'];
  if (left === 0 && upstreamDone) status = 'done';
  else if (pausing?.kind === 'pause') status = 'paused';
  else if (own.length > 0 && left > 0) status = 'running';
  else status = left > 0 ? 'ready' : 'waiting';
  return {
    status,
    arrived,
    good,
    rejects,
    rejected,
    hooksLost,
    sprueKg,
    left,
    inOven,
    workS: workSeconds(own),
    lastAt: own.at(-1)?.at ?? null,
  };
}

/** The state of a ticket along the stations after the pour, from its log. */
export function ticketState(setup: TicketSetup, log: TicketLog): TicketState {
  const entries = standing<TicketEntry>(log);
  const loads: OvenLoad[] = [];
  const coats: WetCoat[] = [];
  for (const entry of entries) {
    if (entry.kind === 'coat') {
      const { id, coat, paint, at: onAt, dryS } = entry;
      coats.push({ id, coat, paint, onAt, dryAt: onAt + 1000 * dryS });
    }
    if (entry.kind === 'load') {
      const { id, count, setC, seconds, preheated, from = 'door' } = entry;
      const warmS = from === 'metal' ? (entry.warmS ?? 0) : 0;
      loads.push({
        id,
        count,
        setC,
        seconds,
        preheated,
        from,
        warmS,
        loadedAt: entry.at,
        warmAt: null,
        doors: [],
        endsAt: entry.at + 1000 * (warmS + seconds),
        unloadedAt: null,
        coolS: 0,
      });
    }
    const open = loads.find((load) => load.unloadedAt === null);
    if (entry.kind === 'warm' && open && open.warmAt === null) {
      open.warmAt = entry.at;
      if (open.from === 'metal') open.endsAt = entry.at + 1000 * open.seconds;
    }
    if (entry.kind === 'door' && open) {
      const last = open.doors.at(-1);
      if (entry.open && last?.toAt !== null) open.doors.push({ fromAt: entry.at, toAt: null });
      if (!entry.open && last?.toAt === null) last.toAt = entry.at;
    }
    if (entry.kind === 'unload' && open) {
      open.unloadedAt = entry.at;
      open.coolS = entry.coolS ?? 0;
    }
  }
  const stations: TicketState['stations'] = {};
  let arrived = setup.poured;
  let upstreamDone = setup.pourClosed;
  let at: TicketState['at'] | null = setup.pourClosed ? null : 'pour';
  for (const station of setup.route) {
    const state = stationState(station, arrived, upstreamDone, entries, loads);
    stations[station] = state;
    if (state.status !== 'done' && at === null) at = station;
    arrived = state.good;
    upstreamDone = state.status === 'done';
  }
  const close = entries.findLast((entry) => entry.kind === 'close');
  if (close) at = 'closed';
  return { stations, loads, coats, at: at ?? 'close', good: arrived, closedAt: close?.at ?? null };
}

/** What a new entry may not do, in words; null when it may. Counting more heads than are there is refused. */
export function refusal(setup: TicketSetup, log: TicketLog, entry: TicketEntry): string | null {
  const state = ticketState(setup, log);
  if (state.at === 'closed') return 'This ticket is closed. Undo the closing first.';
  if (entry.kind === 'close') {
    return state.at === 'close' ? null : `Heads still wait at ${state.at}; a ticket closes after its last station.`;
  }
  const station = state.stations[entry.station];
  if (!station) return `This product does not go through ${entry.station}.`;
  const free = station.left - station.inOven;
  if ((entry.kind === 'good' || entry.kind === 'reject' || entry.kind === 'load') && entry.count > free) {
    return `count is ${entry.count}; allowed: 1 to ${free}, the heads that wait at ${entry.station}`;
  }
  if (entry.kind === 'load' && station.inOven > 0) return 'The oven holds a load of this ticket; take it out first.';
  if ((entry.kind === 'unload' || entry.kind === 'warm' || entry.kind === 'door') && station.inOven === 0) {
    return 'No load of this ticket is in the oven.';
  }
  return null;
}

/** Heads at the bake: still to be hung up, in the oven, out and not looked at yet. */
export function bakeCounts(state: TicketState): { toLoad: number; inOven: number; toInspect: number } {
  const bake = state.stations.bake;
  if (!bake) return { toLoad: 0, inOven: 0, toInspect: 0 };
  const out = state.loads.filter((load) => load.unloadedAt !== null).reduce((sum, load) => sum + load.count, 0);
  const toInspect = Math.max(0, Math.min(bake.left - bake.inOven, out - bake.good - bake.rejected));
  return { toLoad: bake.left - bake.inOven - toInspect, inOven: bake.inOven, toInspect };
}
