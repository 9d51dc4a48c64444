import { randomUUID } from 'node:crypto';
import {
  nextTurn,
  pourState,
  type PourEntry,
  type OvenEntry,
  type PourDisposition,
  type ShortWhere,
  usualDisposition,
  type TicketEntry,
} from '@schmelz/core';
import type { Pour, Ticket } from '@schmelz/contract';
import { BAD_CAVITY, UNDER_BAKE } from './catalogue.ts';

/** What the day does to the work. */
export interface Day {
  random: () => number;
  /** The oven's timer was set wrong that month. */
  underBaked: boolean;
  /** Nothing happens after this, ms since 1970: the demo has no future. */
  notAfter: number;
  /** Share of the melt that turns to dross: rises as the pot's dial drifts to hotter. */
  drossShare: number;
}

type NewPourEntry = PourEntry extends infer E ? (E extends PourEntry ? Omit<E, 'id' | 'at'> : never) : never;
type NewOvenEntry = OvenEntry extends infer E ? (E extends OvenEntry ? Omit<E, 'id' | 'at'> : never) : never;
type NewTicketEntry = TicketEntry extends infer E ? (E extends TicketEntry ? Omit<E, 'id' | 'at'> : never) : never;

const CAUSES: [string, number][] = [
  ['short', 0.5],
  ['flash', 0.2],
  ['void', 0.12],
  ['loose hook', 0.1],
  ['eye full', 0.05],
  ['other', 0.03],
];
const WHERE: [ShortWhere, number][] = [
  ['barb', 0.6],
  ['shank', 0.15],
  ['nose', 0.25],
];
function pick<T>(random: () => number, from: readonly (readonly [T, number])[]): T {
  let left = random() * from.reduce((sum, [, weight]) => sum + weight, 0);
  for (const [value, weight] of from) {
    left -= weight;
    if (left <= 0) return value;
  }
  return from[0]![0];
}

/** A whole evening at the pot, as a log: charge, blank shots, shots and rejects until every ticket has its heads. */
export function pourEvening(pour: Pour, nameOf: (moldId: string) => string, startedAt: number, day: Day): PourEntry[] {
  const { random } = day;
  let at = startedAt;
  const log: PourEntry[] = [];
  const add = (entry: NewPourEntry, seconds: number): string => {
    at += Math.round(seconds * 1000);
    const id = randomUUID();
    log.push({ ...entry, id, at } as PourEntry);
    return id;
  };
  add({ kind: 'charge', massKg: Math.round(pour.plannedChargeKg * 100) / 100, potC: 20 }, 60);
  const first = pour.setup.molds[0]!.moldId;
  if (random() < 0.4) add({ kind: 'smoked', moldId: first }, 240);
  add({ kind: 'done', what: 'skimmed' }, pour.plannedMeltS);
  for (let shot = 0; shot < 400;) {
    const state = pourState(pour.setup, log);
    const turn = nextTurn(pour.setup, state, at);
    if (!turn) break;
    const { moldId } = turn;
    if (turn.blanksToGo > 0) {
      add({ kind: 'blank', moldId }, 28);
      continue;
    }
    const { wantedPositions: wanted } = state.molds.find((each) => each.moldId === moldId)!;
    if (shot > 0 && shot % 14 === 0) {
      add({ kind: 'pause' }, 20);
      add({ kind: 'resume' }, 420 + random() * 300);
      add({ kind: 'blank', moldId }, 40);
      add({ kind: 'feed', massKg: 0.4 }, 30);
    }
    const shotId = add({ kind: 'shot', moldId, positions: wanted }, 20 + wanted.length * (24 + random() * 14));
    for (const position of wanted) {
      const bad = nameOf(moldId) === BAD_CAVITY.mold && position === BAD_CAVITY.position;
      const share = bad ? BAD_CAVITY.shortShare : shot < 2 ? 0.12 : 0.045;
      if (random() >= share) continue;
      const cause = bad && random() < 0.85 ? 'short' : pick(random, CAUSES);
      const where = cause === 'short' ? { where: pick(random, WHERE) } : {};
      const kept = cause === 'short' && random() < 0.15;
      const goes: PourDisposition = random() < 0.03 && !kept ? 'hook lost' : kept ? 'second grade' : 'melt';
      add({ kind: 'reject', shotId, position, cause, ...where, goes }, 3);
    }
    shot += 1;
  }
  const { headsKg, rejectsKg, spruesKg } = pourState(pour.setup, log);
  const chargedKg = log.reduce((sum, each) => sum + ('massKg' in each ? each.massKg : 0), 0);
  // Scales read to the gram; sprues were fed back while it was poured, so what is left of them is weighed at the end.
  const gram = (kg: number) => Math.round(Math.max(0, kg) * 1000) / 1000;
  const drossKg = gram((headsKg + spruesKg) * day.drossShare);
  const sprueBackKg = gram(Math.min(spruesKg, Math.max(0, chargedKg - headsKg - rejectsKg - drossKg)) * 0.5);
  const rejectsBackKg = gram(rejectsKg);
  const heelKg = gram(chargedKg - headsKg - rejectsBackKg - drossKg - sprueBackKg - 0.004 * random());
  add({ kind: 'close', sprueBackKg, rejectsBackKg, drossKg, heelKg }, 600);
  return log;
}

const STATION_REJECTS: Record<string, { share: number; causes: [string, number][] }> = {
  trim: {
    share: 0.012,
    causes: [
      ['divot', 3],
      ['void', 1],
      ['loose hook', 2],
    ],
  },
  paint: {
    share: 0.02,
    causes: [
      ['runs', 2],
      ['bubbles', 1],
      ['thin', 2],
      ['eye closed', 2],
    ],
  },
  bake: {
    share: 0.01,
    causes: [
      ['drip', 2],
      ['runs', 1],
      ['browned hook', 1],
    ],
  },
  finish: {
    share: 0.005,
    causes: [
      ['chipped', 2],
      ['eye closed', 1],
    ],
  },
};
const SECONDS: Record<string, number> = { trim: 12, paint: 50, bake: 4, finish: 6 };

/** What a day's work says, in its order: of the ticket itself, and of each load of the oven. */
export interface DayPart {
  of: 'ticket' | 'oven';
  entries: (TicketEntry | OvenEntry)[];
}

/** The way of one ticket's heads from trim to the bag, as a log; `until` leaves it waiting at that station. */
export function ticketDays(
  ticket: Ticket,
  program: { setC: number; seconds: number; preheated: boolean } | null,
  places: number,
  startedAt: number,
  day: Day,
  until?: string,
): DayPart[] {
  const { random } = day;
  let at = startedAt;
  const parts: DayPart[] = [{ of: 'ticket', entries: [] }];
  const say = (of: DayPart['of'], entry: NewTicketEntry | NewOvenEntry, seconds: number) => {
    at += Math.round(seconds * 1000);
    if (parts.at(-1)!.of !== of) parts.push({ of, entries: [] });
    parts.at(-1)!.entries.push({ ...entry, id: randomUUID(), at } as TicketEntry | OvenEntry);
  };
  const add = (entry: NewTicketEntry, seconds: number) => say('ticket', entry, seconds);
  const inspect = (step: string, station: string, count: number): number => {
    const { share, causes } = STATION_REJECTS[station]!;
    const chance = station === 'finish' && day.underBaked ? 0.07 : share;
    const rejected = Array.from({ length: count }, () => random()).filter((r) => r < chance).length;
    const pace = SECONDS[station]! * (0.9 + random() * 0.3);
    const good = count - rejected;
    for (let done = 0; done < good; done += 12) {
      const now = Math.min(12, good - done);
      add({ kind: 'good', step, count: now }, now * pace);
    }
    for (let i = 0; i < rejected; i++) {
      const cause = station === 'finish' && day.underBaked ? 'chipped' : pick(random, causes);
      // A head that was sent back is done again then and there; the year counts it once.
      const usual = usualDisposition(station, cause);
      const goes = usual === 'back to step' ? 'melt' : usual;
      add({ kind: 'reject', step, cause, count: 1, goes }, pace);
    }
    return good;
  };
  let heads = ticket.poured;
  for (const { key, station } of ticket.route) {
    if (station === until) return parts;
    at += Math.round((0.3 + random()) * 3600_000);
    add({ kind: 'start', step: key }, 0);
    if (station !== 'bake' || !program) {
      heads = inspect(key, station, heads);
      continue;
    }
    let baked = 0;
    for (let left = heads; left > 0; left -= places) {
      const count = Math.min(places, left);
      const run = day.underBaked ? { ...program, ...UNDER_BAKE } : program;
      const hung = [{ ticketId: ticket.id, step: key, count }];
      say('oven', { kind: 'load', ovenId: null, heads: hung, ...run }, count * 3);
      say('oven', { kind: 'unload' }, run.seconds + random() * 90);
      baked += inspect(key, station, count);
    }
    heads = baked;
  }
  add({ kind: 'close' }, 120);
  return parts;
}
