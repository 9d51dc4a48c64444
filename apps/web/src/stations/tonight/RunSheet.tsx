import {
  castsSay,
  needsTonight,
  notMadeSay,
  STATIONS,
  writeSpan,
  type TonightAsked,
  type TonightPlan,
  type TonightWishes,
} from '@schmelz/core';
import { useSettings } from '../../api/queries.ts';
import { writeDay, writeTime, writeWeekday } from '../../units/dates.ts';
import { useUnits } from '../../units/Units.tsx';

const MS = 1000;

/** One thing to do: a box to tick, its time, what, how many and who. */
interface Line {
  id: string;
  atMs: number;
  says: string;
  heads: number;
  takesS: number;
  who: string;
}

/** The evening in the order in which it is begun; what works by itself stands where it is switched on. */
function linesOf({ tasks, schedule, startMs }: TonightPlan, people: readonly string[]): Line[] {
  return tasks
    .flatMap((task, at): Line[] => {
      const { startS, person, changeS } = schedule.placed[at]!;
      const { id, name, heads, seconds, leadS = 0 } = task;
      if (seconds <= 0) return [];
      const line = {
        id,
        atMs: startMs + MS * startS,
        says: changeS > 0 ? `${name} (cups ${writeSpan(changeS)})` : name,
        heads,
        takesS: seconds,
      };
      const who = person === null ? 'by itself' : people.length > 1 ? (people[person] ?? '') : '';
      const before =
        leadS > 0
          ? [
              {
                id: `on ${id}`,
                atMs: startMs + MS * (startS - leadS),
                says: 'Pot on',
                heads: 0,
                takesS: leadS,
                who: 'by itself',
              },
            ]
          : [];
      return [...before, { ...line, who }];
    })
    .sort((a, b) => a.atMs - b.atMs);
}

/** What must be said before hot metal, of the stations that are worked at tonight. */
const cautionsOf = ({ tasks }: TonightPlan) => {
  const at = new Set(tasks.map(({ station }) => station));
  if (at.has('pour')) at.add('lead');
  return STATIONS.filter(({ id }) => at.has(id)).flatMap(({ cautions }) => cautions);
};

/** The evening on paper: black on white, boxes to tick, A4 or Letter as the printer has it. */
export function RunSheet({
  asked,
  plan,
  wishes,
  people,
}: {
  asked: TonightAsked;
  plan: TonightPlan;
  wishes: TonightWishes;
  people: readonly string[];
}) {
  const units = useUnits();
  const { data: settings } = useSettings();
  const lines = linesOf(plan, people);
  const days = [...new Set(lines.map(({ atMs }) => writeDay(atMs)))];
  const needs = needsTonight(asked, wishes, plan.casts);
  return (
    <article className="run-sheet hidden text-[10.5pt] leading-snug text-black print:block" aria-label="Run sheet">
      <header className="mb-3 flex items-baseline justify-between border-b-2 border-black pb-1">
        <h1 className="voice text-[18pt]">{settings?.workshopName}</h1>
        <p>
          {writeWeekday(plan.startMs)} {writeDay(plan.startMs)}, from {writeTime(plan.startMs)}
        </p>
      </header>
      {days.map((day) => (
        <section key={day} className="mb-3">
          {days.length > 1 && <h2 className="stamp mt-2">{day}</h2>}
          <ul>
            {lines
              .filter(({ atMs }) => writeDay(atMs) === day)
              .map(({ id, atMs, says, heads, takesS, who }) => (
                <li
                  key={id}
                  className="grid break-inside-avoid grid-cols-[5mm_14mm_minmax(0,1fr)_16mm_18mm_20mm] items-baseline gap-x-2 border-b border-black/40 py-[1.2mm]"
                >
                  <span className="size-[4mm] translate-y-[0.8mm] border-[1.2pt] border-black" />
                  <b className="fig text-[12pt]">{writeTime(atMs)}</b>
                  <span>{says}</span>
                  <span className="text-right">{heads > 0 ? `${heads}` : ''}</span>
                  <span className="text-right">{writeSpan(takesS)}</span>
                  <span>{who}</span>
                </li>
              ))}
          </ul>
        </section>
      ))}
      <section className="mb-3 break-inside-avoid">
        <h2 className="stamp">At the pot</h2>
        <ul>
          {plan.casts.molds.map(({ moldId, name, shots, blanks, uses }) => (
            <li key={moldId}>
              {name}: {blanks} blank shots, then about {shots} shots;{' '}
              {uses.map((use) => `cavities ${use.positions.join(', ')} ${use.casts} × ${use.name}`).join('; ')}
            </li>
          ))}
        </ul>
        {plan.casts.blanks.map(({ id, name, heads, casts }) => (
          <p key={id}>
            {heads} good {name}: {castsSay(casts)}.
          </p>
        ))}
      </section>
      <section className="mb-3 break-inside-avoid">
        <h2 className="stamp">To lay out</h2>
        {notMadeSay(plan.notMade, asked.wanted).map((says) => (
          <p key={says} className="font-bold">
            {units.said(says)}.
          </p>
        ))}
        <ul className="columns-2">
          {needs.map(({ materialId, name, kind, need, missing }) => (
            <li key={materialId}>
              {units.part(kind, kind === 'hook' ? Math.ceil(need) : need)} {name}
              {missing > 0 && <b>, {units.part(kind, kind === 'hook' ? Math.ceil(missing) : missing)} missing</b>}
            </li>
          ))}
        </ul>
      </section>
      <ul className="border-t-2 border-black pt-1">
        {cautionsOf(plan).map((caution) => (
          <li key={caution}>{caution}</li>
        ))}
      </ul>
    </article>
  );
}
