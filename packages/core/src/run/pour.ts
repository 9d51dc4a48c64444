import { countAll } from '../count/count-all.ts';
import { castsUntil, expectedCasts, sumOfCasts, wholeCasts, type Casts } from '../count/casts-for.ts';
import type { YieldTonight } from '../count/yield.ts';
import { leadBalance, type LeadBalance } from '../balance/lead-balance.ts';
import { standing, type HeldUp } from '../log/log.ts';
import { pourWork } from './pour-work.ts';
import { counted, hooksCounted, piecesIn, type CavityRecord } from './tally.ts';
import type { CavityLoad, Insert, PourEntry, PourLog, PourSetup, RejectEntry } from './pour-log.ts';
import type { CastHead, Shot } from './shot.ts';

type PourPhase = 'cold' | 'warming' | 'pouring' | 'paused' | 'enough' | 'closed';

/** One mold of the run, as it stands. */
export interface MoldState {
  moldId: string;
  blanks: number;
  shots: number;
  lastPouredAt: number | null;
  /** Shots, blank ones included, since it was smoked in this run; null when it was not smoked in it. */
  shotsSinceSmoked: number | null;
  /** Shots that are expected until enough are good, as far as what is laid out goes. */
  shotsToGo: number;
  /** Good heads that it still owes and has no hook, or no other piece, to cast with. */
  lacking: number;
  /** Cavities to load for its next shot: those whose tickets still want heads, as far as hooks are left. */
  wantedPositions: number[];
  /** Cavities that get no hook and may be filled to keep the heat: enough heads, no hook left, or no ticket. */
  idlePositions: number[];
  /** Cavities given up in the middle of this session. */
  blockedPositions: number[];
  away: boolean;
}

export interface PourState {
  phase: PourPhase;
  molds: MoldState[];
  shots: Shot[];
  blanks: number;
  chargedKg: number;
  startedAt: number | null;
  lastShotAt: number | null;
  workS: number;
  /** What kept hands from it, pauses too. */
  heldUp: HeldUp;
  goodByTicket: Record<string, number>;
  keptByTicket: Record<string, number>;
  rejectsByTicket: Record<string, number>;
  causesByTicket: Record<string, Record<string, number>>;
  hooksLostByTicket: Record<string, number>;
  byCavity: Record<string, CavityRecord>;
  stillNeeded: Record<string, number>;
  /** Shots over all molds; 0 when all tickets have enough, or nothing is left to cast them with. */
  shotsToGo: number;
  /** Of the hooks counted out, by material. */
  hooksLeft: Record<string, number>;
  /** Good heads and those kept as second grade. */
  headsKg: number;
  rejectsKg: number;
  /** Of the rejects, what was melted off again and is back in the pot. */
  redippedKg: number;
  spruesKg: number;
  balance: LeadBalance | null;
}

/**
 * The load of a cavity by its mold and position.
 * @example loadsOf(pour.setup, 'mold').length // 5
 */
export const loadsOf = (setup: PourSetup, moldId: string): CavityLoad[] =>
  setup.loads.filter((load) => load.moldId === moldId);

/** What closes the slot that a cavity was cut with for its pin. */
const OF_A_PIN: readonly Insert[] = ['base-hole pin', 'shortened pin'];
/** Pins go round; what else is laid in stays in its head. */
const GO_ROUND: readonly Insert[] = ['base-hole pin', 'shortened pin', 'pull-out rod'];

/**
 * Small things that are laid in beside hooks and counted out beforehand, as many as are laid out for; those that are
 * parts on the shelf are counted with the hooks.
 * @example insertsOut(pour.setup) // []
 */
export function insertsOut(setup: PourSetup): { insert: Insert; count: number }[] {
  const counts = new Map<Insert, number>();
  for (const { loads, provision } of castsByGroup(setup)) {
    for (const { inserts } of loads) {
      for (const insert of inserts) {
        if (!GO_ROUND.includes(insert)) counts.set(insert, (counts.get(insert) ?? 0) + provision / loads.length);
      }
    }
  }
  return [...counts].map(([insert, count]) => ({ insert, count: Math.ceil(count - 1e-9) }));
}

/** Casts of a pour as it was planned, cavities that feed the same tickets together. */
const castsByGroup = (setup: PourSetup): (Casts & { loads: CavityLoad[] })[] => {
  const loads = setup.molds.map(({ moldId }) => loadsOf(setup, moldId));
  const parts = partsOf(loads, setup.needs);
  return loads.flatMap((own, at) =>
    groupsOf(own, parts[at]!).map(({ loads: group, wanted, tonight }) => {
      return { loads: group, ...castsUntil(wanted, tonight) };
    }),
  );
};

/**
 * Casts of a pour as it was planned: expected, and laid out for.
 * @example pourCasts(pour.setup).expected // 89.71
 */
export const pourCasts = (setup: PourSetup): Casts => sumOfCasts(castsByGroup(setup));

/** Loads by mold, then by position: what every cast is looked up in. */
function loadsByPlace(setup: PourSetup): Map<string, (CavityLoad | undefined)[]> {
  const places = new Map<string, (CavityLoad | undefined)[]>();
  for (const load of setup.loads) {
    const own = places.get(load.moldId) ?? [];
    own[load.position] = load;
    places.set(load.moldId, own);
  }
  return places;
}

/** The first ticket in the row that still wants a head; the last one, when none does. */
function firstWanting(ticketIds: readonly string[], want: Record<string, number>): string {
  for (const id of ticketIds) if ((want[id] ?? 0) > 0) return id;
  return ticketIds[ticketIds.length - 1]!;
}

const badHead = (moldId: string, ticketId: string, bad: RejectEntry): CastHead => {
  const { position, cause, where = null, goes } = bad;
  return { moldId, position, ticketId, verdict: cause, where, goes };
};

/**
 * Sorts every cast of the run into its ticket: a good head goes to the first ticket in the row that still wants one.
 */
function sortHeads(setup: PourSetup, entries: readonly PourEntry[]) {
  const rejects = new Map<string, RejectEntry[]>();
  for (const entry of entries) {
    if (entry.kind !== 'reject') continue;
    const same = rejects.get(entry.shotId);
    if (same) same.push(entry);
    else rejects.set(entry.shotId, [entry]);
  }
  const want = { ...setup.needs };
  const loadAt = loadsByPlace(setup);
  const good = new Map<CavityLoad, CastHead>();
  const goodHead = (load: CavityLoad, ticketId: string): CastHead => {
    const known = good.get(load);
    if (known?.ticketId === ticketId) return known;
    const { moldId, position } = load;
    const head: CastHead = {
      moldId,
      position,
      ticketId,
      verdict: 'good',
      where: null,
      goes: null,
    };
    good.set(load, head);
    return head;
  };
  const shots: Shot[] = [];
  for (const entry of entries) {
    if (entry.kind !== 'shot') continue;
    const { moldId } = entry;
    const own = loadAt.get(moldId);
    const spoiled = rejects.get(entry.id);
    // A long session is folded at every tap: plain loops, and good heads of a cavity for a ticket are one and the same.
    const heads: CastHead[] = [];
    for (const position of entry.positions) {
      const load = own?.[position];
      if (!load || load.ticketIds.length === 0) continue;
      const bad = spoiled?.findLast((each) => each.position === position);
      const ticketId = firstWanting(load.ticketIds, want);
      if (bad) heads.push(badHead(moldId, ticketId, bad));
      else {
        want[ticketId] = (want[ticketId] ?? 0) - 1;
        heads.push(goodHead(load, ticketId));
      }
    }
    const { id, at, who } = entry;
    shots.push({ id, at, moldId, ...(who === undefined ? {} : { who }), heads });
  }
  return { shots, want };
}

interface LoadGroup {
  loads: CavityLoad[];
  /** Good heads that they still owe, as far as pieces are left to cast them with, and what they give this evening. */
  wanted: number;
  /** Good heads that they owe beyond that. */
  lacking: number;
  tonight: Required<YieldTonight>;
}

/** Casts that a group is expected to take. */
const castsOf = ({ wanted, tonight }: LoadGroup) => wholeCasts(expectedCasts(wanted, tonight));

/** Which tickets a cavity casts for: cavities of the same ones work together. */
const feedsOf = (load: CavityLoad): string => [...load.ticketIds].sort().join();

/**
 * Of what is wanted, each mold's part: where several molds feed the same tickets, by their open cavities, to whole
 * heads.
 */
function partsOf(loads: readonly (readonly CavityLoad[])[], want: Record<string, number>): Map<string, number>[] {
  const parts = loads.map(() => new Map<string, number>());
  const all = loads.flat().filter((load) => load.ticketIds.length > 0);
  for (const key of new Set(all.map(feedsOf))) {
    const wanted = key.split(',').reduce((sum, id) => sum + Math.max(0, want[id] ?? 0), 0);
    const cavities = loads.map((own) => own.filter((load) => feedsOf(load) === key).length);
    const total = cavities.reduce((sum, count) => sum + count, 0);
    let [before, given] = [0, 0];
    cavities.forEach((count, at) => {
      before += count;
      const upTo = Math.round((wanted * before) / total);
      parts[at]!.set(key, upTo - given);
      given = upTo;
    });
  }
  return parts;
}

/** Takes what so many heads are cast with out of what is left, as far as it goes: for how many it did. */
function takenFrom(left: Record<string, number>, load: CavityLoad, heads: number): number {
  const pieces = piecesIn(load).filter(({ materialId }) => left[materialId] !== undefined);
  const can = Math.min(heads, ...pieces.map(({ materialId, quantity }) => Math.floor(left[materialId]! / quantity)));
  for (const { materialId, quantity } of pieces) left[materialId]! -= quantity * can;
  return can;
}

/** Groups with what can still be cast for them: where a piece is short each gets its part by what it owes. */
function limited(groups: readonly LoadGroup[], here: Readonly<Record<string, number>>): LoadGroup[] {
  const left = { ...here };
  const demand: Record<string, number> = {};
  for (const { loads, wanted } of groups) {
    for (const { materialId, quantity } of piecesIn(loads[0]!)) {
      demand[materialId] = (demand[materialId] ?? 0) + quantity * wanted;
    }
  }
  const part = groups.map(({ loads, wanted }) => {
    const shares = piecesIn(loads[0]!).map(({ materialId }) => {
      return demand[materialId]! > 0 ? (here[materialId] ?? Infinity) / demand[materialId]! : 1;
    });
    return takenFrom(left, loads[0]!, Math.floor(wanted * Math.min(1, ...shares)));
  });
  // What is left over by whole pieces goes to the first that can use it.
  return groups.map((group, at) => {
    const can = part[at]! + takenFrom(left, group.loads[0]!, group.wanted - part[at]!);
    return { ...group, wanted: can, lacking: group.wanted - can };
  });
}

/** Open cavities of a mold that feed the same tickets, with their part of what is wanted. */
function groupsOf(loads: readonly CavityLoad[], part: ReadonlyMap<string, number>): LoadGroup[] {
  const groups = new Map<string, CavityLoad[]>();
  for (const load of loads) {
    if (load.ticketIds.length === 0) continue;
    const key = feedsOf(load);
    groups.set(key, [...(groups.get(key) ?? []), load]);
  }
  return [...groups].map(([key, group]) => {
    const wanted = part.get(key) ?? 0;
    const mean = group.reduce((sum, load) => sum + load.yieldShare, 0) / group.length;
    // A pour from before evenings were told apart knows its yield for certain.
    const sure = Math.min(...group.map((load) => load.yieldSure ?? Infinity));
    return { loads: group, wanted, lacking: 0, tonight: { mean, sure } };
  });
}

/** Cavities to load next: no more than heads are wanted and hooks are left, the best cavities first. */
function wantedOf(groups: readonly LoadGroup[], hooksLeft: Record<string, number>): number[] {
  const left = { ...hooksLeft };
  return groups
    .flatMap((group) => {
      const best = [...group.loads].sort((a, b) => b.yieldShare - a.yieldShare || a.position - b.position);
      return best.slice(0, castsOf(group)).filter((load) =>
        piecesIn(load).every(({ materialId, quantity }) => {
          if (left[materialId] === undefined) return true;
          return (left[materialId] -= quantity) >= 0;
        }),
      );
    })
    .map((load) => load.position)
    .sort((a, b) => a - b);
}

function moldStates(
  setup: PourSetup,
  entries: readonly PourEntry[],
  want: Record<string, number>,
  hooksLeft: Record<string, number>,
): MoldState[] {
  const states = setup.molds.map(({ moldId }) => {
    const state: MoldState = {
      moldId,
      blanks: 0,
      shots: 0,
      lastPouredAt: null,
      shotsSinceSmoked: null,
      shotsToGo: 0,
      lacking: 0,
      wantedPositions: [],
      idlePositions: [],
      blockedPositions: [],
      away: false,
    };
    for (const entry of entries) {
      if ((entry as { moldId?: string }).moldId !== moldId || entry.kind === 'weighed') continue;
      if (entry.kind === 'blocked') state.blockedPositions.push(entry.position);
      if (entry.kind === 'mold') state.away = entry.away;
      if (entry.kind === 'smoked') state.shotsSinceSmoked = 0;
      if (entry.kind !== 'shot' && entry.kind !== 'blank') continue;
      state[entry.kind === 'shot' ? 'shots' : 'blanks'] += 1;
      state.lastPouredAt = entry.at;
      if (state.shotsSinceSmoked !== null) state.shotsSinceSmoked += 1;
    }
    return state;
  });
  const openOf = ({ moldId, blockedPositions }: MoldState) =>
    loadsOf(setup, moldId).filter((load) => !blockedPositions.includes(load.position));
  // A mold that was put away casts nothing of what another one at the pot can; what only it casts it still owes.
  const fed = new Set(states.filter(({ away }) => !away).flatMap((state) => openOf(state).map(feedsOf)));
  const casting = states.map((state) => openOf(state).filter((load) => !state.away || !fed.has(feedsOf(load))));
  const parts = partsOf(casting, want);
  const all = casting.map((open, at) => groupsOf(open, parts[at]!));
  const castable = limited(all.flat(), hooksLeft);
  const begin = all.map((_, at) => all.slice(0, at).reduce((sum, own) => sum + own.length, 0));
  return states.map((state, at) => {
    const open = casting[at]!;
    const groups = castable.slice(begin[at]!, begin[at]! + all[at]!.length);
    state.lacking = groups.reduce((sum, group) => sum + group.lacking, 0);
    state.shotsToGo = Math.max(0, ...groups.map((group) => Math.ceil(castsOf(group) / group.loads.length)));
    state.wantedPositions = wantedOf(groups, hooksLeft);
    const { moldId, blockedPositions, wantedPositions } = state;
    const { idle = [] } = setup.molds.find((mold) => mold.moldId === moldId)!;
    // A cavity that was cut for a pin leaks without it: where no head of it is wanted it stays empty.
    const unpinned = open.filter(({ inserts }) => !inserts.some((insert) => OF_A_PIN.includes(insert)));
    state.idlePositions = [
      ...unpinned.map(({ position }) => position).filter((position) => !wantedPositions.includes(position)),
      ...idle.filter((position) => !blockedPositions.includes(position)),
    ].sort((a, b) => a - b);
    return state;
  });
}

const phaseOf = (entries: readonly PourEntry[], shotsToGo: number): PourPhase => {
  const has = (kind: PourEntry['kind']) => entries.some((entry) => entry.kind === kind);
  if (has('close')) return 'closed';
  const pausing = entries.findLast((entry) => entry.kind === 'pause' || entry.kind === 'resume');
  if (pausing?.kind === 'pause') return 'paused';
  if (has('shot')) return shotsToGo === 0 ? 'enough' : 'pouring';
  return has('charge') ? 'warming' : 'cold';
};

/** States that were folded last, by what they are of: a tap asks for the one before it and the one after it again. */
const folded = new WeakMap<PourSetup, { log: PourLog; state: PourState }[]>();
const MOST_KEPT = 3;
const isSame = (a: PourLog, b: PourLog) => a.length === b.length && a.every((entry, at) => entry === b[at]);

/**
 * The whole state of a casting run from its log: what the bench shows, the plan adjusts to and the books use. It is
 * shared by all who ask for the same entries, and not to be changed.
 * @example pourState(pour.setup, twoShots).shots.length // 2
 */
export function pourState(setup: PourSetup, log: PourLog): PourState {
  const kept = folded.get(setup) ?? [];
  const known = kept.find((each) => isSame(each.log, log));
  if (known) return known.state;
  const state = fold(setup, log);
  folded.set(setup, [{ log: [...log], state }, ...kept].slice(0, MOST_KEPT));
  return state;
}

function fold(setup: PourSetup, log: PourLog): PourState {
  const entries = standing<PourEntry>(log);
  const { shots, want } = sortHeads(setup, entries);
  const { byCavity, good, kept, rejects, causes, hooksLost, kg, hooksLeft } = counted(
    setup,
    shots,
    hooksCounted(setup, entries),
  );
  const molds = moldStates(setup, entries, want, hooksLeft);
  const shotsToGo = molds.reduce((sum, mold) => sum + mold.shotsToGo, 0);
  const chargedKg = entries.reduce(
    (sum, entry) => sum + (entry.kind === 'charge' || entry.kind === 'feed' ? entry.massKg : 0),
    0,
  );
  const close = entries.findLast((entry) => entry.kind === 'close');
  return {
    phase: phaseOf(entries, shotsToGo),
    molds,
    shots,
    blanks: molds.reduce((sum, mold) => sum + mold.blanks, 0),
    chargedKg,
    startedAt: entries.find((entry) => entry.kind === 'charge')?.at ?? entries[0]?.at ?? null,
    lastShotAt: entries.findLast((entry) => entry.kind === 'shot' || entry.kind === 'blank')?.at ?? null,
    ...pourWork(entries),
    goodByTicket: good,
    keptByTicket: kept,
    rejectsByTicket: rejects,
    causesByTicket: causes,
    hooksLostByTicket: hooksLost,
    byCavity,
    stillNeeded: Object.fromEntries(Object.entries(want).map(([id, wanted]) => [id, Math.max(0, wanted)])),
    shotsToGo,
    hooksLeft,
    headsKg: kg.heads,
    rejectsKg: kg.rejects,
    redippedKg: kg.redipped,
    spruesKg: kg.sprues,
    balance:
      close?.kind === 'close'
        ? leadBalance({
            chargedKg,
            headsKg: kg.heads,
            sprueBackKg: close.sprueBackKg,
            rejectsBackKg: close.rejectsBackKg,
            drossKg: close.drossKg,
            heelKg: close.heelKg,
          })
        : null,
  };
}

/**
 * Heads cast so far, good or not: what the pace is reckoned from.
 * @example castCount(pourState(pour.setup, twoShots)) // 10
 */
export const castCount = (state: PourState): number =>
  countAll(state.goodByTicket) + countAll(state.keptByTicket) + countAll(state.rejectsByTicket);

/**
 * Metal in the pot and in sprues that go back: charged, less what has left as heads or waits as rejects.
 * @example inPotKg(pourState(pour.setup, twoShots)) // 1.884
 */
export const inPotKg = ({ chargedKg, headsKg, rejectsKg, redippedKg }: PourState): number =>
  Math.max(0, chargedKg - headsKg - rejectsKg + redippedKg);

/**
 * Whether it was said that all of the metal is liquid: it was skimmed.
 * @example isMolten(twoShots) // false
 */
export const isMolten = (log: PourLog): boolean =>
  standing<PourEntry>(log).some((entry) => entry.kind === 'done' && entry.what === 'skimmed');

/**
 * Whether the pot was said to be off.
 * @example potIsOff(twoShots) // false
 */
export const potIsOff = (log: PourLog): boolean =>
  standing<PourEntry>(log).some((entry) => entry.kind === 'done' && entry.what === 'pot off');

/**
 * What the scale will probably say when a pour is closed: the sprues of the last rounds, rejects, dross, the rest in
 * the pot.
 * @example expectedClose(pourState(pour.setup, twoShots), 0.015) // { sprueBackKg: 0.03436, rejectsBackKg: 0,
 *   drossKg: 0.002255, heelKg: 1.847 }
 */
export function expectedClose(state: PourState, drossShare: number) {
  const drossKg = Math.min(state.chargedKg, (state.headsKg + state.spruesKg) * drossShare);
  const free = (taken: number) => Math.max(0, state.chargedKg - taken);
  const rejectsBackKg = Math.min(state.rejectsKg - state.redippedKg, free(state.headsKg + drossKg));
  const sprueBackKg = Math.min(state.spruesKg, free(state.headsKg + drossKg + rejectsBackKg));
  const heelKg = free(state.headsKg + drossKg + rejectsBackKg + sprueBackKg);
  return { sprueBackKg, rejectsBackKg, drossKg, heelKg };
}
