import type { Task, TonightPlan } from '@schmelz/core';
import { useRef, useState } from 'react';
import { writeTime } from '../../units/dates.ts';

const MS = 1000;
const HOUR_S = 3600;
/** A pinned task begins at a whole five minutes. */
const STEP_S = 300;
/** Narrower than that a bar has no words in it, in hundredths of the strip. */
const WORDY = 5;

interface Lane {
  id: string;
  name: string;
  tasks: { task: Task; startS: number; endS: number }[];
}

/** Lanes of an evening: each person, then what works by itself. */
export function lanesOf(
  { tasks, schedule: { placed } }: TonightPlan,
  people: readonly string[],
  fromS: number,
  toS: number,
): Lane[] {
  const all = tasks
    .map((task, at) => ({ task, ...placed[at]! }))
    .filter(({ startS }) => startS >= fromS && startS < toS);
  const lane = (id: string, name: string, own: typeof all): Lane => ({
    ...{ id, name },
    tasks: own
      .filter(({ startS, endS }) => endS > startS)
      // A tool is held from its lead on: the pot melts before it is poured.
      .map(({ task, startS, endS }) => {
        return { task, startS: id.startsWith('person') ? startS : startS - (task.leadS ?? 0), endS };
      }),
  });
  return [
    ...people.map((name, who) =>
      lane(
        `person ${who}`,
        name,
        all.filter(({ person }) => person === who),
      ),
    ),
    lane(
      'pot',
      'Pot',
      all.filter(({ task }) => task.holds.includes('pot')),
    ),
    lane(
      'oven',
      'Oven',
      all.filter(({ task }) => task.holds.includes('oven')),
    ),
  ].filter(({ id, tasks: own }) => own.length > 0 || id.startsWith('person'));
}

/** What stands in a bar: its lane says the rest. */
const shortName = ({ name }: Task, lane: string): string =>
  lane.startsWith('person') ? name : name.replace(/^(In the oven|Pour):? /, '');

/** Bars in the colours of what they are: hands in lead, heat in straw, the pour between them. */
export const look = (task: Task, lane: string): string => {
  if (task.station === 'pour') return lane === 'pot' ? 'bg-straw' : 'bg-lead border-b-4 border-b-straw';
  if (!task.hands) return 'bg-straw';
  return 'bg-lead';
};

/**
 * A whole evening along its hours: who does what, and what is hot meanwhile. A bar is dragged to where it shall begin.
 */
export function EveningStrip({
  plan,
  people,
  window,
  pinned,
  chosen,
  onChoose,
  onPin,
}: {
  plan: TonightPlan;
  people: readonly string[];
  window: { fromS: number; toS: number };
  pinned: Readonly<Record<string, number>>;
  chosen: string | null;
  onChoose: (taskId: string | null) => void;
  onPin: (taskId: string, startS: number) => void;
}) {
  const track = useRef<HTMLDivElement>(null);
  const [dragged, setDragged] = useState<{ id: string; fromX: number; byPx: number } | null>(null);
  const lanes = lanesOf(plan, people, window.fromS, window.toS);
  const last = Math.max(0, ...lanes.flatMap(({ tasks }) => tasks.map(({ endS }) => endS)));
  const endS = Math.max(window.fromS + HOUR_S, Math.min(Math.max(last, window.fromS), window.toS + 2 * HOUR_S));
  const spanS = endS - window.fromS;
  const part = (seconds: number) => `${(100 * (seconds - window.fromS)) / spanS}%`;
  const startMs = plan.startMs + MS * window.fromS;
  const firstHour = Math.ceil(startMs / (HOUR_S * MS)) * HOUR_S * MS;
  const hours = Array.from({ length: Math.ceil(spanS / HOUR_S) + 1 }, (_, at) => firstHour + at * HOUR_S * MS).filter(
    (at) => at <= plan.startMs + MS * endS,
  );
  const secondsPerPx = () => spanS / Math.max(1, track.current?.clientWidth ?? 1);
  return (
    <div className="overflow-x-auto pb-1" tabIndex={0} role="region" aria-label="The evening, wider than a phone">
      <div
        className="grid min-w-[760px] grid-cols-[64px_minmax(0,1fr)] gap-x-3 pr-2"
        role="group"
        aria-label="The evening along its hours"
      >
        <span />
        <div ref={track} className="relative h-6 border-b border-rule-2">
          {hours.map((at) => (
            <span
              key={at}
              className="fig absolute bottom-0.5 -translate-x-1/2 text-[15px] text-ink-2"
              style={{ left: part((at - plan.startMs) / MS) }}
            >
              {writeTime(at)}
            </span>
          ))}
        </div>
        {lanes.map((lane) => (
          <div key={lane.id} className="contents">
            <span className="stamp self-center truncate py-1 text-[14px]">{lane.name}</span>
            <div className={`relative border-b border-rule ${lane.id.startsWith('person') ? 'h-[62px]' : 'h-[30px]'}`}>
              {hours.map((at) => (
                <span
                  key={at}
                  className="absolute inset-y-0 border-l border-rule"
                  style={{ left: part((at - plan.startMs) / MS) }}
                />
              ))}
              {lane.tasks.map(({ task, startS, endS: taskEndS }) => {
                const width = (100 * (taskEndS - startS)) / spanS;
                const mine = dragged?.id === task.id;
                const held = pinned[task.id] !== undefined;
                return (
                  <button
                    key={task.id}
                    type="button"
                    aria-pressed={chosen === task.id}
                    aria-label={`${task.name}, ${writeTime(plan.startMs + MS * startS)} to ${writeTime(plan.startMs + MS * taskEndS)}${held ? ', pinned' : ''}`}
                    className={`absolute inset-y-1 touch-none overflow-hidden border border-contour text-left text-[12.5px] leading-tight text-[#14171a] ${width > WORDY ? 'px-1' : 'p-0'} ${look(task, lane.id)} ${
                      chosen === task.id ? 'z-10 outline-2 outline-offset-1 outline-ink' : ''
                    } ${mine ? 'z-20 opacity-80' : ''}`}
                    style={{
                      left: part(startS),
                      width: `max(2px, ${width}%)`,
                      transform: mine ? `translateX(${dragged.byPx}px)` : undefined,
                    }}
                    onPointerDown={(event) => {
                      event.currentTarget.setPointerCapture(event.pointerId);
                      setDragged({ id: task.id, fromX: event.clientX, byPx: 0 });
                    }}
                    onPointerMove={(event) => {
                      if (dragged?.id === task.id) setDragged({ ...dragged, byPx: event.clientX - dragged.fromX });
                    }}
                    onPointerUp={() => {
                      const byPx = dragged?.byPx ?? 0;
                      setDragged(null);
                      if (Math.abs(byPx) < 5) return;
                      onPin(task.id, STEP_S * Math.round((startS + byPx * secondsPerPx()) / STEP_S));
                      onChoose(task.id);
                    }}
                    onPointerCancel={() => setDragged(null)}
                    onClick={() => onChoose(chosen === task.id ? null : task.id)}
                  >
                    {held && <span aria-hidden="true" className="absolute inset-y-0 left-0 w-[5px] bg-ink" />}
                    {width > WORDY && (
                      <span
                        className={`${lane.id.startsWith('person') ? 'line-clamp-3' : 'block truncate'} ${held ? 'pl-1.5' : ''}`}
                      >
                        {shortName(task, lane.id)}
                      </span>
                    )}
                  </button>
                );
              })}
            </div>
          </div>
        ))}
      </div>
    </div>
  );
}
