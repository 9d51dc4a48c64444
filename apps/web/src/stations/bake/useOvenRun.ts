import type { RunView } from '@schmelz/contract';
import {
  bakeCurve,
  bakeNow,
  coolDownS,
  goesAsDrawn,
  headsInLoad,
  IN_AN_OVEN_C,
  lastFull,
  nextRedo,
  nextUndo,
  partOfLog,
  ovenState,
  type BakeCourse,
  type OvenEntry,
  type OvenState,
  type PlanProduct,
  type Reading,
  type UndoEntry,
} from '@schmelz/core';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useMemo, useState } from 'react';
import { call } from '../../api/client.ts';
import { useLive } from '../../api/live.ts';
import { useRunLog } from '../../api/outbox.ts';
import { useList } from '../../api/queries.ts';
import type { BenchAction } from '../../bench/BenchFrame.tsx';
import { undoActions } from '../../bench/undo.ts';
import { useNow } from '../../shell/clock.ts';

const LOOK_AGAIN_MS = 5000;
const DRAWN_AGAIN_MS = 15_000;

interface ProbeInOven {
  readings: Reading[];
  /** It reads, but no hotter than a room: it hangs somewhere else. */
  elsewhere: boolean;
}

/** What a probe in the oven has said since the door was shut. */
function useOvenProbe(id: string, load: OvenState): ProbeInOven {
  const live = useLive('oven');
  const baking = load.phase === 'baking';
  const hot = baking && live !== null && live.celsius >= IN_AN_OVEN_C;
  const [channel, setChannel] = useState<number | null>(null);
  // A probe that was once in the hot oven is listened to on, through its drop-outs.
  if (hot && live.channel !== channel) setChannel(live.channel);
  const { data } = useQuery({
    queryKey: ['oven probe', channel, id],
    queryFn: () => call('GET /readings/raw', { query: { channel: channel!, from: load.loadedAt } }),
    enabled: channel !== null && baking,
    refetchInterval: LOOK_AGAIN_MS,
  });
  const elsewhere = live !== null && !hot && channel === null;
  return useMemo(() => ({ readings: data ?? [], elsewhere }), [data, elsewhere]);
}

export interface OvenRun {
  id: string;
  number: number;
  load: OvenState;
  course: BakeCourse | null;
  probe: ProbeInOven;
  now: number;
  unsaved: number;
  actions: BenchAction[];
}

/** Warm metal says itself as long as it is warm: taking that back would only have it said again. */
const saidItself = (entry: OvenEntry) => entry.kind === 'warm' && entry.by !== 'hand';
const byHand = (log: readonly (OvenEntry | UndoEntry)[]) => partOfLog<OvenEntry>(log, (entry) => !saidItself(entry));
const lastOf = (log: readonly (OvenEntry | UndoEntry)[]) => nextUndo<OvenEntry>(byHand(log));
const broughtBy = (log: readonly (OvenEntry | UndoEntry)[]) => nextRedo<OvenEntry>(byHand(log));

/** Less of a full cure than this, and nobody means to take it out. Common practice, no source. */
const HARDLY_BEGUN = 0.3;
const ASKS_FOR_MS = 8000;

/** A load of the oven as the bench works it: its clock, how warm, how far, and everything that can be said. */
export function useOvenRun(run: RunView, productOf: (ticketId: string) => PlanProduct | undefined): OvenRun {
  const now = useNow(1000);
  const [askedAt, setAskedAt] = useState<number | null>(null);
  const { data: ovens } = useList('ovens');
  const { entries, unsaved, say, next } = useRunLog<OvenEntry>(
    `/runs/oven/${run.id}`,
    run.log as (OvenEntry | UndoEntry)[],
  );
  const load = useMemo(() => ovenState(entries), [entries]);
  const probe = useOvenProbe(run.id, load);
  const oven = ovens?.find((each) => each.id === load.ovenId) ?? ovens?.[0];
  // The curve is reckoned when something was said or read, and where it goes on with the clock now and then.
  const drawnAt = goesAsDrawn(load, now) ? load.loadedAt : Math.floor(now / DRAWN_AGAIN_MS) * DRAWN_AGAIN_MS;
  const drawn = useMemo(() => {
    const of = lastFull(load, headsInLoad(load.heads, productOf), oven, probe.readings, drawnAt);
    return of && { of, curve: bakeCurve(load, of, drawnAt) };
  }, [load, productOf, oven, probe, drawnAt]);
  const course = useMemo(() => drawn && bakeNow(load, drawn.of, drawn.curve, now), [load, drawn, now]);
  const { state } = course ?? {};
  const baking = load.phase === 'baking';
  const nowWarm = baking && load.from === 'metal' && load.warmAt === null && !!state && state.warmAt !== null;
  const by = state?.probed ? 'probe' : 'model';
  useEffect(() => {
    if (nowWarm) say({ kind: 'warm', by });
  }, [nowWarm]); // eslint-disable-line react-hooks/exhaustive-deps
  const last = lastOf(entries);
  const out = () => {
    const fromC = state?.metalC ?? load.setC;
    const cooling = load.heads.map(({ ticketId }) => {
      const product = productOf(ticketId);
      return product ? coolDownS(product, fromC) : 0;
    });
    say({ kind: 'unload', coolS: Math.round(Math.max(0, ...cooling)) });
  };
  // Hardly begun and long before its time: a key that was hit by mistake asks first.
  const early = baking && !!state && state.cure < HARDLY_BEGUN && now < (course?.endsAt ?? load.endsAt);
  const asked = early && askedAt !== null && now - askedAt < ASKS_FOR_MS;
  const doorOpen = load.doors.at(-1)?.toAt === null;
  const takeBack = (which: typeof lastOf | typeof broughtBy) => () =>
    next((log) => {
      const target = which(log)?.id;
      if (target !== undefined) say({ kind: 'undo', target });
    });
  const back = undoActions({
    last,
    canBringBack: broughtBy(entries) !== undefined,
    undo: takeBack(lastOf),
    bringBack: takeBack(broughtBy),
  });
  const warm: BenchAction = {
    key: 'W',
    label: 'Metal is warm',
    hint: 'the count begins',
    weight: 'quiet',
    run: () => say({ kind: 'warm', by: 'hand' }),
  };
  const actions: BenchAction[] = baking
    ? [
        {
          key: 'Space',
          code: ' ',
          label: asked ? `Taken out all the same, at ${Math.round(100 * state!.cure)} %` : 'Taken out',
          ...(early && !asked ? { hint: `${Math.round(100 * state!.cure)} % cured: it asks` } : {}),
          weight: asked ? 'due' : early ? 'quiet' : 'main',
          run: early && !asked ? () => setAskedAt(now) : out,
        },
        {
          key: 'D',
          label: doorOpen ? 'Door is shut again' : 'Door is open',
          weight: doorOpen ? 'due' : 'quiet',
          run: () => say({ kind: 'door', open: !doorOpen }),
        },
        ...(load.from === 'metal' && load.warmAt === null ? [warm] : []),
        ...back,
      ]
    : back;
  return { id: run.id, number: run.number, load, course, probe, now, unsaved, actions };
}
