import type { LotTicket } from '@schmelz/contract';
import { partKind } from '@schmelz/core';
import { useQuery } from '@tanstack/react-query';
import { Link, useParams } from 'react-router';
import { call } from '../../api/client.ts';
import { Button } from '../../design/Button.tsx';
import { Waiting } from '../../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { useCatalogue, type Catalogue } from '../../shell/catalogue.ts';
import { writeDay } from '../../units/dates.ts';
import { useUnits } from '../../units/Units.tsx';
import { Holders } from './Holders.tsx';
import { Finding } from '../../shell/Findings.tsx';
import { lotSays } from '../../shell/lot-says.ts';

/** Whose heads hold parts of one lot: the list to call them back by. */
function Recall({ tickets, catalogue, kind }: { tickets: LotTicket[]; catalogue: Catalogue; kind: string | null }) {
  const units = useUnits();
  return (
    <div className="overflow-x-auto print:overflow-visible" tabIndex={0} role="region" aria-label="Who has them">
      <table className="sheet-table">
        <thead>
          <tr>
            <th className="num">Ticket</th>
            <th>Product</th>
            <th>Who has them</th>
            <th className="num">Good heads</th>
            <th className="num">Of this lot</th>
            <th>Closed</th>
          </tr>
        </thead>
        <tbody>
          {tickets.map((ticket) => (
            <tr key={ticket.id}>
              <td className="num">
                <Link to={`/trace/${ticket.number}`} className="hover:underline">
                  {ticket.number}
                </Link>
              </td>
              <td>{catalogue.product(ticket.productId)?.name ?? 'a product that is gone'}</td>
              <td>
                <Holders ticket={ticket} />
              </td>
              <td className="num font-semibold">{ticket.good ?? '–'}</td>
              <td className="num">{kind ? units.part(kind, ticket.used) : ticket.used}</td>
              <td>{ticket.closedAt === null ? 'on the line' : writeDay(ticket.closedAt)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** From a lot on: every ticket that took from it, who ordered it, and a list that prints. */
export function LotPage() {
  const { id = '' } = useParams();
  const catalogue = useCatalogue();
  const { data: tickets, error } = useQuery({
    queryKey: ['trace-lot', id],
    queryFn: () => call('GET /trace/lots/:receipt', { params: { receipt: Number(id) } }),
    enabled: /^\d+$/.test(id),
    retry: false,
  });
  const [first] = tickets ?? [];
  const { data: trace } = useQuery({
    queryKey: ['trace', String(first?.number)],
    queryFn: () => call('GET /trace/tickets/:number', { params: { number: first!.number } }),
    enabled: first !== undefined,
  });
  const { data: lots } = useQuery({ queryKey: ['trace-lots'], queryFn: () => call('GET /trace/lots') });
  const quality = lots?.find(({ lotId }) => String(lotId) === id);
  if (!catalogue || !tickets) return <Waiting error={error} />;
  const lot = trace?.lots.find(({ lotId }) => String(lotId) === id);
  const heads = tickets.reduce((sum, { good }) => sum + (good ?? 0), 0);
  const people = new Set(tickets.flatMap(({ went }) => went.flatMap(({ party }) => party || []))).size;
  const here = tickets.reduce((sum, { onShelf }) => sum + onShelf, 0);
  return (
    <Page
      stub={
        <>
          <TheNumber eyebrow={lot ? `${lot.name}, ${lotSays(lot)}` : 'A lot'} value={heads}>
            good heads hold of it, in {tickets.length} {tickets.length === 1 ? 'ticket' : 'tickets'}
          </TheNumber>
          <p className="quiet">
            {people} {people === 1 ? 'person has' : 'people have'} them; {here} lie on the shelf. The list prints as it
            stands.
          </p>
          <Button look="main" className="self-start print:hidden" onClick={() => window.print()}>
            Print the list
          </Button>
        </>
      }
    >
      {quality?.standsOut && (
        <div className="mb-5">
          <Finding lot={quality} catalogue={catalogue} linked={false} />
        </div>
      )}
      <Heading>{lot ? `Where this ${partKind(lot.kind).name} went` : 'Where it went'}</Heading>
      {tickets.length === 0 ? (
        <p className="quiet">No ticket has taken of it yet.</p>
      ) : (
        <Recall tickets={tickets} catalogue={catalogue} kind={lot?.kind ?? null} />
      )}
    </Page>
  );
}
