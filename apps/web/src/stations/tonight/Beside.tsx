import { handsMinor, writeSpan, type TonightAsked, type TonightPlan } from '@schmelz/core';
import { useEffect, useRef } from 'react';
import { Button } from '../../design/Button.tsx';
import { Heading } from '../../design/Page.tsx';
import { useUnits } from '../../units/Units.tsx';
import { writeTime } from '../../units/dates.ts';
import { lanesOf, look } from './lanes.ts';
import { when } from './when.ts';

const MS = 1000;
const HOUR_MS = 3_600_000;

/** One plan, and what it takes, to be looked at beside another. */
export interface Compared {
  says: string;
  plan: TonightPlan;
  people: readonly string[];
  /** Chance to be over by the evening's end. */
  sure: number;
}

/** A first evening, small and still, on hours that two plans share. */
function StillStrip({ of: { plan, people, says }, toS }: { of: Compared; toS: number }) {
  const lanes = lanesOf(plan, people, 0, toS);
  const part = (seconds: number) => `${(100 * Math.min(seconds, toS)) / toS}%`;
  const first = Math.ceil(plan.startMs / HOUR_MS) * HOUR_MS;
  const hours = Array.from({ length: Math.floor((plan.startMs + MS * toS - first) / HOUR_MS) + 1 }, (_, at) => {
    return first + at * HOUR_MS;
  });
  return (
    <figure className="mb-3" aria-label={`The evening: ${says}`}>
      <figcaption className="mb-1 font-medium">{says}</figcaption>
      <div className="grid grid-cols-[64px_minmax(0,1fr)] gap-x-3">
        {lanes.map((lane) => (
          <div key={lane.id} className="contents">
            <span className="stamp self-center truncate text-[13px]">{lane.name}</span>
            <div className="relative h-6 border-b border-rule">
              {hours.map((at) => (
                <span
                  key={at}
                  className="absolute inset-y-0 border-l border-rule"
                  style={{ left: part((at - plan.startMs) / MS) }}
                />
              ))}
              {lane.bars.map((bar) => (
                <span
                  key={bar.key}
                  title={`${bar.says}, ${writeTime(plan.startMs + MS * bar.startS)} to ${writeTime(plan.startMs + MS * bar.endS)}`}
                  className={`absolute inset-y-0.5 border border-contour ${look(bar, lane.id)}`}
                  style={{
                    left: part(bar.startS),
                    width: `max(2px, ${(100 * (Math.min(bar.endS, toS) - bar.startS)) / toS}%)`,
                  }}
                />
              ))}
            </div>
          </div>
        ))}
        <span />
        <div className="relative h-5">
          {hours.map((at) => (
            <span
              key={at}
              className="fig absolute -translate-x-1/2 text-[13px] text-ink-2"
              style={{ left: part((at - plan.startMs) / MS) }}
            >
              {writeTime(at)}
            </span>
          ))}
        </div>
      </div>
    </figure>
  );
}

/** Two plans side by side, on the same hours: minutes, money, chance, and what is late. */
export function Beside({
  two,
  asked,
  untilMs,
  onTake,
  onClose,
}: {
  two: readonly [Compared, Compared];
  asked: TonightAsked;
  untilMs: number;
  onTake: (() => void) | null;
  onClose: () => void;
}) {
  const units = useUnits();
  const here = useRef<HTMLElement>(null);
  // It opens above the list that it was asked from.
  useEffect(() => {
    // A browser may answer with a promise, which is no clean-up.
    void here.current?.scrollIntoView({ block: 'nearest' });
  }, [two]);
  const firstEvening = ({ plan }: Compared) => {
    const [window] = plan.windows;
    const first = plan.schedule.placed.filter(({ startS }) => startS < (window?.toS ?? Infinity));
    return Math.max(...first.map(({ endS }) => endS), HOUR_MS / MS);
  };
  const toS = Math.max(...two.map(firstEvening));
  const handsS = ({ plan }: Compared) => plan.tasks.reduce((sum, task) => sum + (task.hands ? task.seconds : 0), 0);
  const late = ({ plan }: Compared) => plan.ends.filter(({ lateS }) => lateS > 0).length;
  const rows: [string, (of: Compared) => string][] = [
    ['Over at', ({ plan }) => when(plan.startMs + MS * plan.schedule.endS, plan.startMs)],
    ['Hands at work', (of) => writeSpan(handsS(of))],
    ['Their hours cost', ({ plan }) => units.money(handsMinor(plan.tasks, asked.ways))],
    [`Over by ${writeTime(untilMs)}`, ({ sure }) => `${Math.round(100 * sure)} in a hundred`],
    ['Orders late', (of) => String(late(of) || 'none')],
  ];
  return (
    <section
      ref={here}
      aria-label="Two plans side by side"
      className="mb-6 scroll-mt-20 scroll-mb-4 border-y-2 border-ink bg-sheet px-4 py-3"
    >
      <Heading
        aside={
          <button type="button" className="underline underline-offset-4" onClick={onClose}>
            Put it away
          </button>
        }
      >
        Side by side
      </Heading>
      {two.map((of) => (
        <StillStrip key={of.says} of={of} toS={toS} />
      ))}
      <div className="overflow-x-auto">
        <table className="sheet-table min-w-[480px]">
          <thead>
            <tr>
              <th />
              {two.map(({ says }) => (
                <th key={says} className="num">
                  {says}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map(([says, of]) => {
              const [now, then] = [of(two[0]), of(two[1])];
              return (
                <tr key={says}>
                  <td>{says}</td>
                  <td className="num">{now}</td>
                  <td className={`num ${now === then ? '' : 'font-semibold'}`}>{then}</td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
      {onTake && (
        <Button look="main" className="mt-3" onClick={onTake}>
          Plan so
        </Button>
      )}
    </section>
  );
}
