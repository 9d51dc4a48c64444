import type { TonightPlan } from '@schmelz/core';
import { useRef, useState } from 'react';
import { writeTime } from '../../units/dates.ts';
import { lanesOf, look, shortName } from './lanes.ts';

const MS = 1000;
const HOUR_S = 3600;
/** A pinned task begins at a whole five minutes. */
const STEP_S = 300;
/** Narrower than that a bar has no words in it, in hundredths of the strip. */
const WORDY = 5;

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
  const last = Math.max(0, ...lanes.flatMap(({ bars }) => bars.map((bar) => (bar.task ? bar.endS : 0))));
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
              {lane.bars.map((bar) => {
                const { task, startS, endS: barEndS } = bar;
                // What stands overnight stands past the edge.
                const width = (100 * ((task ? barEndS : Math.min(barEndS, endS)) - startS)) / spanS;
                const place = { left: part(startS), width: `max(2px, ${width}%)` };
                const says = `${bar.says}, ${writeTime(plan.startMs + MS * startS)} to ${writeTime(plan.startMs + MS * barEndS)}`;
                const words = width > WORDY && (
                  <span className={lane.id.startsWith('person') ? 'line-clamp-3' : 'block truncate'}>
                    {shortName(bar, lane.id)}
                  </span>
                );
                if (task === null) {
                  return (
                    <span
                      key={bar.key}
                      title={says}
                      className={`absolute inset-y-1 overflow-hidden border border-ink-3 px-1 text-[12.5px] leading-tight text-ink-2 ${look(bar, lane.id)}`}
                      style={place}
                    >
                      {words}
                    </span>
                  );
                }
                const mine = dragged?.id === task.id;
                const held = pinned[task.id] !== undefined;
                return (
                  <button
                    key={bar.key}
                    type="button"
                    aria-pressed={chosen === task.id}
                    aria-label={`${says}${held ? ', pinned' : ''}`}
                    className={`absolute inset-y-1 touch-none overflow-hidden border border-contour text-left text-[12.5px] leading-tight text-[#14171a] ${width > WORDY ? 'px-1' : 'p-0'} ${look(bar, lane.id)} ${
                      chosen === task.id ? 'z-10 outline-2 outline-offset-1 outline-ink' : ''
                    } ${mine ? 'z-20 opacity-80' : ''}`}
                    style={{ ...place, transform: mine ? `translateX(${dragged.byPx}px)` : undefined }}
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
                    {held && width > WORDY ? <span className="block pl-1.5">{words}</span> : words}
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
