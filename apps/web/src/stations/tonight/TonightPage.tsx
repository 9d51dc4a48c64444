import {
  chanceBy,
  gains,
  notMadeSay,
  timeOf,
  writeSpan,
  type TonightAsked,
  type TonightPlan,
  type TonightWishes,
} from '@schmelz/core';
import { useQuery } from '@tanstack/react-query';
import { useUnits } from '../../units/Units.tsx';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { call } from '../../api/client.ts';
import { useList, useSettings } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { Icon } from '../../design/Icon.tsx';
import { ProblemNote, Waiting } from '../../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { changedSince, followed } from '../../shell/followed.ts';
import { writeDayShort, writeTime } from '../../units/dates.ts';
import { downloadCalendar } from './download.ts';
import { AtThePot, Needs } from './AtThePot.tsx';
import { EveningForm } from './EveningForm.tsx';
import { WantedList } from './WantedList.tsx';
import { when } from './when.ts';
import { EveningStrip } from './EveningStrip.tsx';
import { Beside } from './Beside.tsx';
import { Helps, type Besides } from './Helps.tsx';
import { ToWork } from './ToWork.tsx';
import { RunSheet } from './RunSheet.tsx';
import { usePlan, type PlanState } from './usePlan.ts';
import { useWishes, type Wishes } from './wishes.ts';

const MS = 1000;
/** So much sooner or later is worth a word, s. */
const WORTH_SAYING_S = 300;
/** When it is over, how sure that is, and what no plan can go below. */
function Ends({ state, untilMs }: { state: PlanState; untilMs: number }) {
  const { plan, chances, searching } = state;
  if (!plan) return null;
  const { schedule, startMs } = plan;
  const endMs = startMs + MS * schedule.endS;
  const overS = schedule.endS - schedule.boundS;
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
      {/* Two lines, so that nothing below moves while it is still being looked for. */}
      <p className="quiet min-h-[2.9em]">
        {overS < 60
          ? 'No order of the work ends earlier.'
          : `No order ends before ${when(startMs + MS * schedule.boundS, startMs)}; this one ${writeSpan(overS)} later.`}
        {searching !== null && ` Looking for a better one: ${Math.round(100 * searching)} %.`}
      </p>
    </div>
  );
}

/** What a doubt is, how it is measured, and where. */
const MEASURED: Record<string, { says: string; by: string; to: string }> = {
  evening: { says: 'How quick hands are tonight', by: 'tickets closed with their minutes', to: '/books/plans' },
  pour: { says: 'Your pace at the pot', by: 'shots counted as they are poured', to: '/pour' },
  trim: { says: 'Your pace at the trimming', by: 'heads counted one by one', to: '/trim' },
  paint: { says: 'Your pace at the painting', by: 'heads counted one by one', to: '/paint' },
  bake: { says: 'Hanging up and taking down', by: 'loads said as they go in', to: '/bake' },
  finish: { says: 'Your pace at the finish', by: 'heads counted one by one', to: '/finish' },
  melting: { says: 'How long the pot takes to melt', by: 'a heat-up with a probe in the pot', to: '/lead/melt' },
  casts: { says: 'How many casts come good', by: 'bad heads said by their cavity', to: '/pour' },
};

/** What has become otherwise since the plan was taken to work. */
function Since({ asked, plan }: { asked: TonightAsked; plan: TonightPlan }) {
  const then = followed();
  if (!then) return null;
  const endMs = plan.startMs + MS * plan.schedule.endS;
  const laterS = (endMs - then.endMs) / MS;
  const says = [
    ...(Math.abs(laterS) >= WORTH_SAYING_S
      ? [`it ends ${writeSpan(Math.abs(laterS))} ${laterS > 0 ? 'later' : 'sooner'}`]
      : []),
    ...changedSince(then, asked),
  ];
  if (says.length === 0) return null;
  return (
    <p className="mt-2 text-watch" role="note">
      Since the plan of {writeTime(then.madeMs)}: {says.join('; ')}.
    </p>
  );
}

/** What the end hangs on, and what measuring each of it would gain. */
function Doubts({ chances }: { chances: NonNullable<PlanState['chances']> }) {
  const worth = gains(chances).flatMap((gain) => (MEASURED[gain.what] ? [{ ...gain, ...MEASURED[gain.what]! }] : []));
  if (worth.length === 0) return null;
  return (
    <>
      <Heading aside="what measuring would gain">What the end hangs on</Heading>
      <ul>
        {worth.slice(0, 4).map(({ what, share, surerS, says, by, to }) => (
          <li key={what} className="grid grid-cols-[minmax(0,1fr)_auto] items-center gap-4 border-b border-rule py-2">
            <span>
              <span className="block">{says}</span>
              <Link to={to} className="quiet underline underline-offset-4">
                {by}
              </Link>
            </span>
            <span className="text-right">
              <b className="fig text-[19px]">{writeSpan(surerS)} surer</b>
              <span className="quiet block">{Math.round(100 * share)} % of the doubt</span>
            </span>
          </li>
        ))}
      </ul>
    </>
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
  const { data: settings } = useSettings();
  const units = useUnits();
  const wishes = useWishes(settings?.people);
  const state = usePlan(settings && asked, wishes.wishes);
  const [chosen, choose] = useState<string | null>(null);
  const { data: kept } = useList('bake-programs');
  const programs = useMemo(() => kept ?? [], [kept]);
  const [compared, compare] = useState<(Besides & { to: TonightWishes }) | null>(null);
  // What was compared with another evening's plan says nothing of this one.
  const beside = compared?.to === wishes.wishes ? compared : null;
  if (!asked) return <Waiting error={error} />;
  const { plan } = state;
  const untilMs = wishes.wishes.evenings[0]!.toMs;
  const people = wishes.wishes.people.map(({ name }) => name);
  const evenings = plan
    ? plan.windows.filter(({ fromS, toS }) =>
        plan.schedule.placed.some(({ startS, endS }) => endS > startS && startS >= fromS && startS < toS),
      )
    : [];
  const open = plan && (plan.ends.length > 0 || plan.notMade.length > 0);
  const notMade = plan?.notMade ?? [];
  const lacking = notMade.reduce((sum, { heads }) => sum + heads, 0);
  const done = lacking > 0 ? `all but ${lacking} ${lacking === 1 ? 'head' : 'heads'}` : 'all that is open';
  return (
    <>
      <div className="print:hidden">
        <Page
          stub={
            <>
              {plan ? (
                <TheNumber
                  eyebrow={`${writeDayShort(plan.startMs)}, from ${writeTime(plan.startMs)}`}
                  value={evenings.length > 1 ? evenings.length : writeTime(plan.startMs + MS * plan.schedule.endS)}
                >
                  {!open
                    ? 'and nothing is open'
                    : evenings.length > 1
                      ? `evenings, then ${done} is done: ${when(plan.startMs + MS * plan.schedule.endS, plan.startMs)}`
                      : `and ${done} is done`}
                </TheNumber>
              ) : (
                <TheNumber value="…">what is open is laid into the evening</TheNumber>
              )}
              {notMadeSay(notMade, asked.wanted).map((says) => (
                <p key={says} className="flex gap-2 font-medium text-stop">
                  <Icon name="short" className="mt-0.5 shrink-0" /> {units.said(says)}
                </p>
              ))}
              <Ends state={state} untilMs={untilMs} />
              <EveningForm wishes={wishes} />
              <ProblemNote error={state.error} />
              {plan && open && <ToWork asked={asked} plan={plan} />}
              {plan && open && (
                <div className="flex flex-wrap gap-4">
                  <Button onClick={() => window.print()}>Print the run sheet</Button>
                  <Button look="quiet" onClick={() => void downloadCalendar(plan)}>
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
          {beside && (
            <Beside
              two={beside.two}
              asked={asked}
              untilMs={untilMs}
              onTake={beside.take}
              onClose={() => compare(null)}
            />
          )}
          {plan && <Since {...{ asked, plan }} />}
          {plan && (
            <div className="mt-6 grid gap-x-9 gap-y-6 xl:grid-cols-2">
              <div>
                <Heading aside={`${asked.wanted.length} open`}>What is wanted</Heading>
                <WantedList {...{ asked, plan, wishes, state }} />
                {asked.wanted.length === 0 && (
                  <p className="quiet">
                    No order is open and no ticket is under way.{' '}
                    <Link to="/orders/new" className="underline">
                      A new order
                    </Link>
                  </p>
                )}
                <div className="mt-6" />
                <Helps
                  {...{ asked, plan, wishes, programs }}
                  onBeside={(besides) => compare({ ...besides, to: wishes.wishes })}
                />
              </div>
              <div>
                <Heading>At the pot</Heading>
                <AtThePot plan={plan} />
                {state.chances && (
                  <div className="mt-6">
                    <Doubts chances={state.chances} />
                  </div>
                )}
                <div className="mt-6" />
                <Heading>From the shelf</Heading>
                <Needs {...{ asked, plan, wishes }} />
              </div>
            </div>
          )}
        </Page>
      </div>
      {plan && <RunSheet {...{ asked, plan, people }} wishes={wishes.wishes} />}
    </>
  );
}
