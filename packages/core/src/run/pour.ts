import { castsFor } from '../count/binomial.ts';
import { leadBalance, type LeadBalance } from '../balance/lead-balance.ts';
import type { PourCause } from './causes.ts';
import { standing, workSeconds, type Entry, type UndoEntry } from './log.ts';

/** What stands in a cavity for this run. Several tickets that want the same blank wait in a row. */
export interface CavityLoad {
  position: number;
  cavityId: string;
  /** Tickets that take heads from this cavity, first served first; empty: the cavity is not used. */
  batchIds: string[];
  hookMaterialId: string | null;
  leadKg: number;
  sprueKg: number;
  yieldShare: number;
}

export interface PourSetup {
  loads: CavityLoad[];
  /** Good heads wanted by ticket. */
  needs: Record<string, number>;
  plannedBlanks: number;
}

/** Small jobs at the pot that the coach asks for and that end their asking. */
export const ROUTINE_WORK = ['skimmed', 'stream looked at'] as const;
export type RoutineWork = (typeof ROUTINE_WORK)[number];

export type PourEntry =
  | (Entry & { kind: 'charge'; massKg: number; potC: number })
  | (Entry & { kind: 'feed'; massKg: number })
  | (Entry & { kind: 'blank' })
  | (Entry & { kind: 'shot'; positions: number[] })
  | (Entry & { kind: 'reject'; shotId: string; position: number; cause: PourCause; hookLost?: boolean })
  | (Entry & { kind: 'smoked' })
  | (Entry & { kind: 'blocked'; position: number })
  | (Entry & { kind: 'checked'; items: string[] })
  | (Entry & { kind: 'done'; what: RoutineWork })
  | (Entry & { kind: 'pause' })
  | (Entry & { kind: 'resume' })
  | (Entry & { kind: 'close'; sprueBackKg: number; rejectsBackKg: number; drossKg: number; heelKg: number });

export type PourLog = readonly (PourEntry | UndoEntry)[];

export interface CastHead {
  position: number;
  batchId: string | null;
  verdict: 'good' | PourCause;
  hookLost: boolean;
}
export interface Shot {
  id: string;
  at: number;
  heads: CastHead[];
}
export type PourPhase = 'cold' | 'warming' | 'pouring' | 'paused' | 'enough' | 'closed';

export interface PourState {
  phase: PourPhase;
  shots: Shot[];
  blanks: number;
  chargedKg: number;
  startedAt: number | null;
  lastShotAt: number | null;
  workS: number;
  /** Shots, blank ones included, since the mold was smoked in this run; null when it was not smoked in it. */
  shotsSinceSmoked: number | null;
  goodByBatch: Record<string, number>;
  rejectsByBatch: Record<string, number>;
  hooksLostByBatch: Record<string, number>;
  byPosition: Record<number, { good: number; rejects: Partial<Record<PourCause, number>> }>;
  stillNeeded: Record<string, number>;
  /** Shots to plan for what is still needed, grossed up for yield; 0 when all tickets have enough. */
  shotsToGo: number;
  /** Which cavities still have a ticket that wants a head; blocked ones are left out. */
  wantedPositions: number[];
  /** Cavities given up in the middle of this session. */
  blockedPositions: number[];
  headsKg: number;
  rejectsKg: number;
  spruesKg: number;
  balance: LeadBalance | null;
}

const total = (counts: Record<string, number>) => Object.values(counts).reduce((sum, count) => sum + count, 0);

/** Sorts every cast of the run into its ticket: a good head goes to the first ticket in the row that still wants one. */
function sortHeads(setup: PourSetup, entries: readonly PourEntry[]) {
  const rejects = new Map<string, { cause: PourCause; hookLost: boolean }>();
  for (const entry of entries) {
    if (entry.kind === 'reject') {
      rejects.set(`${entry.shotId} ${entry.position}`, { cause: entry.cause, hookLost: entry.hookLost ?? false });
    }
  }
  const want = { ...setup.needs };
  const loadAt = new Map(setup.loads.map((load) => [load.position, load]));
  const shots: Shot[] = [];
  for (const entry of entries) {
    if (entry.kind !== 'shot') continue;
    const heads = entry.positions.flatMap((position): CastHead[] => {
      const load = loadAt.get(position);
      if (!load || load.batchIds.length === 0) return [];
      const reject = rejects.get(`${entry.id} ${position}`);
      const batchId = load.batchIds.find((id) => (want[id] ?? 0) > 0) ?? load.batchIds.at(-1)!;
      if (!reject) want[batchId] = (want[batchId] ?? 0) - 1;
      return [{ position, batchId, verdict: reject?.cause ?? 'good', hookLost: reject?.hookLost ?? false }];
    });
    shots.push({ id: entry.id, at: entry.at, heads });
  }
  return { shots, want };
}

/**
 * Shots to plan so that every ticket gets what it still wants: cavities that feed the same tickets work together,
 * grossed up for their mean yield.
 */
function shotsFor(setup: PourSetup, want: Record<string, number>, blocked: readonly number[]): number {
  const groups = new Map<string, CavityLoad[]>();
  for (const load of setup.loads) {
    if (load.batchIds.length === 0 || blocked.includes(load.position)) continue;
    const key = [...load.batchIds].sort().join();
    groups.set(key, [...(groups.get(key) ?? []), load]);
  }
  let shots = 0;
  for (const loads of groups.values()) {
    const wanted = loads[0]!.batchIds.reduce((sum, id) => sum + Math.max(0, want[id] ?? 0), 0);
    const yieldShare = loads.reduce((sum, load) => sum + load.yieldShare, 0) / loads.length;
    shots = Math.max(shots, Math.ceil(castsFor(wanted, yieldShare) / loads.length));
  }
  return shots;
}

const phaseOf = (entries: readonly PourEntry[], shotsToGo: number): PourPhase => {
  const has = (kind: PourEntry['kind']) => entries.some((entry) => entry.kind === kind);
  if (has('close')) return 'closed';
  const pausing = entries.findLast((entry) => entry.kind === 'pause' || entry.kind === 'resume');
  if (pausing?.kind === 'pause') return 'paused';
  if (has('shot')) return shotsToGo === 0 ? 'enough' : 'pouring';
  return has('charge') ? 'warming' : 'cold';
};

/** The whole state of a casting run from its log: what the bench shows, the plan adjusts to and the books use. */
export function pourState(setup: PourSetup, log: PourLog): PourState {
  const entries = standing<PourEntry>(log);
  const { shots, want } = sortHeads(setup, entries);
  const blockedPositions = [...new Set(entries.flatMap((entry) => (entry.kind === 'blocked' ? [entry.position] : [])))];
  const heads = shots.flatMap((shot) => shot.heads);
  const loadAt = new Map(setup.loads.map((load) => [load.position, load]));
  const state: PourState = {
    phase: 'cold',
    shots,
    blanks: entries.filter((entry) => entry.kind === 'blank').length,
    chargedKg: 0,
    startedAt: entries.find((entry) => entry.kind === 'charge')?.at ?? entries[0]?.at ?? null,
    lastShotAt: entries.findLast((entry) => entry.kind === 'shot' || entry.kind === 'blank')?.at ?? null,
    workS: workSeconds(entries),
    shotsSinceSmoked: null,
    goodByBatch: {},
    rejectsByBatch: {},
    hooksLostByBatch: {},
    byPosition: Object.fromEntries(setup.loads.map((load) => [load.position, { good: 0, rejects: {} }])),
    stillNeeded: Object.fromEntries(Object.entries(want).map(([id, wanted]) => [id, Math.max(0, wanted)])),
    shotsToGo: shotsFor(setup, want, blockedPositions),
    wantedPositions: setup.loads
      .filter((load) => !blockedPositions.includes(load.position))
      .filter((load) => load.batchIds.some((id) => (want[id] ?? 0) > 0))
      .map((load) => load.position),
    blockedPositions,
    headsKg: 0,
    rejectsKg: 0,
    spruesKg: 0,
    balance: null,
  };
  for (const entry of entries) {
    if (entry.kind === 'charge' || entry.kind === 'feed') state.chargedKg += entry.massKg;
    if (entry.kind === 'smoked') state.shotsSinceSmoked = 0;
    if (entry.kind === 'shot' || entry.kind === 'blank') {
      if (state.shotsSinceSmoked !== null) state.shotsSinceSmoked += 1;
    }
  }
  for (const head of heads) {
    const load = loadAt.get(head.position)!;
    const column = state.byPosition[head.position]!;
    const batchId = head.batchId!;
    state.spruesKg += load.sprueKg;
    if (head.verdict === 'good') {
      column.good += 1;
      state.goodByBatch[batchId] = (state.goodByBatch[batchId] ?? 0) + 1;
      state.headsKg += load.leadKg;
    } else {
      column.rejects[head.verdict] = (column.rejects[head.verdict] ?? 0) + 1;
      state.rejectsByBatch[batchId] = (state.rejectsByBatch[batchId] ?? 0) + 1;
      if (head.hookLost) state.hooksLostByBatch[batchId] = (state.hooksLostByBatch[batchId] ?? 0) + 1;
      state.rejectsKg += load.leadKg;
    }
  }
  state.phase = phaseOf(entries, state.shotsToGo);
  const close = entries.findLast((entry) => entry.kind === 'close');
  if (close) {
    const { sprueBackKg, rejectsBackKg, drossKg, heelKg } = close;
    const { chargedKg, headsKg } = state;
    state.balance = leadBalance({ chargedKg, headsKg, sprueBackKg, rejectsBackKg, drossKg, heelKg });
  }
  return state;
}

/** Heads cast so far, good or not: what the pace is reckoned from. */
export const castCount = (state: PourState): number => total(state.goodByBatch) + total(state.rejectsByBatch);

/** What the scale will probably say when a pour is closed: the sprues of the last rounds, rejects, dross, the rest in the pot. */
export function expectedClose(state: PourState, drossShare: number) {
  const drossKg = Math.min(state.chargedKg, (state.headsKg + state.spruesKg) * drossShare);
  const free = (taken: number) => Math.max(0, state.chargedKg - taken);
  const rejectsBackKg = Math.min(state.rejectsKg, free(state.headsKg + drossKg));
  const sprueBackKg = Math.min(state.spruesKg, free(state.headsKg + drossKg + rejectsBackKg));
  const heelKg = free(state.headsKg + drossKg + rejectsBackKg + sprueBackKg);
  return { sprueBackKg, rejectsBackKg, drossKg, heelKg };
}
