import type { Material, PartLot } from '@schmelz/contract';
import { useState } from 'react';
import { Link } from 'react-router';
import { call } from '../../api/client.ts';
import { usePartLots, useWrite } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { Choice } from '../../design/Field.tsx';
import { ProblemNote } from '../../design/Notice.tsx';
import { Heading } from '../../design/Page.tsx';
import { writeDay } from '../../units/dates.ts';
import { useUnits } from '../../units/Units.tsx';

const nameOf = ({ lot, at }: PartLot) => lot || `of ${writeDay(at)}`;

/** Tickets that took from a lot, each once. */
function ticketsOf({ went }: PartLot) {
  const tickets = new Map<string, number>();
  for (const { ticketId, ticketNumber } of went) if (ticketId) tickets.set(ticketId, ticketNumber ?? 0);
  return [...tickets].map(([id, number]) => ({ id, number }));
}

/** A box was opened before the older one was empty: says of which lot a ticket really was. */
function PutRight({ material, lots }: { material: Material; lots: readonly PartLot[] }) {
  const tickets = new Map(lots.flatMap(ticketsOf).map((ticket) => [ticket.id, ticket]));
  const [ticketId, setTicket] = useState('');
  const [lotId, setLot] = useState('');
  const save = useWrite(({ lot, ticket }: { lot: string; ticket: string }) =>
    call('PUT /materials/:id/lots/:receipt', {
      params: { id: material.id, receipt: Number(lot) },
      body: { ticketId: ticket },
    }),
  );
  if (tickets.size === 0 || lots.length < 2) return null;
  const pick = { value: '', label: 'pick one' };
  const numbers = [...tickets.values()].sort((a, b) => b.number - a.number);
  return (
    <div className="mt-3 grid items-end gap-3 sm:grid-cols-[1fr_1fr_auto]">
      <Choice
        label="Ticket"
        options={[pick, ...numbers.map(({ id, number }) => ({ value: id, label: String(number) }))]}
        value={ticketId}
        onChange={(event) => setTicket(event.target.value)}
      />
      <Choice
        label="was of lot"
        options={[pick, ...lots.map((lot) => ({ value: String(lot.id), label: nameOf(lot) }))]}
        value={lotId}
        onChange={(event) => setLot(event.target.value)}
      />
      <Button
        disabled={!ticketId || !lotId || save.isPending}
        onClick={() => save.mutate({ lot: lotId, ticket: ticketId })}
      >
        Put it right
      </Button>
      <ProblemNote error={save.error} />
    </div>
  );
}

/** Deliveries of a part: what is left of each, and whose heads took from it, so that a bad box can be followed. */
export function PartLots({ material }: { material: Material }) {
  const units = useUnits();
  const { data: lots } = usePartLots(material.id);
  if (!lots || lots.length === 0) return null;
  const amount = (quantity: number) => units.part(material.kind, quantity);
  return (
    <div>
      <Heading>Lots</Heading>
      <table className="sheet-table">
        <thead>
          <tr>
            <th className="w-2/5">Lot</th>
            <th className="num">Left</th>
            <th>In tickets</th>
          </tr>
        </thead>
        <tbody>
          {lots.map((lot) => (
            <tr key={lot.id}>
              <td>
                {nameOf(lot)}
                {lot.lot && <span className="quiet block text-sm">{writeDay(lot.at)}</span>}
              </td>
              <td className="num whitespace-nowrap">
                {amount(lot.left)}
                <span className="quiet block text-sm">of {amount(lot.quantity)}</span>
              </td>
              <td>
                {ticketsOf(lot).map(({ id, number }) => (
                  <Link key={id} to={`/tickets/${id}`} className="fig mr-2 inline-block hover:underline">
                    {number}
                  </Link>
                ))}
                {ticketsOf(lot).length === 0 && <span className="quiet">none yet</span>}
                {ticketsOf(lot).length > 0 && (
                  <Link to={`/trace/lot/${lot.id}`} className="quiet underline underline-offset-4">
                    who has it
                  </Link>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <PutRight material={material} lots={lots} />
    </div>
  );
}
