import type { LocalRule, Product, SettingsView } from '@schmelz/contract';
import { leftOfPrice, priceFor } from '@schmelz/core';
import { useState } from 'react';
import { TextField } from '../../design/Field.tsx';
import { Caution } from '../../design/Notice.tsx';
import { Heading } from '../../design/Page.tsx';
import { useUnits } from '../../units/Units.tsx';
import { PriceLines } from './PriceLines.tsx';
import { broken } from '../../shell/rules.ts';

/** What stays of the price that it has, the price for a margin, and what local rules say of it. */
export function PricePart({
  product,
  costMinor,
  settings,
  rules,
}: {
  product: Product;
  costMinor: number;
  settings: SettingsView;
  rules: readonly LocalRule[];
}) {
  const units = useUnits();
  const lines = settings.priceLines ?? [];
  const [margin, setMargin] = useState('50');
  const share = Number(margin.replace(',', '.')) / 100;
  const price = share >= 0 && share <= 0.99 ? priceFor({ costMinor, margin: share, lines }) : null;
  const { priceMinor } = product;
  const left = priceMinor === null ? null : leftOfPrice({ priceMinor, costMinor, lines });
  const touched = broken(product, rules);
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
        <div className="w-28">
          <TextField
            label="To keep of it"
            unit="%"
            inputMode="decimal"
            value={margin}
            onChange={(event) => setMargin(event.target.value)}
          />
        </div>
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
