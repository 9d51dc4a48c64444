import type { LocalRule, Product, SettingsView } from '@schmelz/contract';
import { leftOfPrice, priceFor, tradePrice, type PlanInput } from '@schmelz/core';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { TextField } from '../../design/Field.tsx';
import { Caution } from '../../design/Notice.tsx';
import { Heading } from '../../design/Page.tsx';
import { useUnits } from '../../units/Units.tsx';
import { useBuyer } from '../buy/useShopping.ts';
import { PriceLines } from './PriceLines.tsx';
import { rulesTouched } from '../../shell/rules.ts';

/** A share out of percent as they are typed; null where it is none up to the most. */
function shareIn(text: string, most: number): number | null {
  const share = Number(text.replace(',', '.')) / 100;
  return share >= 0 && share <= most ? share : null;
}

function Percent({ label, value, onChange }: { label: string; value: string; onChange: (text: string) => void }) {
  return (
    <div className="w-32 shrink-0">
      <TextField
        {...{ label, value }}
        unit="%"
        inputMode="decimal"
        onChange={(event) => onChange(event.target.value)}
      />
    </div>
  );
}

/** How many must be ordered at once so that the price leaves the margin: worked out beside the page. */
function SmallestOrder({
  input,
  ...of
}: {
  input: PlanInput;
  priceMinor: number;
  margin: number;
  lines: readonly { name: string; share: number; of: 'price' | 'cost' }[];
}) {
  const units = useUnits();
  const buyer = useBuyer();
  const { data, isPending, error } = useQuery({
    queryKey: ['worked out', 'smallest order', input, of],
    queryFn: async () => ({ heads: (await buyer().least(input, { ...of, lines: [...of.lines] })) as number | null }),
    placeholderData: keepPreviousData,
    gcTime: 0,
  });
  if (error) return <p className="quiet mt-2">{error.message}</p>;
  const percent = `${Math.round(100 * of.margin)} % of ${units.money(of.priceMinor)}`;
  return (
    <p className="mt-2">
      {isPending && <span className="quiet">The smallest order that pays is worked out.</span>}
      {data?.heads === null && <>No order leaves {percent}: the price is too low for it.</>}
      {data && data.heads !== null && (
        <>
          From <b className="fig text-[21px]">{data.heads}</b> at once on, {percent} are kept.
        </>
      )}
    </p>
  );
}

/** What stays of the price that it has, the price for a margin, and what local rules say of it. */
export function PricePart({
  product,
  costMinor,
  settings,
  rules,
  input,
}: {
  product: Product;
  costMinor: number;
  settings: SettingsView;
  rules: readonly LocalRule[];
  /** The plan that the cost is of. */
  input: PlanInput;
}) {
  const units = useUnits();
  const lines = settings.priceLines ?? [];
  const [margin, setMargin] = useState('50');
  const [shop, setShop] = useState('40');
  const share = shareIn(margin, 0.99);
  const shopShare = shareIn(shop, 0.95);
  const price = share === null ? null : priceFor({ costMinor, margin: share, lines });
  const trade =
    share === null || shopShare === null ? null : tradePrice({ costMinor, margin: share, lines, shopShare });
  const { priceMinor } = product;
  const left = priceMinor === null ? null : leftOfPrice({ priceMinor, costMinor, lines });
  const touched = rulesTouched(product, rules);
  return (
    <section>
      <Heading>Price</Heading>
      {priceMinor !== null && left !== null && (
        <p>
          Sold at <b className="fig text-[21px]">{units.money(priceMinor)}</b>,{' '}
          {left >= 0 ? (
            <>
              <b className="fig text-[21px]">{units.money(left, 1)}</b> stay of it,{' '}
              {Math.round((100 * left) / priceMinor)} %.
            </>
          ) : (
            <span className="font-semibold text-stop">{units.money(-left, 1)} are lost with each.</span>
          )}
        </p>
      )}
      <div className="mt-3 flex items-end gap-4">
        <Percent label="To keep of it" value={margin} onChange={setMargin} />
        <p className="pb-2">
          {price === null ? (
            'No price leaves that much.'
          ) : (
            <>
              ask <b className="fig text-[26px]">{units.money(price)}</b>
            </>
          )}
        </p>
      </div>
      <div className="mt-3 flex items-end gap-4">
        <Percent label="A shop keeps" value={shop} onChange={setShop} />
        <p className="pb-2">
          {trade === null ? (
            'Nothing is left to share with a shop.'
          ) : (
            <>
              ask the shop <b className="fig text-[26px]">{units.money(trade.tradeMinor)}</b>, and it stands there at{' '}
              <b className="fig text-[21px]">{units.money(trade.shelfMinor)}</b>
            </>
          )}
        </p>
      </div>
      {priceMinor !== null && share !== null && <SmallestOrder {...{ input, priceMinor, lines }} margin={share} />}
      {lines.length > 0 && (
        <p className="quiet mt-1">
          With{' '}
          {lines
            .map(({ name, share: each, of }) => `${name}, ${Math.round(1000 * each) / 10} % of the ${of}`)
            .join('; ')}
          .
        </p>
      )}
      <PriceLines settings={settings} />
      {touched.length > 0 && (
        <div className="mt-3">
          <Caution>
            {touched.join(' ')} These are your own notes: ask the authority of the place before you sell or use them.
          </Caution>
        </div>
      )}
    </section>
  );
}
