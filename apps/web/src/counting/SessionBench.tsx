import type { RunView, Ticket } from '@schmelz/contract';
import {
  nextRedo,
  nextUndo,
  placeInRun,
  partKind,
  sessionState,
  standing,
  stationOf,
  usualDisposition,
  writeSpan,
  type HeadsInRun,
  type SessionEntry,
  type SessionState,
  type UndoEntry,
} from '@schmelz/core';
import { useMemo, useState, type ReactNode } from 'react';
import { Link, Navigate, useParams } from 'react-router';
import { useLine } from '../api/queries.ts';
import { useRunLog } from '../api/outbox.ts';
import { useRunOnServer, useRuns } from '../api/runs.ts';
import { BenchFrame, BenchNumber, Unsaved, type BenchAction } from '../bench/BenchFrame.tsx';
import { undoActions } from '../bench/undo.ts';
import { Button } from '../design/Button.tsx';
import { causeIcon, Icon } from '../design/Icon.tsx';
import { Waiting } from '../design/Notice.tsx';
import { Head } from '../drawing/Head.tsx';
import { paintOn, specOf } from '../drawing/product.ts';
import { sound, SOUNDS } from '../shell/clock.ts';

/** What differs between a session in one paint and one mix of glue. */
export interface SessionKind {
  kind: 'dip' | 'glue';
  station: 'paint' | 'finish';
  /** Over its number while heads are left, and once they are through; the key that ends it. */
  left(name: string): string;
  all(name: string): string;
  ends: string;
  list: string;
  back: { to: string; says: string };
  /** More keys of its own. */
  keys?(of: SessionBenchOf): BenchAction[];
  /** Under the number, and over the list of tickets. */
  Beside?: (of: SessionBenchOf) => ReactNode;
  Above?: (of: SessionBenchOf & { ticket: Ticket; step: string; left: number }) => ReactNode;
}

export interface SessionBenchOf {
  state: SessionState;
  stirred(): void;
}

/** One session as the bench works it: whose heads are next, and everything that can be said. */
function useSession(run: RunView, { kind, station }: SessionKind) {
  const { entries, unsaved, say, next } = useRunLog<SessionEntry>(
    `/runs/${kind}/${run.id}`,
    run.log as (SessionEntry | UndoEntry)[],
  );
  const [chosen, choose] = useState<string | null>(null);
  const state = useMemo(() => sessionState(entries), [entries]);
  const rows = state.heads.map((heads) => {
    const done = state.byPlace[placeInRun(heads)] ?? { good: 0, bad: 0 };
    return { ...heads, ...done, left: heads.count - done.good - done.bad };
  });
  const open = rows.filter(({ left }) => left > 0);
  const current = open.find((row) => placeInRun(row) === chosen) ?? open[0];
  const takeBack = (which: typeof nextUndo<SessionEntry> | typeof nextRedo<SessionEntry>) => () =>
    next((log) => {
      const target = which(log)?.id;
      if (target !== undefined) say({ kind: 'undo', target });
    });
  const of = (row: Pick<HeadsInRun, 'ticketId' | 'step'>) => ({ ticketId: row.ticketId, step: row.step });
  const last = nextUndo<SessionEntry>(entries);
  return {
    state,
    rows,
    current,
    unsaved,
    choose,
    good: (count: number) => {
      if (!current) return;
      sound(SOUNDS.tap);
      say({ kind: 'good', ...of(current), count });
    },
    bad: (cause: string) => {
      if (!current) return;
      sound(SOUNDS.reject);
      say({ kind: 'reject', ...of(current), cause, count: 1, goes: usualDisposition(station, cause) });
    },
    /** The last head that was not good, while nothing else was said since. */
    apart: last?.kind === 'reject' ? last : null,
    /** Parts of its step that it never had on, or that went with it after all. */
    spare: (partIds: readonly string[]) =>
      next((log) => {
        const reject = standing<SessionEntry>(log).at(-1);
        if (reject?.kind !== 'reject') return;
        const { id: target, kind: rejected, ticketId, step, cause, count, goes, spared } = reject;
        const parts = spared ? {} : { spared: [...partIds] };
        say({ kind: 'undo', target });
        say({ kind: rejected, ticketId, step, cause, count, goes, ...parts });
      }),
    stirred: () => say({ kind: 'stirred' }),
    pause: () => say({ kind: state.phase === 'paused' ? 'resume' : 'pause' }),
    end: () => say({ kind: 'end' }),
    back: undoActions({
      // The beginning itself is taken back by leaving it: nothing was counted then.
      last: last?.kind === 'begin' ? undefined : last,
      canBringBack: nextRedo<SessionEntry>(entries) !== undefined,
      undo: takeBack(nextUndo<SessionEntry>),
      bringBack: takeBack(nextRedo<SessionEntry>),
    }),
  };
}

function Session({ run, kind }: { run: RunView; kind: SessionKind }) {
  const dip = useSession(run, kind);
  const { data: line } = useLine();
  const { state, rows, current } = dip;
  const of: SessionBenchOf = { state, stirred: dip.stirred };
  const { Beside, Above } = kind;
  const ticketOf = (id: string) => line?.tickets.find((each) => each.id === id);
  const left = rows.reduce((sum, row) => sum + row.left, 0);
  const resting = state.phase === 'paused';
  const { causes, says } = stationOf(kind.station);
  const shown = current ?? rows[0];
  const ticket = shown && ticketOf(shown.ticketId);
  const quiet = (key: string, label: string, run: () => void, disabled = false): BenchAction => {
    return { key, label, weight: 'quiet', disabled, run };
  };
  const { apart } = dip;
  const pieces = (apart && ticketOf(apart.ticketId)?.planned.bill.filter((line) => line.step === apart.step)) ?? [];
  const inHand = pieces.filter((line) => partKind(line.kind).unit === 'pieces');
  const spare: BenchAction[] =
    inHand.length > 0
      ? [
          {
            ...{ key: 'H', weight: apart?.spared ? 'due' : 'quiet' },
            label: `${inHand.map(({ name }) => name).join(', ')} still in the hand`,
            run: () => dip.spare(inHand.map(({ partId }) => partId)),
          },
        ]
      : [];
  const actions: BenchAction[] =
    state.phase === 'over'
      ? dip.back
      : [
          current
            ? {
                ...{ key: 'Space', code: ' ', label: says.good, weight: resting ? 'quiet' : 'main', disabled: resting },
                run: () => dip.good(1),
              }
            : { key: 'Space', code: ' ', label: kind.ends, weight: 'main', run: dip.end },
          { ...quiet('G', 'All of this ticket', () => dip.good(current?.left ?? 0), !current || resting) },
          ...causes.map(({ id }, at): BenchAction => {
            return { ...quiet(String(at + 1), id, () => dip.bad(id), !current || resting), icon: causeIcon(id) };
          }),
          ...(rows.filter((row) => row.left > 0).length > 1
            ? [quiet('T', 'Next ticket', () => dip.choose(placeInRun(after(rows, current!))))]
            : []),
          ...spare,
          ...(kind.keys?.(of) ?? []),
          quiet('P', resting ? 'On again' : 'Pause', dip.pause),
          ...dip.back,
        ];
  return (
    <BenchFrame
      actions={actions}
      stub={
        <>
          <BenchNumber says={left > 0 ? kind.left(state.name) : kind.all(state.name)} value={String(left)} />
          <p className="text-lg">
            {resting ? 'Resting. ' : ''}
            {state.done} done in {writeSpan(state.workS)}.
          </p>
          {Beside && <Beside {...of} />}
          {current && ticket && (
            <p className="text-xl font-semibold">
              Ticket {ticket.number}, {ticket.product.name}: {current.left} left
            </p>
          )}
          <Unsaved count={dip.unsaved} />
          {state.phase === 'over' && (
            <Button look="main" asChild className="h-16 self-start text-lg">
              <Link to={kind.back.to}>{kind.back.says}</Link>
            </Button>
          )}
        </>
      }
    >
      {Above && ticket && shown && <Above key={ticket.id} {...of} ticket={ticket} step={shown.step} left={left} />}
      <ul aria-label={kind.list}>
        {rows.map((row) => {
          const own = ticketOf(row.ticketId);
          const product = own?.product;
          const place = placeInRun(row);
          const now = current !== undefined && placeInRun(current) === place;
          return (
            <li key={place}>
              <button
                type="button"
                aria-current={now}
                disabled={row.left === 0}
                onClick={(event) => {
                  dip.choose(place);
                  event.currentTarget.blur();
                }}
                className={`grid min-h-16 w-full grid-cols-[64px_110px_minmax(0,1fr)_auto_auto] items-center gap-4 border-b border-rule px-2 py-2 text-left text-lg ${now ? 'bg-watch-wash' : ''}`}
              >
                <b className="fig text-[29px]">{own?.number ?? '–'}</b>
                {product ? (
                  <Head
                    {...specOf(product)}
                    paint={paintOn(product)}
                    state={kind.station === 'paint' ? 'powder' : 'baked'}
                    scale={2}
                  />
                ) : (
                  <span />
                )}
                <span className="min-w-0 truncate">{product?.name ?? 'A closed ticket'}</span>
                <span className="flex gap-4">
                  <span className="flex items-center gap-1.5 text-good">
                    <Icon name="good" /> {row.good}
                  </span>
                  <span className="flex items-center gap-1.5 text-stop">
                    <Icon name="short" /> {row.bad}
                  </span>
                </span>
                <b className="fig w-16 text-right text-[34px]">{row.left}</b>
              </button>
            </li>
          );
        })}
      </ul>
    </BenchFrame>
  );
}

/** The next row that has heads left, round and round. */
function after<R extends HeadsInRun & { left: number }>(rows: readonly R[], current: R): R {
  const at = rows.indexOf(current);
  return [...rows.slice(at + 1), ...rows.slice(0, at + 1)].find((row) => row.left > 0) ?? current;
}

/** The bench of a session over all the tickets that it began with. */
export function SessionPage({ kind }: { kind: SessionKind }) {
  const { id = '' } = useParams();
  const { data: found, error } = useRunOnServer(kind.kind, id);
  const onServer = useMemo(() => (found ? [found] : []), [found]);
  const run = useRuns(onServer, kind.kind).find((each) => each.id === id);
  if (found === undefined) return <Waiting error={error} />;
  if (!run) return <Navigate to={kind.back.to} replace />;
  return <Session run={run} kind={kind} />;
}
