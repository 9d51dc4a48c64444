import { stackTotal, type ChangedCost } from '@schmelz/core';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useSearchParams } from 'react-router';
import { call } from '../../api/client.ts';
import { useList, useSettings } from '../../api/queries.ts';
import { Choice, TextField } from '../../design/Field.tsx';
import { ProblemNote, Waiting } from '../../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { AsSold } from '../../shell/AsSold.tsx';
import { useCatalogue } from '../../shell/catalogue.ts';
import { useUnits } from '../../units/Units.tsx';
import { soldBy, useBuyer } from '../buy/useShopping.ts';
import { CostStacks } from '../../drawing/CostStack.tsx';
import { BreakEven } from './BreakEven.tsx';
import { ChangeList } from './ChangeList.tsx';
import { PricePart } from './PricePart.tsx';
import { BooksRooms } from './rooms.tsx';

const USUAL_HEADS = 60;

/** What one head of a product costs, what would change it, what to ask for it, and when its tools are paid. */
export function CostPage() {
  const units = useUnits();
  const catalogue = useCatalogue();
  const [search, setSearch] = useSearchParams();
  const [heads, setHeads] = useState(String(USUAL_HEADS));
  const { data: settings } = useSettings();
  const { data: suppliers } = useList('suppliers');
  const { data: tools } = useList('tools');
  const { data: rules } = useList('rules');
  const products = catalogue?.products.filter(({ archived }) => !archived) ?? [];
  const product = products.find(({ id }) => id === search.get('product')) ?? products[0];
  const count = Math.min(20_000, Math.max(1, Math.round(Number(heads) || USUAL_HEADS)));
  const cost = useQuery({
    queryKey: ['books', 'cost', product?.id, count],
    queryFn: () => call('GET /books/cost/:id', { params: { id: product!.id }, query: { heads: count } }),
    enabled: product !== undefined,
    placeholderData: keepPreviousData,
  });
  const buyer = useBuyer();
  const changed = useQuery({
    queryKey: ['worked out', 'costs', cost.data?.input, suppliers],
    queryFn: async () => (await buyer().costs(cost.data!.input, soldBy(suppliers!).offers)) as ChangedCost[],
    enabled: cost.data !== undefined && suppliers !== undefined,
    placeholderData: keepPreviousData,
    gcTime: 0,
  });
  if (!catalogue || !settings || !suppliers || !tools || !rules) return <Waiting />;
  if (!product) {
    return (
      <Page stub={<TheNumber value="–">products: make one first, then ask what it costs</TheNumber>}>
        <BooksRooms />
      </Page>
    );
  }
  const failed = cost.error ?? changed.error;
  if (!cost.data || !changed.data) return failed ? <ProblemNote error={failed} /> : <Waiting />;
  const { actual, heads: made, tickets } = cost.data;
  const costs = changed.data;
  const [now] = costs;
  return (
    <Page
      stub={
        <>
          <TheNumber value={now ? units.money(now.totalMinor, 1) : '–'}>
            is what one costs by the plan, {count} at once
          </TheNumber>
          <AsSold product={catalogue.known(product)} scale={3} className="max-h-[110px] self-start" />
          <Choice
            label="Product"
            options={products.map(({ id, name }) => ({ value: id, label: name }))}
            value={product.id}
            onChange={(event) => setSearch({ product: event.target.value }, { replace: true })}
          />
          <TextField
            label="At once"
            unit="heads"
            inputMode="numeric"
            value={heads}
            onChange={(event) => setHeads(event.target.value)}
          />
          <p className="quiet">
            {actual
              ? `Over ${tickets} closed tickets, ${made} heads, it came to ${units.money(stackTotal(actual), 1)}.`
              : 'No ticket of it was closed yet: by the plan only.'}
          </p>
        </>
      }
    >
      <BooksRooms />
      {now ? (
        <div className="grid gap-x-10 gap-y-7 xl:grid-cols-[330px_minmax(0,1fr)]">
          <section>
            <Heading>One head, part by part</Heading>
            <CostStacks planned={now.stack} actual={actual} />
          </section>
          <section>
            <Heading aside="each by itself">One thing otherwise</Heading>
            <ChangeList costs={costs} />
          </section>
          <PricePart
            key={product.id}
            {...{ product, rules }}
            costMinor={now.totalMinor}
            settings={settings}
            input={cost.data.input}
          />
          <BreakEven
            key={`${product.id} tools`}
            {...{ product, products, tools }}
            served={cost.data.served}
            costMinor={now.totalMinor - now.stack.wear}
          />
        </div>
      ) : (
        <p>No mold casts it as it is: nothing can be said of its cost.</p>
      )}
    </Page>
  );
}
