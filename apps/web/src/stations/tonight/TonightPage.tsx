import { chanceBy, needsTonight, timeOf, writeSpan, type TonightAsked, type TonightPlan } from '@schmelz/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { call } from '../../api/client.ts';
import { Button } from '../../design/Button.tsx';
import { Choice, TextField } from '../../design/Field.tsx';
import { Icon } from '../../design/Icon.tsx';
import { ProblemNote, Waiting } from '../../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { isoDay, writeDayShort, writeTime } from '../../units/dates.ts';
import { useUnits } from '../../units/Units.tsx';
import { downloadCalendar } from './download.ts';
import { EveningStrip } from './EveningStrip.tsx';
import { Helps } from './Helps.tsx';
import { ToWork } from './ToWork.tsx';
import { usePlan, type PlanState } from './usePlan.ts';
import { useWishes, type Wishes } from './wishes.ts';

const MS = 1000;
/** A day beside the hour, where it is another than the evening's own. */
const when = (atMs: number, startMs: number) =>
  isoDay(atMs) === isoDay(startMs) ? writeTime(atMs) : `${writeDayShort(atMs)}, ${writeTime(atMs)}`;

function Evening({ wishes }: { wishes: Wishes }) {
  const { form, change } = wishes;
  const counts = (most: number, one: string, many: string) =>
    Array.from({ length: most }, (_, at) => ({ value: String(at + 1), label: `${at + 1} ${at === 0 ? one : many}` }));
  return (
    <div className="grid grid-cols-2 gap-3 border-y border-rule-2 py-3">
      <div className="col-span-2">
        <TextField
          label="Evening of"
          type="date"
          value={form.day}
          onChange={(event) => event.target.value && change({ day: event.target.value })}
        />
      </div>
      <TextField
        label="From"
        type="time"
        value={form.from}
        onChange={(event) => event.target.value && change({ from: event.target.value })}
      />
      <TextField
        label="Until"
        type="time"
        value={form.to}
        onChange={(event) => event.target.value && change({ to: event.target.value })}
      />
      <Choice
        label="Hands"
        options={counts(4, 'person', 'people')}
        value={String(form.people)}
        onChange={(event) => change({ people: Number(event.target.value) })}
      />
      <Choice
        label="Heat guns"
        options={counts(3, 'gun', 'guns')}
        value={String(form.guns)}
        onChange={(event) => change({ guns: Number(event.target.value) })}
      />
      <div className="col-span-2">
        <Choice
          label="At the pot"
          options={[
            { value: '1', label: 'one mold after another' },
            { value: '2', label: 'two molds in turn' },
          ]}
          value={String(form.atOnce)}
          onChange={(event) => change({ atOnce: Number(event.target.value) })}
        />
      </div>
    </div>
  );
}

/** When it is over, how sure that is, and what no plan can go below. */
function Ends({ state, untilMs }: { state: PlanState; untilMs: number }) {
  const { plan, chances, searching } = state;
  if (!plan) return null;
  const { schedule, startMs } = plan;
  const endMs = startMs + MS * schedule.endS;
  const gap = schedule.boundS > 0 ? schedule.endS / schedule.boundS - 1 : 0;
  const late = endMs > untilMs;
  return (
    <div className="flex flex-col gap-1.5">
      {chances ? (
        <p>
          Nine evenings in ten by <b className="fig">{when(startMs + MS * timeOf(chances.endsS, 0.9), startMs)}</b>;{' '}
          {late
            ? 'that is not tonight'
            : `${Math.round(100 * chanceBy(chances.endsS, (untilMs - startMs) / MS))} in a hundred by ${writeTime(untilMs)}`}
          .
        </p>
      ) : (
        <p className="quiet">{searching === null ? ' ' : 'Playing the evening through …'}</p>
      )}
      <p className="quiet">
        {gap < 0.0005
          ? 'No order of the work ends earlier.'
          : `No order ends before ${when(startMs + MS * schedule.boundS, startMs)}; this one is ${(100 * gap).toFixed(1)} % over.`}
        {searching !== null && ` Looking for a better one: ${Math.round(100 * searching)} %.`}
      </p>
    </div>
  );
}

const DOUBT_SAYS: Record<string, string> = {
  pour: 'your pace at the pot',
  trim: 'your pace at the trimming',
  paint: 'your pace at the painting',
  bake: 'hanging up and taking down',
  finish: 'your pace at the finish',
  melting: 'how long the pot takes to melt',
  casts: 'how many casts come good',
};

/** What the end hangs on most, and what would make it surer. */
function Doubt({ chances }: { chances: NonNullable<PlanState['chances']> }) {
  const [first, second] = chances.doubts;
  if (!first || first.share < 0.05) return null;
  const span = timeOf(chances.endsS, 0.95) - timeOf(chances.endsS, 0.05);
  const without = span * (1 - Math.sqrt(Math.max(0, 1 - first.share)));
  return (
    <p className="quiet">
      Most of the doubt is {DOUBT_SAYS[first.what] ?? first.what}
      {second && second.share > 0.15 ? `, then ${DOUBT_SAYS[second.what] ?? second.what}` : ''}: were it known, the end
      would be {writeSpan(without)} surer. The bench learns it as you count.
    </p>
  );
}

/** What is open, with the time it is done, and whether that is in time. */
function Wanted({
  asked,
  plan,
  wishes,
  state,
}: {
  asked: TonightAsked;
  plan: TonightPlan;
  wishes: Wishes;
  state: PlanState;
}) {
  const ends = new Map(plan.ends.map((end) => [end.id, end]));
  const problems = new Map(plan.casts.problems.map(({ workId, text }) => [workId, text]));
  const sorted = [...asked.wanted].sort((a, b) => (ends.get(a.id)?.endMs ?? 0) - (ends.get(b.id)?.endMs ?? 0));
  return (
    <ul>
      {sorted.map(({ id, name, customer, orderNumber, ticketNumber, heads, left, dueMs }) => {
        const out = wishes.leftOut.includes(id);
        const end = ends.get(id);
        const waiting = Object.values(left).reduce((sum, each) => sum + each, 0);
        const played = state.chances?.worksS[id];
        const sure = played && dueMs !== null ? chanceBy(played, (dueMs - plan.startMs) / MS) : null;
        return (
          <li
            key={id}
            className={`grid grid-cols-[auto_minmax(0,1fr)_auto] items-center gap-4 border-b border-rule py-2 ${out ? 'text-ink-3' : ''}`}
          >
            <input
              type="checkbox"
              className="size-5 accent-(--ink)"
              aria-label={`${name} for ${customer}, tonight`}
              checked={!out}
              onChange={() => wishes.leave(id)}
            />
            <span className="min-w-0">
              <b className="block truncate font-medium">{name}</b>
              <span className="quiet block">
                {ticketNumber === null ? (
                  <Link
                    to={`/orders/${asked.wanted.find((each) => each.id === id)!.orderId}`}
                    className="hover:underline"
                  >
                    order {orderNumber}, {customer}
                  </Link>
                ) : (
                  `ticket ${ticketNumber}, ${customer}`
                )}
                {heads > 0 && `, ${heads} to cast`}
                {waiting > 0 && `, ${waiting} on the way`}
                {dueMs !== null && `, due ${writeDayShort(dueMs)}`}
              </span>
              {problems.has(id) && <span className="block text-sm font-medium text-stop">{problems.get(id)}</span>}
            </span>
            <span className="text-right">
              {end && !out ? (
                <>
                  <b className={`fig text-[21px] ${end.lateS > 0 ? 'text-stop' : ''}`}>
                    {when(end.endMs, plan.startMs)}
                  </b>
                  <span className={`block text-sm ${end.lateS > 0 ? 'font-semibold text-stop' : 'text-ink-3'}`}>
                    {end.lateS > 0
                      ? `${writeSpan(end.lateS)} late`
                      : sure === null
                        ? 'done'
                        : `in time ${Math.round(100 * sure)} in 100`}
                  </span>
                </>
              ) : (
                <span className="quiet">{out ? 'another day' : 'not tonight'}</span>
              )}
            </span>
          </li>
        );
      })}
    </ul>
  );
}

/** The pot's part: molds in their order, shots and what goes into which cavity. */
function AtThePot({ plan }: { plan: TonightPlan }) {
  const units = useUnits();
  const { casts, pours } = plan;
  return (
    <>
      <ul>
        {pours.map(({ id, molds, meltS }) => (
          <li key={id} className="border-b border-rule py-2">
            {molds.map(({ moldId, name, shots, blanks, uses, castKg }) => (
              <div key={moldId} className="grid grid-cols-[minmax(0,1fr)_auto] gap-4">
                <span className="min-w-0">
                  <b className="font-medium">{name}</b>
                  <span className="quiet">
                    {' '}
                    {blanks} blank shots first, {units.bulk(castKg)} through it
                  </span>
                  {uses.map((use) => (
                    <span key={use.blankId} className="block text-sm text-ink-2">
                      cavities {use.positions.join(', ')}: {use.casts} × {use.name}
                    </span>
                  ))}
                </span>
                <span className="text-right">
                  <b className="fig text-[34px] leading-none">{shots}</b>
                  <span className="quiet block">{shots === 1 ? 'shot' : 'shots'}</span>
                </span>
              </div>
            ))}
            <span className="quiet">melts in {writeSpan(meltS)}</span>
          </li>
        ))}
      </ul>
      {pours.length === 0 && <p className="quiet">Nothing is poured tonight.</p>}
      <ul className="mt-2 flex flex-col gap-1 text-sm text-ink-2">
        {casts.says.map((line) => (
          <li key={line}>{line}</li>
        ))}
        {pours.length > 0 && (
          <li className="quiet">
            {casts.optimal
              ? 'No choice of molds and cavities takes less time at the pot.'
              : `At most ${writeSpan(casts.seconds - casts.boundS)} more at the pot than the best there can be.`}
          </li>
        )}
      </ul>
    </>
  );
}

function Needs({ asked, plan, wishes }: { asked: TonightAsked; plan: TonightPlan; wishes: Wishes }) {
  const units = useUnits();
  const needs = needsTonight(asked, wishes.wishes, plan.casts).sort((a, b) => b.missing - a.missing);
  return (
    <ul>
      {needs.map(({ materialId, name, kind, need, have, missing }) => (
        <li key={materialId} className="flex items-baseline justify-between gap-3 border-b border-rule py-1.5">
          <span className="min-w-0 truncate">{name}</span>
          <span className="text-right whitespace-nowrap">
            <b className="fig text-[19px]">{units.part(kind, kind === 'hook' ? Math.ceil(need) : need)}</b>
            {missing > 0 ? (
              <span className="ml-3 font-semibold text-stop">
                <Icon name="short" size={13} /> {units.part(kind, kind === 'hook' ? Math.ceil(missing) : missing)}{' '}
                missing
              </span>
            ) : (
              <span className="quiet ml-3">{units.part(kind, have)} here</span>
            )}
          </span>
        </li>
      ))}
      {needs.length === 0 && <li className="quiet">Nothing more than what is on the bench already.</li>}
    </ul>
  );
}

/** What is chosen in the evening: its times, and when it shall begin. */
function Chosen({
  plan,
  wishes,
  taskId,
  onGone,
}: {
  plan: TonightPlan;
  wishes: Wishes;
  taskId: string;
  onGone: () => void;
}) {
  const at = plan.tasks.findIndex(({ id }) => id === taskId);
  const task = plan.tasks[at];
  if (!task) return null;
  const { startS, endS } = plan.schedule.placed[at]!;
  const held = wishes.pinned[taskId] !== undefined;
  const to = (byS: number) => wishes.pin(taskId, startS + byS);
  return (
    <div className="mt-2 flex flex-wrap items-center gap-x-5 gap-y-2 bg-sheet px-4 py-2.5">
      <span className="min-w-0 flex-1">
        <b className="font-medium">{task.name}</b>
        <span className="quiet">
          {' '}
          {task.heads > 0 && `${task.heads} heads, `}
          {writeTime(plan.startMs + MS * startS)} to {writeTime(plan.startMs + MS * endS)}
        </span>
      </span>
      <Button onClick={() => to(-900)}>15 min sooner</Button>
      <Button onClick={() => to(900)}>15 min later</Button>
      {held && (
        <Button
          onClick={() => {
            wishes.unpin(taskId);
            onGone();
          }}
        >
          Let it go
        </Button>
      )}
    </div>
  );
}

/** From what is open to an evening's work. */
export function TonightPage() {
  const { data: asked, error } = useQuery({ queryKey: ['tonight'], queryFn: () => call('GET /tonight') });
  const wishes = useWishes();
  const state = usePlan(asked, wishes.wishes);
  const [chosen, choose] = useState<string | null>(null);
  if (!asked) return <Waiting error={error} />;
  const { plan } = state;
  const untilMs = wishes.wishes.evenings[0]!.toMs;
  const people = wishes.wishes.people.map(({ name }) => name);
  const evenings = plan
    ? plan.windows.filter(({ fromS, toS }) =>
        plan.schedule.placed.some(({ startS, endS }) => endS > startS && startS >= fromS && startS < toS),
      )
    : [];
  const heads = plan ? asked.wanted.filter(({ id }) => plan.ends.some((end) => end.id === id)).length : 0;
  return (
    <Page
      stub={
        <>
          {plan ? (
            <TheNumber
              eyebrow={`${writeDayShort(plan.startMs)}, from ${writeTime(plan.startMs)}`}
              value={evenings.length > 1 ? evenings.length : writeTime(plan.startMs + MS * plan.schedule.endS)}
            >
              {heads === 0
                ? 'and nothing is open'
                : evenings.length > 1
                  ? `evenings until all that is open is done: ${when(plan.startMs + MS * plan.schedule.endS, plan.startMs)}`
                  : 'and all that is open is done'}
            </TheNumber>
          ) : (
            <TheNumber value="…">what is open is laid into the evening</TheNumber>
          )}
          <Ends state={state} untilMs={untilMs} />
          <Evening wishes={wishes} />
          <ProblemNote error={state.error} />
          {plan && heads > 0 && <ToWork asked={asked} plan={plan} />}
          {plan && heads > 0 && (
            <div className="flex flex-wrap gap-4">
              <Button onClick={() => window.print()}>Print the run sheet</Button>
              <Button look="quiet" onClick={() => downloadCalendar(plan)}>
                As a calendar
              </Button>
            </div>
          )}
        </>
      }
    >
      {plan &&
        evenings.map((window, at) => (
          <div key={window.fromS} className="mb-6">
            <Heading
              aside={
                state.searching !== null && at === 0 ? (
                  <button type="button" className="underline underline-offset-4" onClick={state.stop}>
                    This one is good enough
                  </button>
                ) : (
                  'drag what shall begin at another time'
                )
              }
            >
              {at === 0 ? 'The evening' : writeDayShort(plan.startMs + MS * window.fromS)}
            </Heading>
            <EveningStrip
              {...{ plan, people, window, chosen }}
              pinned={wishes.pinned}
              onChoose={choose}
              onPin={wishes.pin}
            />
            {at === 0 && chosen && <Chosen {...{ plan, wishes }} taskId={chosen} onGone={() => choose(null)} />}
          </div>
        ))}
      {state.chances && <Doubt chances={state.chances} />}
      {plan && (
        <div className="mt-6 grid gap-x-9 gap-y-6 xl:grid-cols-2">
          <div>
            <Heading aside={`${asked.wanted.length} open`}>What is wanted</Heading>
            <Wanted {...{ asked, plan, wishes, state }} />
            {asked.wanted.length === 0 && (
              <p className="quiet">
                No order is open and no ticket is under way.{' '}
                <Link to="/orders/new" className="underline">
                  A new order
                </Link>
              </p>
            )}
            <div className="mt-6" />
            <Helps {...{ asked, plan, wishes }} />
          </div>
          <div>
            <Heading>At the pot</Heading>
            <AtThePot plan={plan} />
            <div className="mt-6" />
            <Heading>From the shelf</Heading>
            <Needs {...{ asked, plan, wishes }} />
          </div>
        </div>
      )}
    </Page>
  );
}
