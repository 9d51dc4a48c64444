import { chanceBy, writeSpan, type TonightAsked, type TonightPlan, forWhom } from '@schmelz/core';
import { Link } from 'react-router';
import { writeDayShort } from '../../units/dates.ts';
import { useUnits } from '../../units/Units.tsx';
import { type PlanState } from './usePlan.ts';
import { type Wishes } from './wishes.ts';

import { when } from './when.ts';

const MS = 1000;

/** What is open, with the time it is done, and whether that is in time. */
export function WantedList({
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
  const { said } = useUnits();
  const ends = new Map(plan.ends.map((end) => [end.id, end]));
  const problems = new Map(plan.casts.problems.map(({ workId, text }) => [workId, text]));
  const notMade = new Map(plan.notMade.map((each) => [each.id, each]));
  const sorted = [...asked.wanted].sort((a, b) => (ends.get(a.id)?.endMs ?? 0) - (ends.get(b.id)?.endMs ?? 0));
  return (
    <ul>
      {sorted.map(({ id, name, customer, orderNumber, orderId, ticketNumber, toCast, left, dueMs }) => {
        const out = wishes.leftOut.includes(id);
        const end = ends.get(id);
        const lacking = out ? undefined : notMade.get(id);
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
              aria-label={`${name} for ${forWhom(customer)}, tonight`}
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
                    {orderId ? `order ${orderNumber}, ${forWhom(customer)}` : 'to lie on the shelf'}
                  </Link>
                ) : (
                  `ticket ${ticketNumber}, ${forWhom(customer)}`
                )}
                {toCast > 0 && `, ${toCast} to cast`}
                {waiting > 0 && `, ${waiting} on the way`}
                {dueMs !== null && `, due ${writeDayShort(dueMs)}`}
              </span>
              {lacking && (
                <span className="block text-sm font-medium text-stop">
                  {lacking.heads < toCast ? `all but ${lacking.heads}` : `none of ${toCast}`}: {said(lacking.lacks)}
                </span>
              )}
              {problems.has(id) && (
                <span className="block text-sm font-medium text-stop">{said(problems.get(id)!)}</span>
              )}
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
                <span className={lacking ? 'font-semibold text-stop' : 'quiet'}>
                  {out ? 'another day' : lacking ? 'not whole' : 'not tonight'}
                </span>
              )}
            </span>
          </li>
        );
      })}
    </ul>
  );
}
