import type { Ticket } from '@schmelz/contract';
import { productAtRelease, productChanges, productRefusal, type TicketState } from '@schmelz/core';
import { call } from '../../api/client.ts';
import { useSettings, useWrite } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { ProblemNote } from '../../design/Notice.tsx';
import { Heading } from '../../design/Page.tsx';
import { toast } from '../../design/toast.ts';
import { useCatalogue } from '../../shell/catalogue.ts';
import { useUnits } from '../../units/Units.tsx';

/** What the product of a ticket has become since its release, and the offer to make these heads so too. */
export function Become({ ticket, state }: { ticket: Ticket; state: TicketState }) {
  const { said } = useUnits();
  const { data: settings } = useSettings();
  const catalogue = useCatalogue();
  const take = useWrite(() => call('POST /tickets/:id/product', { params: { id: ticket.id } }));
  const record = catalogue?.product(ticket.productId);
  if (!settings || !catalogue || !record || state.closedAt !== null) return null;
  const now = productAtRelease(catalogue.known(record), settings.ways.schools);
  const changes = productChanges(ticket.product, now);
  if (changes.length === 0) return null;
  const refusal = productRefusal(ticket.product, now, state, ticket.pourId !== null || state.taken > 0);
  return (
    <section className="mb-6" aria-label="Its product is another now">
      <Heading aside="this ticket is made as it was released">Its product is another now</Heading>
      <div className="overflow-x-auto">
        <table className="sheet-table min-w-[460px]">
          <thead>
            <tr>
              <th />
              <th>This ticket</th>
              <th>The product today</th>
            </tr>
          </thead>
          <tbody>
            {changes.map(({ what, was, is }) => (
              <tr key={what}>
                <td className="whitespace-nowrap">{what}</td>
                <td>{said(was)}</td>
                <td className="font-semibold">{said(is)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {refusal ? (
        <p className="quiet mt-2">{said(refusal)}</p>
      ) : (
        <Button
          className="mt-3"
          disabled={take.isPending}
          onClick={() => take.mutate(undefined, { onSuccess: () => void toast('These heads are made so too.') })}
        >
          Make these heads so too
        </Button>
      )}
      <ProblemNote error={take.error} />
    </section>
  );
}
