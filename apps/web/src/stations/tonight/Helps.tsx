import { writeSpan, type TonightAsked, type TonightPlan, type TonightWishes } from '@schmelz/core';
import { useQuery } from '@tanstack/react-query';
import { wrap } from 'comlink';
import { Button } from '../../design/Button.tsx';
import { Heading } from '../../design/Page.tsx';
import type { Planner } from '../../workers/planner.worker.ts';
import { startPlanner } from '../../workers/start.ts';
import { writeTime, writeWeekday } from '../../units/dates.ts';
import type { EveningForm, Wishes } from './wishes.ts';

interface Change {
  id: string;
  says: string;
  form: Partial<EveningForm>;
  wishes: TonightWishes;
}

/** What could be otherwise tonight, one thing at a time. */
function changesOf({ form, wishes }: Wishes): Change[] {
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
  ];
}

const lateOf = ({ ends }: TonightPlan) => ends.reduce((sum, { lateS }) => sum + lateS, 0);

/** The same evening with one thing changed: when it ends then, and whether what is late is in time. */
export function Helps({ asked, plan, wishes }: { asked: TonightAsked; plan: TonightPlan; wishes: Wishes }) {
  const changes = changesOf(wishes);
  const { data } = useQuery({
    queryKey: ['tonight', 'helps', asked, wishes.wishes],
    queryFn: async ({ signal }) => {
      const worker = startPlanner();
      signal.addEventListener('abort', () => worker.terminate());
      try {
        const planner = wrap<Planner>(worker);
        const found: { change: Change; then: TonightPlan }[] = [];
        for (const change of changes) {
          found.push({ change, then: (await planner.plan(asked, change.wishes)) as TonightPlan });
        }
        return found;
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
        {data.map(({ change, then }) => {
          const savedS = plan.schedule.endS - then.schedule.endS;
          const endMs = then.startMs + 1000 * then.schedule.endS;
          const rescued = lateOf(plan) > 0 && lateOf(then) === 0;
          return (
            <li
              key={change.id}
              className="grid grid-cols-[minmax(0,1fr)_auto_auto] items-center gap-4 border-b border-rule py-2"
            >
              <span>
                {change.says}
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
              <Button look="quiet" onClick={() => wishes.change(change.form)}>
                Plan so
              </Button>
            </li>
          );
        })}
      </ul>
    </>
  );
}
