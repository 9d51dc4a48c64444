import { countSchema, receiptSchema, type CountInput, type Material, type ReceiptInput } from '@schmelz/contract';
import { partKind } from '@schmelz/core';
import { useState } from 'react';
import { toast } from '../../design/toast.ts';
import { call } from '../../api/client.ts';
import { newId } from '../../api/id.ts';
import { useMoves, useWrite } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { TextField } from '../../design/Field.tsx';
import { ProblemNote } from '../../design/Notice.tsx';
import { Heading } from '../../design/Page.tsx';
import { minorIn, useBuiltForm } from '../../design/useForm.ts';
import { useUnits } from '../../units/Units.tsx';
import { PartLots } from './PartLots.tsx';
import { useQuantity } from './quantity.ts';
import { today, writeDay } from '../../units/dates.ts';

/** The id that a form sends its purchase or count with, the same until it is in: a second try is no second one. */
function useOwnId() {
  const [id, setId] = useState(newId);
  return { id, renew: () => setId(newId()) };
}

export function ReceiptForm({ material, onSaved }: { material: Material; onSaved?: () => void }) {
  const { currency } = useUnits();
  const quantity = useQuantity(material.kind);
  const sent = useOwnId();
  const receive = useWrite((input: ReceiptInput) =>
    call('POST /materials/:id/receipts', { params: { id: material.id }, body: input }),
  );
  const form = useBuiltForm<{ quantity: string; price: string; on: string; time: string; lot: string }, ReceiptInput>({
    defaults: { quantity: '', price: '', on: today(), time: '', lot: '' },
    schema: receiptSchema,
    build: ({ quantity: text, price, on, time, lot }) => ({
      id: sent.id,
      quantity: quantity.read(text),
      priceMinor: minorIn('price', price, currency),
      on,
      ...(time ? { time } : {}),
      lot,
    }),
    send: (input) =>
      receive.mutate(input, {
        onSuccess: () => {
          toast(`${material.name}: received.`);
          form.reset();
          sent.renew();
          onSaved?.();
        },
      }),
  });
  return (
    <form onSubmit={form.onSubmit} className="grid gap-3 sm:grid-cols-2" noValidate>
      <TextField label={quantity.label} hint={quantity.hint} {...form.register('quantity')} />
      <TextField label="Paid for all of it" unit={currency} inputMode="decimal" {...form.register('price')} />
      <div className="grid grid-cols-[minmax(0,1fr)_8.5rem] gap-3">
        <TextField label="On" type="date" {...form.register('on')} />
        <TextField label="At, if it matters" type="time" {...form.register('time')} />
      </div>
      <TextField label="Lot or note" {...form.register('lot')} />
      <div className="flex flex-col gap-3 sm:col-span-2">
        <ProblemNote error={form.problem ?? receive.error} />
        <Button type="submit" className="self-start" disabled={receive.isPending}>
          It came in
        </Button>
      </div>
    </form>
  );
}

function CountForm({ material }: { material: Material }) {
  const quantity = useQuantity(material.kind);
  const sent = useOwnId();
  const count = useWrite((input: CountInput) =>
    call('POST /materials/:id/counts', { params: { id: material.id }, body: input }),
  );
  const form = useBuiltForm<{ quantity: string }, CountInput>({
    defaults: { quantity: '' },
    schema: countSchema,
    build: ({ quantity: text }) => ({ id: sent.id, quantity: quantity.read(text), note: '' }),
    send: (input) => {
      const onSuccess = () => {
        form.reset();
        sent.renew();
      };
      count.mutate(input, { onSuccess });
    },
  });
  return (
    <form onSubmit={form.onSubmit} className="flex flex-wrap items-end gap-3" noValidate>
      <div className="w-44">
        <TextField
          label={
            { pieces: 'Counted now', kg: 'Weighed now', m: 'Measured now', ml: 'Measured now' }[
              partKind(material.kind).unit
            ]
          }
          {...form.register('quantity')}
        />
      </div>
      <Button type="submit" disabled={count.isPending}>
        Set to this
      </Button>
      <ProblemNote error={form.problem ?? count.error} />
    </form>
  );
}

/** What a person has said, and may strike out. */
const BY_HAND: ReadonlySet<string> = new Set(['received', 'counted']);

/** One material: a purchase in, a weighing, and where it went. */
export function MaterialSheet({ material }: { material: Material }) {
  const units = useUnits();
  const { data: moves } = useMoves(material.id);
  const strike = useWrite((move: number) => call('POST /moves/:id/strike', { params: { id: move } }));
  const amount = (quantity: number) => units.part(material.kind, quantity);
  return (
    <div className="flex flex-col gap-6">
      <div>
        <Heading>A purchase</Heading>
        <ReceiptForm material={material} />
      </div>
      <div>
        <Heading>What is really there</Heading>
        <CountForm material={material} />
      </div>
      <PartLots material={material} />
      <div>
        <Heading>Where it came from and went</Heading>
        <table className="sheet-table">
          <tbody>
            {moves?.slice(0, 30).map((move) => (
              <tr key={move.id} className={move.struck ? 'text-ink-3 line-through' : ''}>
                <td className="text-sm whitespace-nowrap text-ink-3">{writeDay(move.at)}</td>
                <td>
                  {move.reason}
                  {move.ticketNumber && <span className="quiet">, ticket {move.ticketNumber}</span>}
                  {move.reason === 'settled' && (
                    <span className="quiet block">what was used or came back had cost otherwise than thought</span>
                  )}
                  {move.lot && <span className="quiet block">{move.lot}</span>}
                </td>
                <td className="num">
                  {move.quantity > 0 ? '+' : ''}
                  {move.quantity !== 0 && amount(move.quantity)}
                </td>
                <td className="num">{units.money(move.valueMinor)}</td>
                <td className="num">
                  {BY_HAND.has(move.reason) && !move.struck && (
                    <button
                      type="button"
                      className="underline decoration-rule-2 hover:text-stop"
                      onClick={() => strike.mutate(move.id)}
                    >
                      Strike out
                    </button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        <ProblemNote error={strike.error} />
        {moves?.length === 0 && <p className="quiet">No movement yet.</p>}
      </div>
    </div>
  );
}
