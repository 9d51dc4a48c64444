import type { Pour } from '@schmelz/contract';
import {
  nextTurn,
  nextRedo,
  nextUndo,
  pourRefusal,
  pourState,
  standing,
  stationOf,
  type PourEntry,
  type PourState,
  type RejectEntry,
  type RoutineWork,
  type Shot,
  type ShortWhere,
  type UndoEntry,
} from '@schmelz/core';
import { createElement, useMemo } from 'react';
import { toast } from '../../design/toast.ts';
import { useRunLog } from '../../api/outbox.ts';
import type { TakingBack } from '../../bench/undo.ts';
import { sound, SOUNDS } from '../../shell/clock.ts';
import { Said } from '../../units/Said.tsx';

/** Letters of the causes at the pot. */
export const CAUSE_KEYS: Record<string, string> = Object.fromEntries(
  stationOf('pour').causes.map(({ key, id }) => [key, id]),
);

type Log = (PourEntry | UndoEntry)[];
/** What more can be said of a bad head. */
type Detail = Partial<Pick<RejectEntry, 'where' | 'goes'>>;

export interface PourBench extends TakingBack {
  state: PourState;
  entries: Log;
  unsaved: number;
  /** The newest thing said, which undo takes back. */
  last: PourEntry | undefined;
  /** The mold on the screen: the one that is looked at, or whose turn it is. */
  shownId: string;
  /** The other mold that was poured last, whose shot can be looked at too. */
  otherShotId: string | null;
  /** The shot whose heads are looked at now: the last one of the mold on the screen; a digit means its heads only. */
  looked: Shot | undefined;
  /** The bad head that was marked last, while it is still the newest thing said. */
  marked: RejectEntry | null;
  charge(massKg: number): void;
  feed(massKg: number): void;
  /** The safety list, as it was ticked. */
  checked(items: string[]): void;
  /** A small job at the pot that the coach asked for. */
  done(what: RoutineWork): void;
  blank(moldId: string): void;
  /** The next shot of a mold; `fillIdle` fills cavities without a hook too, to keep the heat. */
  shot(moldId: string, fillIdle: boolean): void;
  smoked(moldId: string): void;
  togglePause(): void;
  /** Marks a cavity of the shot that is looked at as bad, or good again. */
  toggleReject(position: number): void;
  /** Gives the cause of the reject that was marked last. */
  cause(cause: string): void;
  /** Says more of the reject that was marked last; said twice, it is taken back. */
  detail(detail: Detail): void;
  /** Every head that is still good of the shot that is looked at is bad. */
  rejectAll(cause: string): void;
  /** Gives a cavity up for this session: the one whose head was marked bad last. */
  block(): void;
  /** A mold goes to the shelf, or comes to the pot after all. */
  putAway(moldId: string, away: boolean): void;
  /** Hooks of a kind that are left to load. */
  hooksLeft(materialId: string, left: number): void;
  weighed(moldId: string, position: number, massKg: number): void;
  close(back: { sprueBackKg: number; rejectsBackKg: number; drossKg: number; heelKg: number }): void;
}

const WHERE_ROUND: readonly (ShortWhere | undefined)[] = [undefined, 'barb', 'shank', 'nose'];

/** A reject without what says which entry it is. */
const bare = ({ shotId, position, cause, where, goes }: RejectEntry) => ({
  kind: 'reject' as const,
  shotId,
  position,
  cause,
  ...(where ? { where } : {}),
  goes,
});

/** A pour as the bench works it: its state from the log, and everything that can be said. */
export function usePourBench(pour: Pour, preferId: string | null, lookId: string | null): PourBench {
  const { entries, unsaved, say, next } = useRunLog<PourEntry>(`/pours/${pour.id}`, pour.log);
  const { setup } = pour;
  const state = useMemo(() => pourState(setup, entries), [setup, entries]);
  return useMemo(() => {
    const stateOf = (log: Log) => pourState(setup, log);
    // Which mold is next does not hang on the clock, only on the log.
    const shownIn = (of: PourState): string =>
      lookId ??
      preferId ??
      nextTurn(setup, of, of.lastShotAt ?? 0)?.moldId ??
      of.shots.at(-1)?.moldId ??
      setup.molds[0]!.moldId;
    const lookedIn = (of: PourState): Shot | undefined => of.shots.findLast((shot) => shot.moldId === shownIn(of));
    const markedIn = (log: Log): RejectEntry | null => {
      const last = standing<PourEntry>(log).findLast((entry) => entry.kind === 'reject');
      return last?.kind === 'reject' && last.shotId === lookedIn(stateOf(log))?.id ? last : null;
    };
    /** The reject that was marked last is said again, changed: records are corrected, not erased. */
    const amend = (change: (marked: RejectEntry) => RejectEntry) =>
      next((log) => {
        const marked = markedIn(log);
        const changed = marked && change(marked);
        if (!marked || changed === marked) return; // said again, it is as it was
        say({ kind: 'undo', target: marked.id });
        say(bare(changed!));
      });
    const last = nextUndo<PourEntry>(entries);
    const takeBack = (which: (log: Log) => { id: string } | undefined) => () =>
      next((log) => {
        const target = which(log)?.id;
        if (target === undefined) return;
        const why = pourRefusal(setup, log, { id: '', at: 0, kind: 'undo', target });
        if (why) toast.error(why);
        else say({ kind: 'undo', target });
      });
    /** Metal into the pot, as far as it holds it. */
    const fill = (metal: { kind: 'charge'; massKg: number; potC: number } | { kind: 'feed'; massKg: number }) =>
      next((log) => {
        const why = pourRefusal(setup, log, { id: '', at: 0, ...metal });
        if (why) toast.error(createElement(Said, { of: why }));
        else say(metal);
      });
    return {
      state,
      entries,
      unsaved,
      last,
      shownId: shownIn(state),
      otherShotId: state.shots.findLast((shot) => shot.moldId !== shownIn(state))?.moldId ?? null,
      looked: lookedIn(state),
      marked: last?.kind === 'reject' && last.shotId === lookedIn(state)?.id ? last : null,
      charge: (massKg) => fill({ kind: 'charge', massKg, potC: 20 }),
      feed: (massKg) => fill({ kind: 'feed', massKg }),
      checked: (items) => say({ kind: 'checked', items }),
      done: (what) => say({ kind: 'done', what }),
      blank: (moldId) => {
        sound(SOUNDS.tap);
        say({ kind: 'blank', moldId });
      },
      shot: (moldId, fillIdle) =>
        next((log) => {
          const mold = stateOf(log).molds.find((each) => each.moldId === moldId);
          if (!mold || mold.wantedPositions.length === 0) return;
          sound(SOUNDS.tap);
          const filled = fillIdle && mold.idlePositions.length > 0 ? { filled: mold.idlePositions } : {};
          say({ kind: 'shot', moldId, positions: mold.wantedPositions, ...filled });
        }),
      smoked: (moldId) => say({ kind: 'smoked', moldId }),
      togglePause: () => next((log) => say({ kind: stateOf(log).phase === 'paused' ? 'resume' : 'pause' })),
      toggleReject: (position) =>
        next((log) => {
          const shot = lookedIn(stateOf(log));
          if (!shot?.heads.some((head) => head.position === position)) return;
          const marked = standing<PourEntry>(log).findLast(
            (entry) => entry.kind === 'reject' && entry.shotId === shot.id && entry.position === position,
          );
          sound(SOUNDS.reject);
          if (marked) say({ kind: 'undo', target: marked.id });
          else say({ kind: 'reject', shotId: shot.id, position, cause: 'short', goes: 'melt' });
        }),
      cause: (cause) =>
        amend((marked) => {
          if (marked.cause !== cause) return { ...marked, cause, where: cause === 'short' ? marked.where : undefined };
          if (cause !== 'short') return marked;
          return { ...marked, where: WHERE_ROUND[(WHERE_ROUND.indexOf(marked.where) + 1) % WHERE_ROUND.length] };
        }),
      detail: (detail) =>
        amend((marked) => {
          const said = { ...marked, ...detail };
          if (detail.where && detail.where === marked.where) said.where = undefined;
          if (detail.goes && detail.goes === marked.goes) said.goes = 'melt';
          return said;
        }),
      rejectAll: (cause) =>
        next((log) => {
          const shot = lookedIn(stateOf(log));
          if (!shot) return;
          sound(SOUNDS.reject);
          for (const { position, verdict } of shot.heads) {
            if (verdict === 'good') say({ kind: 'reject', shotId: shot.id, position, cause, goes: 'melt' });
          }
        }),
      block: () =>
        next((log) => {
          const marked = markedIn(log);
          const shot = marked && stateOf(log).shots.find((each) => each.id === marked.shotId);
          if (marked && shot) say({ kind: 'blocked', moldId: shot.moldId, position: marked.position });
        }),
      putAway: (moldId, away) => say({ kind: 'mold', moldId, away }),
      hooksLeft: (materialId, left) => say({ kind: 'hooks', materialId, left }),
      weighed: (moldId, position, massKg) => say({ kind: 'weighed', moldId, position, massKg }),
      canBringBack: nextRedo<PourEntry>(entries) !== undefined,
      undo: takeBack(nextUndo<PourEntry>),
      bringBack: takeBack(nextRedo<PourEntry>),
      close: (back) => say({ kind: 'close', ...back }),
    };
  }, [entries, lookId, next, preferId, setup, say, state, unsaved]);
}
