import { chanceBy, surerS, timeOf, writeSpan, type TonightAsked, type TonightPlan } from '@schmelz/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { call } from '../../api/client.ts';
import { Button } from '../../design/Button.tsx';
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
import { Helps } from './Helps.tsx';
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
      <p className="quiet">
        {overS < 60
          ? 'No order of the work ends earlier.'
          : `No order ends before ${when(startMs + MS * schedule.boundS, startMs)}; this one ${writeSpan(overS)} later.`}
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

/** What the end hangs on most, and what would make it surer. */
function Doubt({ chances }: { chances: NonNullable<PlanState['chances']> }) {
  const [first, second] = chances.doubts;
  if (!first || first.share < 0.05) return null;
  return (
    <p className="quiet">
      Most of the doubt is {DOUBT_SAYS[first.what] ?? first.what}
      {second && second.share > 0.15 ? `, then ${DOUBT_SAYS[second.what] ?? second.what}` : ''}: were it known, the end
      would be {writeSpan(surerS(chances))} surer. The bench learns it as you count.
    </p>
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
              <EveningForm wishes={wishes} />
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
          {plan && <Since {...{ asked, plan }} />}
          {state.chances && <Doubt chances={state.chances} />}
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
      </div>
      {plan && <RunSheet {...{ asked, plan, people }} wishes={wishes.wishes} />}
    </>
  );
}
