import type { Ticket } from '@schmelz/contract';
import { blankKey, type TonightAsked, type TonightPlan } from '@schmelz/core';
import { Link, useNavigate } from 'react-router';
import { toast } from '../../design/toast.ts';
import { call } from '../../api/client.ts';
import { useList, useWrite } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { useNow } from '../../shell/clock.ts';
import { follow } from '../../shell/followed.ts';
import { underWay, useLineState } from '../../shell/line-state.ts';
import { ProblemNote } from '../../design/Notice.tsx';

/** The order that is made for what is to lie on the shelf. */
const SHELF = 'shelf';

/** The tickets of a work: itself, or what its order's line has become. */
function ticketsOf(asked: TonightAsked, works: readonly string[], made: ReadonlyMap<string, Ticket[]>): string[] {
  return works.flatMap((id) => {
    const wanted = asked.wanted.find((each) => each.id === id);
    if (!wanted) return [];
    if (wanted.ticketNumber !== null) return [wanted.id];
    const own = made.get(wanted.orderId || SHELF)?.find(({ productId }) => productId === wanted.product.id);
    return own ? [own.id] : [];
  });
}

/** What each mold of a pour casts for whom, as it is planned. */
function castsByTicket(
  { molds, works }: TonightPlan['pours'][number],
  asked: TonightAsked,
  made: ReadonlyMap<string, Ticket[]>,
) {
  return molds.flatMap(({ moldId, uses }) =>
    uses.flatMap(({ blankId, casts }) => {
      const own = works.filter((id) => blankKey(asked.wanted.find((each) => each.id === id)!.product) === blankId);
      return ticketsOf(asked, own, made).map((ticketId) => ({ ticketId, moldId, casts }));
    }),
  );
}

/** The plan goes to work: its orders become tickets, and its first pour stands at the pot. */
export function ToWork({ asked, plan }: { asked: TonightAsked; plan: TonightPlan }) {
  const navigate = useNavigate();
  const { data: pots } = useList('pots');
  const planned = new Set(plan.ends.map(({ id }) => id));
  const open = asked.wanted.filter(({ id, ticketNumber }) => ticketNumber === null && planned.has(id));
  const orders = [...new Set(open.flatMap(({ orderId }) => orderId || []))];
  const shelf = open.filter(({ orderId }) => orderId === '');
  const [first] = plan.pours;
  const go = useWrite(async () => {
    const made = new Map<string, Ticket[]>();
    let shelfOrder = '';
    for (const id of orders) made.set(id, await call('POST /orders/:id/release', { params: { id } }));
    if (shelf.length > 0) {
      const lines = shelf.map(({ product, heads }) => ({ productId: product.id, quantity: heads }));
      const { id } = await call('POST /orders', { body: { customer: '', dueOn: null, note: '', lines } });
      made.set(SHELF, await call('POST /orders/:id/release', { params: { id } }));
      shelfOrder = id;
    }
    // What is for the shelf has an order now: the line follows it by that.
    const known = { ...asked, wanted: asked.wanted.map((each) => ({ ...each, orderId: each.orderId || shelfOrder })) };
    if (!first) return { pourId: null, known };
    const ticketIds = ticketsOf(asked, first.works, made);
    const [pot] = pots ?? [];
    if (!pot || ticketIds.length === 0) return { pourId: null, known };
    const planned = castsByTicket(first, asked, made);
    const body = { moldIds: [...first.moldIds], atOnce: first.moldIds.length, planned, potId: pot.id, ticketIds };
    return { pourId: (await call('POST /pours', { body })).id, known };
  });
  const line = useLineState(useNow(5000));
  const going = line && underWay(line);
  const says = first ? `To the pot: ${first.molds.map(({ name }) => name).join(' and ')}` : 'To work';
  return (
    <>
      {going && (
        <Button look="main" asChild className="self-start">
          <Link to={going.to}>Back to {going.says}</Link>
        </Button>
      )}
      <Button
        look={going ? 'quiet' : 'main'}
        className="self-start"
        disabled={go.isPending || !pots}
        onClick={() =>
          go.mutate(undefined, {
            onSuccess: ({ pourId, known }) => {
              follow(known, plan);
              const released = orders.length + Number(shelf.length > 0);
              if (released > 0) toast(`${released === 1 ? 'An order is' : `${released} orders are`} released.`);
              void navigate(pourId ? `/pour/${pourId}` : '/');
            },
          })
        }
      >
        {says}
      </Button>
      <ProblemNote error={go.error} />
    </>
  );
}
