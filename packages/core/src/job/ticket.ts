import type { DoorOpening } from '../bake/running.ts';
import type { CountFrom } from '../bake/count-from.ts';
import { standing, undoRefusal, type UndoEntry } from '../log/log.ts';
import { disposition, type DispositionId } from './dispositions.ts';
import { stepOfRoute, type RouteStep } from './route.ts';
import { stepOfEntry, type TicketEntry, type TicketLog } from './ticket-log.ts';
import { addHands, type HandsByWho } from './hands.ts';
import { stepWork } from './work.ts';

interface OvenLoad {
  id: string;
  step: string;
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
  /** Of all heads of the load, those of this ticket: its part of the electricity. */
  share: number;
}

/** A coat of liquid paint on the heads of a ticket. */
export interface WetCoat {
  id: string;
  step: string;
  coat: number;
  paint: string;
  onAt: number;
  dryAt: number;
}

export interface StepState {
  key: string;
  station: string;
  does: string;
  status: 'waiting' | 'ready' | 'running' | 'paused' | 'done';
  /** Heads that came: good ones of the step before, and what was sent back here. */
  arrived: number;
  good: number;
  /** Heads that were not good, by cause, and by what became of them. */
  rejects: Record<string, number>;
  gone: Partial<Record<DispositionId, number>>;
  /** The same by both: what became of the heads of each cause. */
  thrown: { cause: string; goes: DispositionId; heads: number }[];
  rejected: number;
  /** Whose hands they went through, as far as it was said. */
  hands: HandsByWho;
  /** Cut-off sprues weighed here, kg. */
  sprueKg: number;
  /** By part: pieces that broke or were lost here; bad heads that went before it was on, and whose parts come back. */
  spoiled: Record<string, number>;
  spared: Record<string, { heads: number; back: number }>;
  /** By glue: what was mixed for heads of here, ml, and the heads that were done with it. */
  mixed: Record<string, { ml: number; heads: number }>;
  /** Heads here that are neither good nor rejected yet. */
  left: number;
  /** Of those, in the oven. */
  inOven: number;
  workS: number;
  /** Heads of which nobody knows how long they took, and what passed while they were done, s. */
  notTimed: number;
  notTimedS: number;
  lastAt: number | null;
  /** The wait of the step before is over then; null where nothing has to pass. */
  readyAt: number | null;
}

export interface TicketState {
  /** In the order of the route. */
  steps: StepState[];
  loads: OvenLoad[];
  coats: WetCoat[];
  /** Heads taken off the shelf so far. */
  taken: number;
  /** Where the ticket's work is: the first step that is not done, the pot or the shelf before it, closing behind it. */
  at: string;
  good: number;
  closedAt: number | null;
}

/** What a ticket's heads are made from: poured for it, or taken off the shelf. */
export const SOURCES = ['pour', 'shelf'] as const;
export type Source = (typeof SOURCES)[number];

/** Where {@link TicketState.at} is when it is no step. */
export const AT = { pour: 'pour', take: 'take', close: 'close', closed: 'closed' } as const;

export interface TicketSetup {
  /** The route it was released with. */
  route: readonly RouteStep[];
  source: Source;
  /** Good heads from the pour so far. */
  poured: number;
  /** Whether the pour is closed, so that no more will come. */
  pourClosed: boolean;
  /** What a head takes at a step by the ways of its day, s: what time can be its own. */
  handsS?: Readonly<Record<string, number>>;
}

/**
 * The step of a ticket by its key.
 * @example stepState(ticketState(twoSteps, []), 'trim').left // 6
 */
export const stepState = (state: TicketState, key: string): StepState | undefined =>
  state.steps.find((step) => step.key === key);

/**
 * The step that is worked on at a station: the first there with heads, or the first there at all.
 * @example stepAtStation(ticketState(twoSteps, []), 'paint').left // 0
 */
export function stepAtStation(state: TicketState, station: string): StepState | undefined {
  const there = state.steps.filter((step) => step.station === station);
  return there.find((step) => step.left > 0) ?? there.find((step) => step.status !== 'done') ?? there[0];
}

const add = (counts: Record<string, number>, key: string, count: number) => {
  counts[key] = (counts[key] ?? 0) + count;
};

/** Everything that was sent back to a step, from wherever on the route. */
const sentBackTo = (entries: readonly TicketEntry[], key: string): number =>
  entries.reduce((sum, entry) => {
    if (entry.kind !== 'reject' || !disposition(entry.goes).stays) return sum;
    return (entry.to ?? entry.step) === key ? sum + entry.count : sum;
  }, 0);

interface Before {
  arrived: number;
  done: boolean;
  /** When the last head came through the step before, and what has to pass after it. */
  readyAt: number | null;
}

/** What was said of parts at a step, beyond what each head takes. */
function partsAt(own: readonly TicketEntry[]): Pick<StepState, 'spoiled' | 'spared' | 'mixed'> {
  const spoiled: StepState['spoiled'] = {};
  const spared: StepState['spared'] = {};
  const mixed: StepState['mixed'] = {};
  for (const entry of own) {
    if (entry.kind === 'spoiled') add(spoiled, entry.partId, entry.count);
    if (entry.kind === 'mixed') {
      const { ml, heads } = mixed[entry.partId] ?? { ml: 0, heads: 0 };
      mixed[entry.partId] = { ml: ml + entry.ml, heads: heads + entry.heads };
    }
    if (entry.kind !== 'reject') continue;
    for (const partId of new Set(entry.spared)) {
      const { heads, back } = spared[partId] ?? { heads: 0, back: 0 };
      const comes = disposition(entry.goes).parts ? entry.count : 0;
      spared[partId] = { heads: heads + entry.count, back: back + comes };
    }
  }
  return { spoiled, spared, mixed };
}

function foldStep(
  step: RouteStep,
  before: Before,
  entries: readonly TicketEntry[],
  loads: readonly OvenLoad[],
  paceS: number,
): StepState {
  const own = entries.filter((entry) => stepOfEntry(entry) === step.key);
  let [good, rejected, sprueKg] = [0, 0, 0];
  const rejects: Record<string, number> = {};
  const gone: Record<string, number> = {};
  const thrown: StepState['thrown'] = [];
  const hands: HandsByWho = {};
  const { spoiled, spared, mixed } = partsAt(own);
  for (const entry of own) {
    if (entry.kind === 'good' || entry.kind === 'reject') {
      addHands(hands, entry.who, entry.count, entry.kind === 'reject' ? entry.count : 0);
    }
    if (entry.kind === 'good') good += entry.count;
    if (entry.kind === 'sprue') sprueKg += entry.massKg;
    if (entry.kind === 'reject') {
      rejected += entry.count;
      add(rejects, entry.cause, entry.count);
      add(gone, entry.goes, entry.count);
      const alike = thrown.find(({ cause, goes }) => cause === entry.cause && goes === entry.goes);
      if (alike) alike.heads += entry.count;
      else thrown.push({ cause: entry.cause, goes: entry.goes, heads: entry.count });
    }
  }
  const inOven = loads
    .filter((load) => load.step === step.key && load.unloadedAt === null)
    .reduce((sum, load) => sum + load.count, 0);
  const arrived = before.arrived + sentBackTo(entries, step.key);
  const left = arrived - good - rejected;
  const pausing = own.findLast((entry) => entry.kind === 'pause' || entry.kind === 'resume' || entry.kind === 'start');
  const status = (): StepState['status'] => {
    if (left === 0 && before.done) return 'done';
    if (pausing?.kind === 'pause') return 'paused';
    if (left <= 0) return 'waiting';
    return own.length > 0 ? 'running' : 'ready';
  };
  return {
    key: step.key,
    station: step.station,
    does: step.does,
    status: status(),
    arrived,
    good,
    rejects,
    gone,
    thrown,
    rejected,
    hands,
    sprueKg,
    spoiled,
    spared,
    mixed,
    left,
    inOven,
    // A mix is begun for all its tickets at once: that is no work at the first head of each.
    ...stepWork(
      own.filter(({ kind }) => kind !== 'mixed'),
      paceS,
    ),
    lastAt: own.at(-1)?.at ?? null,
    readyAt: before.readyAt,
  };
}

/** Loads of the oven, as the log tells them: hung up, warm, its door opened, taken out. */
function loadsOf(entries: readonly TicketEntry[]): OvenLoad[] {
  const loads: OvenLoad[] = [];
  for (const entry of entries) {
    if (entry.kind === 'load') {
      const { id, step, count, setC, seconds, preheated, from = 'door', share = 1, at: loadedAt } = entry;
      const warmS = from === 'metal' ? (entry.warmS ?? 0) : 0;
      const endsAt = loadedAt + 1000 * (warmS + seconds);
      const program = { id, step, count, setC, seconds, preheated, from, warmS };
      loads.push({ ...program, loadedAt, warmAt: null, doors: [], endsAt, unloadedAt: null, coolS: 0, share });
    }
    const loadId = 'loadId' in entry ? entry.loadId : undefined;
    const open = loads.find((load) => {
      return load.unloadedAt === null && (loadId === undefined ? load.step === stepOfEntry(entry) : load.id === loadId);
    });
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
  return loads;
}

const coatsOf = (entries: readonly TicketEntry[]): WetCoat[] =>
  entries.flatMap((entry) => {
    if (entry.kind !== 'coat') return [];
    const { id, step, coat, paint, at: onAt, dryS } = entry;
    return [{ id, step, coat, paint, onAt, dryAt: onAt + 1000 * dryS }];
  });

/**
 * The state of a ticket along the steps of its route, from its log. At each step, what came is what is good, what is
 * gone and what is still there; what was sent back comes to its step once more.
 * @example ticketState(twoSteps, [{ id: 'e', at: 0, kind: 'good', step: 'trim',
 *   count: 4 }]).steps.map(({ left }) => left) // [2, 4]
 */
export function ticketState(setup: TicketSetup, log: TicketLog): TicketState {
  const entries = standing<TicketEntry>(log);
  const loads = loadsOf(entries);
  const taken = entries.reduce((sum, entry) => sum + (entry.kind === 'take' ? entry.count : 0), 0);
  const begun = setup.source === 'pour' ? setup.pourClosed : taken > 0;
  let at: string | null = begun ? null : AT[setup.source === 'pour' ? 'pour' : 'take'];
  let before: Before = { arrived: setup.poured + taken, done: begun, readyAt: null };
  const steps: StepState[] = [];
  for (const step of setup.route) {
    const state = foldStep(step, before, entries, loads, setup.handsS?.[step.key] ?? 0);
    steps.push(state);
    if (state.status !== 'done' && at === null) at = step.key;
    const through = entries.findLast((entry) => entry.kind === 'good' && entry.step === step.key);
    const readyAt = step.wait && through ? through.at + 1000 * step.wait.seconds : null;
    before = { arrived: state.good, done: state.status === 'done', readyAt };
  }
  const close = entries.findLast((entry) => entry.kind === 'close');
  if (close) at = AT.closed;
  const good = before.arrived;
  return { steps, loads, coats: coatsOf(entries), taken, at: at ?? AT.close, good, closedAt: close?.at ?? null };
}

const OF_LOADS: ReadonlySet<string> = new Set(['unload', 'warm', 'door']);
/** What can be said at the steps of one station only. */
const ONLY_AT: Record<string, string> = {
  load: 'bake',
  unload: 'bake',
  warm: 'bake',
  door: 'bake',
  coat: 'paint',
  sprue: 'trim',
};

/** What a log cannot be: fewer heads than none at a step, more in the oven than are there, closed with heads left. */
function impossible(state: TicketState, setup: TicketSetup): { step: StepState; why: string } | null {
  for (const step of state.steps) {
    if (step.left < 0) return { step, why: `${-step.left} heads too few would be at ${step.key}` };
    if (step.inOven > step.left)
      return { step, why: `the oven would hold more than the ${step.left} heads at ${step.key}` };
    if (state.closedAt !== null && step.left > 0) {
      return { step, why: `the ticket is closed, and ${step.left} heads would be left at ${step.key}` };
    }
  }
  const last = state.steps.at(-1);
  const open = setup.source === 'pour' && !setup.pourClosed && state.closedAt !== null;
  return open && last ? { step: last, why: 'the ticket is closed, and its pour would be open again' } : null;
}

const SAID: Partial<Record<TicketEntry['kind'], string>> = { good: 'good', reject: 'not good', load: 'in the oven' };

/**
 * Why a ticket's log cannot become what it would be, whatever it was that changed it: an undo here, a head of its pour
 * that is not good after all, a load that goes back into the oven. Null where it can. Says what to take back first.
 * @example ticketConflict({ ...twoSteps, poured: 3 }, [{ id: 'e', at: 0, kind: 'good', step: 'trim', count: 4 }])
 *   // 'Not possible: 1 heads too few would be at trim. Take back first: 4 good at trim.'
 */
export function ticketConflict(setup: TicketSetup, log: TicketLog): string | null {
  const state = ticketState(setup, log);
  const found = impossible(state, setup);
  if (!found) return null;
  if (state.closedAt !== null) return `Not possible: ${found.why}. Take back the closing of the ticket first.`;
  const entries = standing<TicketEntry>(log);
  const newest = entries.findLast((entry) => stepOfEntry(entry) === found.step.key && SAID[entry.kind]);
  const first =
    newest && 'count' in newest ? ` Take back first: ${newest.count} ${SAID[newest.kind]} at ${found.step.key}.` : '';
  return `Not possible: ${found.why}.${first}`;
}

/**
 * Why an entry may not be taken back, in words; null when it may.
 * @example ticketUndoRefusal(twoSteps, [{ id: 'a', at: 0, kind: 'good', step: 'trim', count: 4 }, { id: 'b', at: 1,
 *   kind: 'good', step: 'paint', count: 4 }], { id: 'u', at: 2, kind: 'undo', target: 'a' })
 *   // 'Not possible: 4 heads too few would be at paint. Take back first: 4 good at paint.'
 */
export function ticketUndoRefusal(setup: TicketSetup, log: TicketLog, entry: UndoEntry): string | null {
  const why = undoRefusal(log, entry);
  if (why) return why;
  const closing = standing<TicketEntry>(log).findLast((each) => each.kind === 'close');
  if (closing && closing.id !== entry.target) return 'This ticket is closed. Take back its closing first.';
  return ticketConflict(setup, [...log, entry]);
}

/**
 * What a new entry may not do, in words; null when it may. Counting more heads than are there is refused.
 * @example ticketRefusal(twoSteps, [], { id: 'e', at: 0, kind: 'good', step: 'paint', count: 1 })
 *   // 'count is 1; allowed: none, as no head waits at paint'
 */
export function ticketRefusal(setup: TicketSetup, log: TicketLog, entry: TicketEntry): string | null {
  const state = ticketState(setup, log);
  // Minutes are put right whenever somebody knows better.
  if (entry.kind === 'minutes' && stepState(state, entry.step)) return null;
  if (state.at === AT.closed) return 'This ticket is closed. Undo the closing first.';
  if (entry.kind === 'close') {
    if (state.at === AT.close) return null;
    const waits = state.steps.find((step) => step.key === state.at);
    return `Heads still wait at ${waits?.does.toLowerCase() ?? state.at}; a ticket closes after its last step.`;
  }
  if (entry.kind === 'take') {
    return setup.source === 'shelf' ? null : 'The heads of this ticket are poured, not taken off the shelf.';
  }
  const step = stepState(state, entry.step);
  if (!step) {
    return `step is ${JSON.stringify(entry.step)}; allowed: ${setup.route.map((each) => each.key).join(', ')}`;
  }
  const only = ONLY_AT[entry.kind];
  if (only && only !== step.station) {
    const steps = setup.route.filter((each) => each.station === only).map((each) => each.key);
    return `step is ${JSON.stringify(entry.step)}; allowed: ${steps.join(', ') || `a step at ${only}`}`;
  }
  if (entry.kind === 'pause' && step.status === 'paused') return 'The work at this step rests already.';
  if (entry.kind === 'resume' && step.status !== 'paused') return 'The work at this step goes on already.';
  if (entry.kind === 'start' && step.lastAt !== null) return 'The work at this step was begun already.';
  const free = step.left - step.inOven;
  if ((entry.kind === 'good' || entry.kind === 'reject' || entry.kind === 'load') && entry.count > free) {
    const allowed = free > 0 ? `1 to ${free}, the heads that wait at` : 'none, as no head waits at';
    return `count is ${entry.count}; allowed: ${allowed} ${entry.step}`;
  }
  if (entry.kind === 'good') {
    const setting = stillSetting(setup.route, log, entry);
    if (setting) return setting;
  }
  if (entry.kind === 'reject' && entry.to !== undefined) {
    if (!disposition(entry.goes).stays) return 'to is given; allowed: only where heads are sent back to a step';
    const places = setup.route.map((each) => each.key);
    if (!stepOfRoute(setup.route, entry.to) || places.indexOf(entry.to) > places.indexOf(entry.step)) {
      const allowed = places.slice(0, places.indexOf(entry.step) + 1).join(', ');
      return `to is ${JSON.stringify(entry.to)}; allowed: ${allowed}, a step that they have come through`;
    }
  }
  if (entry.kind === 'load' && step.inOven > 0) return 'The oven holds a load of this ticket; take it out first.';
  if (OF_LOADS.has(entry.kind) && step.inOven === 0) return 'No load of this ticket is in the oven.';
  return null;
}

/**
 * Heads that may be worked on at a step at a moment, because what was glued before it is set: all of them where nothing
 * sets before it. Heads are set in the order in which they were done.
 * @example headsSet(usualRoute({ painted: false, baked: false }), [], 'finish', 0).nextAt // null
 */
export function headsSet(
  route: readonly RouteStep[],
  log: TicketLog,
  step: string,
  at: number,
): { ready: number; nextAt: number | null } {
  const before = route[route.findIndex(({ key }) => key === step) - 1];
  if (!before?.task || !before.wait) return { ready: Infinity, nextAt: null };
  const waitMs = 1000 * before.wait.seconds;
  let [ready, nextAt] = [0, null as number | null];
  for (const each of standing<TicketEntry>(log)) {
    // What is sent back to this very step stays here, and is set.
    const back = each.kind === 'reject' && disposition(each.goes).stays && (each.to ?? each.step) === step;
    const gone = (each.kind === 'good' || each.kind === 'reject') && each.step === step && !back;
    if (gone) ready -= each.count;
    if (each.kind !== 'good' || each.step !== before.key) continue;
    if (each.at + waitMs <= at) ready += each.count;
    else nextAt = Math.min(nextAt ?? Infinity, each.at + waitMs);
  }
  return { ready: Math.max(0, ready), nextAt };
}

/** Nothing is bagged, packed or hung on before what was glued is set: why not yet, in words; null when it may. */
function stillSetting(
  route: readonly RouteStep[],
  log: TicketLog,
  { at, count, step }: Extract<TicketEntry, { kind: 'good' }>,
): string | null {
  const { ready, nextAt } = headsSet(route, log, step, at);
  if (count <= ready) return null;
  const { wait } = route[route.findIndex(({ key }) => key === step) - 1]!;
  const next = nextAt === null ? '' : `, ${Math.ceil((nextAt - at) / 60_000)} min more for the next`;
  return `count is ${count}; allowed: 0 to ${ready}, the others are not set: ${wait!.name}${next}`;
}

/**
 * Heads at a bake: still to be hung up, in the oven, out and not looked at yet.
 * @example bakeCounts({ steps: [], loads: [] }, 'bake') // { toLoad: 0, inOven: 0, toInspect: 0 }
 */
export function bakeCounts(state: TicketState, key: string): { toLoad: number; inOven: number; toInspect: number } {
  const step = stepState(state, key);
  if (!step) return { toLoad: 0, inOven: 0, toInspect: 0 };
  const out = state.loads
    .filter((load) => load.step === key && load.unloadedAt !== null)
    .reduce((sum, load) => sum + load.count, 0);
  const toInspect = Math.max(0, Math.min(step.left - step.inOven, out - step.good - step.rejected));
  return { toLoad: step.left - step.inOven - toInspect, inOven: step.inOven, toInspect };
}
