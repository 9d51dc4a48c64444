import type { Ticket } from '@schmelz/contract';
import {
  AT,
  castsSay,
  perHead,
  stackTotal,
  stationOf,
  ticketState,
  writeSpan,
  type TicketState,
  forWhom,
} from '@schmelz/core';
import { Link, useParams } from 'react-router';
import { call } from '../../api/client.ts';
import { newId } from '../../api/id.ts';
import { useTicket, useWrite } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { Icon } from '../../design/Icon.tsx';
import { ProblemNote, Waiting } from '../../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { Head } from '../../drawing/Head.tsx';
import { paintOn, specOf } from '../../drawing/product.ts';
import { benchPath, castsOfTicket, setupOf, wholeLog } from '../../shell/line-state.ts';
import { useUnits } from '../../units/Units.tsx';
import { EntryList } from '../../bench/EntryList.tsx';
import { AlongTheLine } from './AlongTheLine.tsx';
import { Become } from './Become.tsx';
import { CostStacks } from '../../drawing/CostStack.tsx';
import { moment, writeDay } from '../../units/dates.ts';

interface Row {
  name: string;
  plan: string;
  came: string;
}

/** Plan against what it came to, line by line, in the maker's units. */
function useRows(ticket: Ticket, good: number): Row[] {
  const units = useUnits();
  const { planned, actual, quantity } = ticket;
  const untimedS = (actual.notTimed ?? []).reduce((sum, { seconds }) => sum + seconds, 0);
  const share = (part: number, whole: number) => (whole > 0 ? `${Math.round((100 * part) / whole)} %` : '–');
  const casts = castsOfTicket(ticket);
  const materials = actual.materials.map(({ materialId, name, kind, quantity: used, valueMinor }): Row => {
    const lines = planned.bill.filter((line) => line.partId === materialId);
    const each = kind === 'lead' ? planned.leadKgPerHead : lines.reduce((sum, line) => sum + perHead(line), 0);
    const taken = materialId === ticket.fromId ? 1 : each;
    return {
      name,
      plan: units.part(kind, taken * quantity),
      came: `${units.part(kind, used)}, ${units.money(valueMinor)}`,
    };
  });
  return [
    { name: 'Good heads', plan: String(quantity), came: String(good) },
    {
      name: 'Casts',
      plan: planned.upTo ? castsSay({ expected: planned.casts, provision: planned.upTo }) : String(planned.casts),
      came: String(casts),
    },
    { name: 'Yield at the pot', plan: share(planned.yieldShare, 1), came: share(ticket.poured, casts) },
    ...materials,
    {
      name: 'Hands-on',
      plan: writeSpan(planned.workS),
      came: `${writeSpan(actual.workS)}${untimedS > 0 ? `, ${writeSpan(untimedS)} of it by your ways: not timed` : ''}`,
    },
    { name: 'Electricity', plan: '', came: units.write(actual.energyKWh, 'kWh') },
    {
      name: 'One head',
      plan: `${units.money(stackTotal(planned.stack), 1)}${planned.unpriced ? `, without ${planned.unpriced.join(', ')}` : ''}`,
      came: actual.cost.perHead ? units.money(stackTotal(actual.cost.perHead), 1) : '–',
    },
  ];
}

export function TicketPage() {
  const { id = '' } = useParams();
  const { data: ticket, error } = useTicket(id);
  if (!ticket) return <Waiting error={error} />;
  return <View ticket={ticket} />;
}

/** Where the ticket's work is now. */
function whereOn(ticket: Ticket, state: TicketState): { to: string; says: string } {
  if (state.at === AT.pour) return { to: ticket.pourId ? `/pour/${ticket.pourId}` : '/pour', says: 'pour' };
  const step = state.at === AT.take ? state.steps[0] : state.steps.find((each) => each.key === state.at);
  if (!step) return { to: `/tickets/${ticket.id}`, says: 'closing' };
  const says = state.at === AT.take ? 'the shelf' : step.does.toLowerCase();
  return { to: benchPath(step.station, ticket.id, step.key), says };
}

function View({ ticket }: { ticket: Ticket }) {
  const { poured, product } = ticket;
  const state = ticketState(setupOf(ticket), wholeLog(ticket));
  const rows = useRows(ticket, state.good);
  const units = useUnits();
  const say = useWrite((entry: { kind: 'close' } | { kind: 'undo'; target: string }) =>
    call('POST /tickets/:id/entries', { params: { id: ticket.id }, body: { ...entry, id: newId(), at: moment() } }),
  );
  const closing = ticket.log.findLast((entry) => entry.kind === 'close');
  const closed = state.at === AT.closed;
  // Before the pour nothing is missing: it is only not cast yet.
  const short = ticket.missing > 0 && (poured > 0 || state.taken > 0);
  const on = whereOn(ticket, state);
  const cost = ticket.actual.cost;
  const price = product.priceMinor ?? null;
  return (
    <Page
      stub={
        <>
          <TheNumber
            eyebrow={`Ticket ${ticket.number}, ${forWhom(ticket.customer)}`}
            value={closed ? units.money(cost.perHead ? stackTotal(cost.perHead) : 0, 1) : state.good}
          >
            {closed
              ? `is what one ${product.name.split(',')[0]} cost`
              : `of ${ticket.quantity} ${product.name.split(',')[0]} are done`}
          </TheNumber>
          <Head
            {...specOf(product)}
            paint={paintOn(product)}
            state={
              state.steps.some((step) => stationOf(step.station).after === 'baked' && step.good > 0) ? 'baked' : 'blank'
            }
            scale={4.2}
            label={product.name}
            className="max-w-full"
          />
          <p className="flex flex-wrap gap-x-5">
            {state.good > 0 && (
              <Link to={`/finish/labels/${ticket.id}`} className="underline decoration-rule-2 underline-offset-4">
                Labels for its bags
              </Link>
            )}
            <Link to={`/trace/${ticket.number}`} className="underline decoration-rule-2 underline-offset-4">
              What is in it
            </Link>
          </p>
          {short && !closed && (
            <p className="flex items-start gap-2 font-medium text-watch">
              <Icon name="watch" className="mt-1 shrink-0" /> {ticket.missing} missing: {ticket.quantity} are wanted,{' '}
              {state.at === AT.close ? `${state.good} came out` : `${ticket.quantity - ticket.missing} are left`}.
            </p>
          )}
          {ticket.toCast > 0 && !closed && poured > 0 && (
            <Button look={state.at === AT.close ? 'main' : 'quiet'} asChild className="self-start">
              <Link to="/pour">Cast {ticket.toCast} more</Link>
            </Button>
          )}
          {state.at === AT.close && (
            <Button
              look={short ? 'quiet' : 'main'}
              className="self-start"
              disabled={say.isPending}
              onClick={() => say.mutate({ kind: 'close' })}
            >
              {short ? `Close it, ${ticket.missing} short` : 'Close the ticket'}
            </Button>
          )}
          {closed && closing && (
            <>
              <p className="flex items-center gap-2 text-good">
                <Icon name="good" /> Closed {writeDay(state.closedAt!)}
                {short ? `, ${ticket.missing} short of ${ticket.quantity}` : ''}; stock has moved.
              </p>
              {price !== null && cost.perHead && (
                <p className="text-ink-2">
                  Sold at {units.money(price)}, a head brings {units.money(price - stackTotal(cost.perHead), 1)}. Check
                  your local rules on taxes and lead.
                </p>
              )}
              <Button
                look="quiet"
                className="self-start"
                onClick={() => say.mutate({ kind: 'undo', target: closing.id })}
              >
                {short ? `${ticket.missing} missing: open it again and cast for it` : 'Open it again'}
              </Button>
            </>
          )}
          {!closed && state.at !== AT.close && (
            <Button look="main" asChild className="self-start">
              <Link to={on.to}>On to {on.says}</Link>
            </Button>
          )}
          <ProblemNote error={say.error} />
        </>
      }
    >
      <Become ticket={ticket} state={state} />
      <AlongTheLine ticket={ticket} state={state} />
      <div className="grid gap-8 xl:grid-cols-[minmax(0,1fr)_430px]">
        <div>
          <Heading>Plan, and what it came to</Heading>
          <table className="sheet-table">
            <thead>
              <tr>
                <th />
                <th className="num">Plan</th>
                <th className="num">Came to</th>
              </tr>
            </thead>
            <tbody>
              {rows.map((row) => (
                <tr key={row.name}>
                  <td>{row.name}</td>
                  <td className="num text-ink-2">{row.plan}</td>
                  <td className="num font-semibold">{row.came}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
        <div>
          <Heading>What one head costs</Heading>
          <CostStacks planned={ticket.planned.stack} actual={cost.perHead} />
        </div>
      </div>
      <EntryList log={wholeLog(ticket)} />
    </Page>
  );
}
