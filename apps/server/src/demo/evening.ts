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
import { aluminiumMold, runMold, shortChance } from '@schmelz/worlds';
import { BAD_CAVITY, UNDER_BAKE } from './catalogue.ts';

/** What the day does to the work. */
export interface Day {
  random: () => number;
  /** The oven's timer was set wrong that month. */
  underBaked: boolean;
  /** Nothing happens after this, ms since 1970: the demo has no future. */
  notAfter: number;
  /** Hooks that are out of a lot with wrong eyes just now, by the material's id. */
  wrongEyes?: ReadonlySet<string>;
  /** Share of the melt that turns to dross: rises as the pot's dial drifts to hotter. */
  drossShare: number;
  /** Whose evening it is: who pours, and who does what comes after. */
  who: { pours: string; finishes: string };
  /** How slow they are beside what they usually are, at the pot and after it. */
  slow: { pours: number; finishes: number };
}

type NewPourEntry = PourEntry extends infer E ? (E extends PourEntry ? Omit<E, 'id' | 'at'> : never) : never;
type NewOvenEntry = OvenEntry extends infer E ? (E extends OvenEntry ? Omit<E, 'id' | 'at'> : never) : never;
type NewTicketEntry = TicketEntry extends infer E ? (E extends TicketEntry ? Omit<E, 'id' | 'at'> : never) : never;

const CAUSES: [string, number][] = [
  ['flash', 0.4],
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

/** A mold of the demo as it really is, and what is poured into it. */
export interface TrueMold {
  name: string;
  bodyKg: number;
  /** Better or worse than others of its weight, -1 to 1. */
  quirk: number;
  /** Every cavity filled, heads and sprues. */
  fullShotKg: number;
  positions: number[];
}

/** Small heads want it warmer: below this heat of the face their cavities come out short, C. */
const coldC = (leadKg: number) => 37 + (leadKg < 0.008 ? 3 : 0);
/** Rejects that have nothing to do with heat. */
const OTHER_SHARE = 0.022;
/** Of hooks whose eyes are bent to the wrong angle so many do not lie in the eye's slot: lead runs into them. */
const WRONG_EYE_SHARE = 0.14;
/** What really stands over the gates of a blank shot, kg. */
export const TRUE_BAR_KG = 0.028;
const SHUT_S = 6;
const ROOM_C = 20;

/** The molds of a pour as they really get hot and cold. */
function reallyHot(pour: Pour, molds: ReadonlyMap<string, TrueMold>, from: number) {
  const { pourC } = pour.knownThen;
  const all = new Map(
    pour.setup.molds.map(({ moldId }) => {
      const { bodyKg, quirk } = molds.get(moldId)!;
      return [moldId, { running: runMold(aluminiumMold(bodyKg, quirk), ROOM_C), at: from, pouredAt: -Infinity }];
    }),
  );
  /** A mold as it is at a moment: shut after a pour, then open. */
  const at = (moldId: string, now: number) => {
    const mold = all.get(moldId)!;
    const shutUntil = Math.min(now, mold.pouredAt + SHUT_S * 1000);
    mold.running.pass(Math.max(0, (shutUntil - mold.at) / 1000), false);
    mold.running.pass((now - Math.max(mold.at, shutUntil)) / 1000, mold.pouredAt > 0);
    mold.at = now;
    return mold;
  };
  return {
    faceC: (moldId: string, now: number) => at(moldId, now).running.faceC(),
    pour(moldId: string, kg: number, now: number) {
      const mold = at(moldId, now);
      mold.running.pour(kg, pourC);
      mold.pouredAt = now;
    },
  };
}

/** A whole evening at the pot, as a log: charge, blank shots, shots and rejects until every ticket has its heads. */
export function pourEvening(
  pour: Pour,
  molds: ReadonlyMap<string, TrueMold>,
  startedAt: number,
  day: Day,
): PourEntry[] {
  const { random } = day;
  let at = startedAt;
  const log: PourEntry[] = [];
  const heat = reallyHot(pour, molds, startedAt);
  const loadOf = new Map(pour.setup.loads.map((load) => [`${load.moldId} ${load.position}`, load]));
  const add = (entry: NewPourEntry, seconds: number): string => {
    at += Math.round(seconds * 1000);
    const id = randomUUID();
    log.push({ ...entry, id, at, who: day.who.pours } as PourEntry);
    return id;
  };
  const blank = (moldId: string, seconds: number) => {
    add({ kind: 'blank', moldId }, seconds);
    heat.pour(moldId, molds.get(moldId)!.fullShotKg + TRUE_BAR_KG, at);
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
      blank(moldId, 28);
      continue;
    }
    const { wantedPositions: wanted } = state.molds.find((each) => each.moldId === moldId)!;
    if (shot > 0 && shot % 14 === 0) {
      add({ kind: 'pause' }, 20);
      add({ kind: 'resume' }, 420 + random() * 300);
      // One now and then, by feel, and often none.
      if (random() < 0.4) blank(moldId, 40);
      add({ kind: 'feed', massKg: 0.4 }, 30);
    }
    // Idle cavities are filled as well, to keep the heat.
    const filled = molds.get(moldId)!.positions.filter((position) => !wanted.includes(position));
    const shotId = add(
      { kind: 'shot', moldId, positions: wanted, filled },
      day.slow.pours * (20 + wanted.length * (24 + random() * 14)),
    );
    const faceC = heat.faceC(moldId, at);
    heat.pour(moldId, molds.get(moldId)!.fullShotKg, at);
    let shorts = 0;
    for (const position of wanted) {
      const { leadKg } = loadOf.get(`${moldId} ${position}`)!;
      const bad = molds.get(moldId)!.name === BAD_CAVITY.mold && position === BAD_CAVITY.position;
      const short = random() < Math.max(bad ? BAD_CAVITY.shortShare : 0, shortChance(faceC, coldC(leadKg)));
      const { hookMaterialId } = loadOf.get(`${moldId} ${position}`)!;
      const wrongEye = hookMaterialId !== null && day.wrongEyes?.has(hookMaterialId) && random() < WRONG_EYE_SHARE;
      if (!short && !wrongEye && random() >= OTHER_SHARE) continue;
      const cause = short ? 'short' : wrongEye ? 'eye full' : pick(random, CAUSES);
      if (short && !bad) shorts += 1;
      const where = cause === 'short' ? { where: pick(random, WHERE) } : {};
      const kept = cause === 'short' && random() < 0.15;
      const goes: PourDisposition = random() < 0.03 && !kept ? 'hook lost' : kept ? 'second grade' : 'melt';
      add({ kind: 'reject', shotId, position, cause, ...where, goes }, 3);
    }
    // Many shorts at once are seen: it is warmed again, by feel.
    if (shorts > wanted.length / 2) for (let more = 0; more < 2; more++) blank(moldId, 30);
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
interface DayPart {
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
    parts.at(-1)!.entries.push({ ...entry, id: randomUUID(), at, who: day.who.finishes } as TicketEntry | OvenEntry);
  };
  const add = (entry: NewTicketEntry, seconds: number) => say('ticket', entry, seconds);
  const inspect = (step: string, station: string, count: number): number => {
    const { share, causes } = STATION_REJECTS[station]!;
    const chance = station === 'finish' && day.underBaked ? 0.07 : share;
    const rejected = Array.from({ length: count }, () => random()).filter((r) => r < chance).length;
    const pace = day.slow.finishes * SECONDS[station]! * (0.9 + random() * 0.3);
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
