import type { Order, Ticket } from '@schmelz/contract';
import { AT, forWhom, orderCame, stackTotal, stepState, ticketState, writeSpan } from '@schmelz/core';
import { Link } from 'react-router';
import { useOrderTickets } from '../../api/queries.ts';
import { Waiting } from '../../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { Head } from '../../drawing/Head.tsx';
import { paintOn, specOf } from '../../drawing/product.ts';
import { castsOfTicket, setupOf, wholeLog } from '../../shell/line-state.ts';
import { useCatalogue } from '../../shell/catalogue.ts';
import { useUnits } from '../../units/Units.tsx';
import { HandOver } from '../goods/HandOver.tsx';
import { CostBar } from '../../drawing/CostStack.tsx';

/** A ticket of the order with where it stands. */
type Standing = Ticket & { good: number; casts: number; where: string };

function standing(ticket: Ticket): Standing {
  const state = ticketState(setupOf(ticket), wholeLog(ticket));
  const place = stepState(state, state.at)?.does ?? { [AT.pour]: 'Pour', [AT.take]: 'Shelf' }[state.at];
  return {
    ...ticket,
    good: state.good,
    casts: castsOfTicket(ticket),
    where: state.at === AT.closed ? 'closed' : state.at === AT.close ? 'ready to close' : (place ?? ''),
  };
}

function Stub({ order, tickets }: { order: Order; tickets: readonly Standing[] }) {
  const units = useUnits();
  const { wanted, good, casts, workS, oneMinor } = orderCame(
    tickets.map((ticket) => ({
      ...{ quantity: ticket.quantity, good: ticket.good },
      casts: { planned: ticket.planned.casts, came: ticket.casts },
      workS: { planned: ticket.planned.workS, came: ticket.actual.workS },
      stack: { planned: ticket.planned.stack, came: ticket.actual.cost.perHead },
    })),
  );
  const money = (minor: number | null) => (minor === null ? '–' : units.money(minor, 1));
  const rows = [
    { name: 'Hands-on', plan: writeSpan(workS.planned), came: writeSpan(workS.came) },
    { name: 'Casts', plan: String(casts.planned), came: String(casts.came) },
    { name: 'One head, on average', plan: money(oneMinor.planned), came: money(oneMinor.came) },
  ];
  return (
    <>
      <TheNumber eyebrow={`Order ${order.number}, ${forWhom(order.customer)}`} value={good}>
        {order.status === 'done' ? `good heads came of ${wanted} ordered` : `of ${wanted} heads are good`}
      </TheNumber>
      <table className="w-full border-y border-rule-2">
        <thead>
          <tr className="text-right text-sm text-ink-3">
            <th />
            <th className="pt-2 font-normal">planned</th>
            <th className="pt-2 font-normal">came</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.name}>
              <td className="py-1">{row.name}</td>
              <td className="py-1 text-right text-ink-2">{row.plan}</td>
              <td className="py-1 text-right font-semibold">{row.came}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="quiet">
        As it was planned on the day of its release, and as it came: what is on the shelf today changes none of it.
      </p>
    </>
  );
}

/** An order that is on the line, or done: ticket by ticket as it was released, and as it came. */
export function ReleasedOrder({ order }: { order: Order }) {
  const { data, error } = useOrderTickets(order.id);
  const catalogue = useCatalogue();
  const units = useUnits();
  if (!data || !catalogue) return <Waiting error={error} />;
  const tickets = data.map(standing).sort((a, b) => a.number - b.number);
  return (
    <Page stub={<Stub order={order} tickets={tickets} />}>
      <HandOver order={order} catalogue={catalogue} />
      <Heading>Its tickets</Heading>
      <div className="overflow-x-auto">
        <table className="sheet-table min-w-[640px]">
          <thead>
            <tr>
              <th>Ticket</th>
              <th>Now at</th>
              <th className="num">Good</th>
              <th className="num">Casts planned</th>
              <th className="num">came</th>
              <th className="num">One planned</th>
              <th className="num">came</th>
              <th className="w-[18%]">of that</th>
            </tr>
          </thead>
          <tbody>
            {tickets.map(({ id, number, product, quantity, good, casts, where, planned, actual }) => (
              <tr key={id}>
                <td>
                  <Link to={`/tickets/${id}`} className="flex items-center gap-3 hover:underline">
                    <b className="fig text-[21px]">{number}</b>
                    <Head {...specOf(product)} paint={paintOn(product)} state="baked" scale={1.35} />
                    <span>{product.name}</span>
                  </Link>
                </td>
                <td className="whitespace-nowrap">{where}</td>
                <td className="num">
                  <b className="fig text-[19px]">{good}</b> of {quantity}
                </td>
                <td className="num text-ink-2">{planned.casts}</td>
                <td className="num font-semibold">{casts}</td>
                <td className="num text-ink-2">{units.money(stackTotal(planned.stack), 1)}</td>
                <td className="num font-semibold">
                  {actual.cost.perHead ? units.money(stackTotal(actual.cost.perHead), 1) : '–'}
                </td>
                <td>
                  <CostBar stack={actual.cost.perHead ?? planned.stack} />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </Page>
  );
}
