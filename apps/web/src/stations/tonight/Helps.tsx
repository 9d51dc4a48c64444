import {
  allBakedBy,
  handsMinor,
  thinner,
  writeSpan,
  type PlanBake,
  type TonightAsked,
  type TonightPlan,
  type TonightWishes,
} from '@schmelz/core';
import { useQuery } from '@tanstack/react-query';
import { wrap } from 'comlink';
import { Button } from '../../design/Button.tsx';
import { Heading } from '../../design/Page.tsx';
import type { Planner } from '../../workers/planner.worker.ts';
import { startPlanner } from '../../workers/start.ts';
import { Link } from 'react-router';
import { writeTime, writeWeekday } from '../../units/dates.ts';
import { useUnits } from '../../units/Units.tsx';
import type { Compared } from './Beside.tsx';
import type { EveningForm, Wishes } from './wishes.ts';

interface Change {
  id: string;
  says: string;
  /** What to change in the form for it; null: it is done elsewhere. */
  form: Partial<EveningForm> | null;
  wishes: TonightWishes;
  asked?: TonightAsked;
}

/** What could be otherwise tonight, one thing at a time. */
function changesOf({ form, wishes }: Wishes, asked: TonightAsked, programs: readonly PlanBake[]): Change[] {
  const coats = asked.wanted.some(({ product }) => product.layers.reduce((sum, each) => sum + each.coats, 0) > 1);
  const thin = asked.wanted.map((each) =>
    each.product.layers.reduce((sum, layer) => sum + layer.coats, 0) > 1
      ? { ...each, product: thinner(each.product) }
      : each,
  );
  const more = { ...wishes, people: [...wishes.people, { name: 'Helper', can: null }] };
  return [
    ...(form.people < 4 ? [{ id: 'helper', says: 'A helper', form: { people: form.people + 1 }, wishes: more }] : []),
    ...(form.people < 4 && form.guns < form.people + 1
      ? [
          {
            ...{ id: 'helper gun', says: 'A helper with a gun of their own' },
            form: { people: form.people + 1, guns: form.guns + 1 },
            wishes: { ...more, guns: form.guns + 1 },
          },
        ]
      : []),
    form.atOnce === 1
      ? { id: 'two', says: 'Two molds in turn', form: { atOnce: 2 }, wishes: { ...wishes, atOnce: 2 } }
      : { id: 'one', says: 'One mold after another', form: { atOnce: 1 }, wishes: { ...wishes, atOnce: 1 } },
    ...(coats
      ? [{ id: 'coat', says: 'A coat less where there are two', form: null, wishes, asked: { ...asked, wanted: thin } }]
      : []),
    // Only what cures all of it, and what all of it stands.
    ...programs.flatMap((program): Change[] => {
      const wanted = allBakedBy(asked.wanted, program, asked.oven, asked.oven.places);
      if (!wanted) return [];
      return [
        { id: program.name, says: `All baked by ${program.name}`, form: null, wishes, asked: { ...asked, wanted } },
      ];
    }),
  ];
}

const lateOf = ({ ends }: TonightPlan) => ends.reduce((sum, { lateS }) => sum + lateS, 0);

/** What a plan and the same with one thing changed come to, and how the change is taken; null: elsewhere. */
export interface Besides {
  two: [Compared, Compared];
  take: (() => void) | null;
}

/** The same evening with one thing changed: when it ends then, and whether what is late is in time. */
export function Helps({
  asked,
  plan,
  wishes,
  programs,
  onBeside,
}: {
  asked: TonightAsked;
  plan: TonightPlan;
  wishes: Wishes;
  programs: readonly PlanBake[];
  onBeside: (besides: Besides) => void;
}) {
  const units = useUnits();
  const { data } = useQuery({
    queryKey: ['tonight', 'helps', asked, wishes.wishes, programs],
    queryFn: async ({ signal }) => {
      const worker = startPlanner();
      signal.addEventListener('abort', () => worker.terminate());
      try {
        const planner = wrap<Planner>(worker);
        const byS = (wishes.wishes.evenings[0]!.toMs - plan.startMs) / 1000;
        const found: { change: Change; then: TonightPlan; sure: number }[] = [];
        // Reckoned once for the question, not at each drawing of the page.
        for (const change of changesOf(wishes, asked, programs)) {
          const then = (await planner.plan(change.asked ?? asked, change.wishes)) as TonightPlan;
          found.push({ change, then, sure: await planner.sure(then, byS, asked.ways) });
        }
        return { found, sureNow: await planner.sure(plan, byS, asked.ways) };
      } finally {
        worker.terminate();
      }
    },
    staleTime: Infinity,
    retry: false,
  });
  if (!data || plan.tasks.length === 0) return null;
  return (
    <>
      <Heading aside="one thing changed">And if</Heading>
      <ul>
        {data.found.map(({ change, then, sure }) => {
          const savedS = plan.schedule.endS - then.schedule.endS;
          const endMs = then.startMs + 1000 * then.schedule.endS;
          const hands = handsMinor(plan.tasks, asked.ways) - handsMinor(then.tasks, asked.ways);
          const take = change.form ? () => wishes.change(change.form!) : null;
          const names = (of: TonightWishes) => of.people.map(({ name }) => name);
          const beside = () =>
            onBeside({
              two: [
                { says: 'As planned', plan, people: names(wishes.wishes), sure: data.sureNow },
                { says: change.says, plan: then, people: names(change.wishes), sure },
              ],
              take,
            });
          const rescued = lateOf(plan) > 0 && lateOf(then) === 0;
          return (
            <li
              key={change.id}
              className="grid grid-cols-[minmax(0,1fr)_auto_auto] items-center gap-4 border-b border-rule py-2"
            >
              <span>
                <span className="block">{change.says}</span>
                <span className="quiet block">
                  {Math.round(100 * sure)} in a hundred by {writeTime(wishes.wishes.evenings[0]!.toMs)}
                  {Math.abs(hands) >= 1 && `, hands for ${units.money(Math.abs(hands))} ${hands > 0 ? 'less' : 'more'}`}
                </span>
                {rescued && <b className="ml-2 font-medium text-good">all is in time</b>}
              </span>
              <span className="text-right">
                <b className="fig text-[19px]">
                  {then.schedule.endS > 64_800 ? `${writeWeekday(endMs)} ` : ''}
                  {writeTime(endMs)}
                </b>
                <span className="quiet block">
                  {Math.abs(savedS) < 60
                    ? 'as now'
                    : `${writeSpan(Math.abs(savedS))} ${savedS > 0 ? 'sooner' : 'later'}`}
                </span>
              </span>
              <span className="flex flex-col items-end gap-1">
                {take ? (
                  <Button look="quiet" onClick={take}>
                    Plan so
                  </Button>
                ) : (
                  <Link className="quiet underline underline-offset-4" to="/products">
                    at the product
                  </Link>
                )}
                <button type="button" className="quiet min-h-6 underline underline-offset-4" onClick={beside}>
                  side by side
                </button>
              </span>
            </li>
          );
        })}
      </ul>
    </>
  );
}
