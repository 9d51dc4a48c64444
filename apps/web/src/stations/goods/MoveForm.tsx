import { GOODS_DEEDS, goodsSchema, type GoodsDeed, type GoodsInput } from '@schmelz/contract';
import { currencyDigits, type Grade } from '@schmelz/core';
import { useState } from 'react';
import { toast } from '../../design/toast.ts';
import { call } from '../../api/client.ts';
import { newId } from '../../api/id.ts';
import { useWrite } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { Choice, TextField } from '../../design/Field.tsx';
import { ProblemNote } from '../../design/Notice.tsx';
import { minorIn, numberIn, useBuiltForm } from '../../design/useForm.ts';
import { today } from '../../units/dates.ts';
import { useUnits } from '../../units/Units.tsx';
import { DEED_ASKS, REASON_SAYS } from './words.ts';

export interface Goes {
  productId: string;
  grade: Grade;
  name: string;
  here: number;
  /** As many as are likely to go. */
  likely: number;
  priceMinor: number | null;
}

interface Values {
  what: GoodsDeed;
  party: string;
  on: string;
  note: string;
  lines: { pieces: string; price: string }[];
}

const HAS_PARTY: ReadonlySet<GoodsDeed> = new Set(['sold', 'given', 'returned']);
const HAS_PRICE: ReadonlySet<GoodsDeed> = new Set(['sold', 'returned']);

/** Says what becomes of finished heads; for an order they are handed over to who ordered them. */
export function MoveForm({
  goes,
  order,
  onDone,
}: {
  goes: readonly Goes[];
  order?: { id: string; customer: string };
  onDone: () => void;
}) {
  const units = useUnits();
  const [id] = useState(newId);
  const send = useWrite((input: GoodsInput) => call('POST /goods/moves', { body: input }));
  const digits = currencyDigits(units.currency);
  const asText = (minor: number) => (minor / 10 ** digits).toFixed(digits);
  const form = useBuiltForm<Values, GoodsInput>({
    defaults: {
      what: 'sold',
      party: order?.customer ?? '',
      on: today(),
      note: '',
      lines: goes.map(({ likely, priceMinor }) => ({
        pieces: String(likely),
        price: priceMinor === null ? '' : asText(likely * priceMinor),
      })),
    },
    schema: goodsSchema,
    build: ({ what, party, on, note, lines }) => ({
      ...{ id, what, on, note, orderId: order?.id ?? null, party: HAS_PARTY.has(what) ? party : '' },
      lines: lines
        .map(({ pieces, price }, at) => ({
          productId: goes[at]!.productId,
          grade: goes[at]!.grade,
          pieces: numberIn(goes[at]!.name, pieces),
          priceMinor: HAS_PRICE.has(what) && price.trim() ? minorIn('price', price, units.currency) : null,
        }))
        .filter(({ pieces }) => what === 'counted' || pieces > 0),
    }),
    send: (input) =>
      send.mutate(input, {
        onSuccess: () => {
          const heads = input.lines.reduce((sum, { pieces }) => sum + pieces, 0);
          toast(`${heads} heads: ${REASON_SAYS[input.what]}.`);
          onDone();
        },
      }),
  });
  const what = form.watch('what');
  const deeds = order ? (['sold', 'given', 'returned'] as const) : GOODS_DEEDS;
  return (
    <form onSubmit={form.onSubmit} className="flex flex-col gap-4" noValidate>
      <Choice
        label="What happens"
        options={deeds.map((value) => ({ value, label: DEED_ASKS[value] }))}
        {...form.register('what')}
      />
      <ul>
        {goes.map(({ productId, grade, name, here }, at) => (
          <li
            key={`${productId} ${grade}`}
            className="grid grid-cols-[minmax(0,1fr)_5.5rem_7rem] items-end gap-3 py-1.5"
          >
            <span className="self-center">
              <b className="font-medium">{name}</b>
              <span className="quiet block">
                {grade === 'second' ? 'second grade, ' : ''}
                {here} here
              </span>
            </span>
            <TextField label="Heads" inputMode="numeric" {...form.register(`lines.${at}.pieces`)} />
            {HAS_PRICE.has(what) ? (
              <TextField
                label={what === 'returned' ? 'Paid back' : 'For all'}
                unit={units.currency}
                inputMode="decimal"
                {...form.register(`lines.${at}.price`)}
              />
            ) : (
              <span />
            )}
          </li>
        ))}
      </ul>
      <div className="grid gap-3 sm:grid-cols-2">
        {HAS_PARTY.has(what) && (
          <TextField label={what === 'returned' ? 'Who brings them' : 'Who has them now'} {...form.register('party')} />
        )}
        <TextField label="On" type="date" {...form.register('on')} />
        <TextField label="Note" {...form.register('note')} />
      </div>
      <ProblemNote error={form.problem ?? send.error} />
      <Button type="submit" look="main" className="self-start" disabled={send.isPending}>
        {order && what === 'sold' ? 'Hand them over' : 'Book it'}
      </Button>
    </form>
  );
}
