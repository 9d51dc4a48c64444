import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { call } from '../../api/client.ts';
import { Choice } from '../../design/Field.tsx';
import { ProblemNote, Waiting } from '../../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { AsSold } from '../../shell/AsSold.tsx';
import { useCatalogue } from '../../shell/catalogue.ts';
import { Swatch } from '../../shell/Swatch.tsx';
import { useUnits } from '../../units/Units.tsx';
import { useBuyer } from './useShopping.ts';

const WISHES = [
  { value: 'heads', label: 'as many heads as can be' },
  { value: 'money', label: 'as much money as can be' },
  { value: 'even', label: 'of each no more than a dozen' },
] as const;
type Wish = (typeof WISHES)[number]['value'];
const DOZEN = 12;

/** What can be made of what is on the shelves tonight, and what runs out first. */
export function MakePage() {
  const units = useUnits();
  const catalogue = useCatalogue();
  const buyer = useBuyer();
  const [wish, setWish] = useState<Wish>('money');
  const { data: makes, error } = useQuery({ queryKey: ['stock', 'makes'], queryFn: () => call('GET /stock/makes') });
  const parts = catalogue ? [...catalogue.materials.values()] : [];
  const products = (makes ?? []).map(({ id, takes }) => ({
    ...{ id, takes },
    weight: wish === 'money' ? (catalogue?.product(id)?.priceMinor ?? 0) : 1,
    ...(wish === 'even' ? { most: DOZEN } : {}),
  }));
  const here = Object.fromEntries(parts.map(({ id, quantity }) => [id, quantity]));
  const best = useQuery({
    queryKey: ['worked out', 'makes', products, here],
    queryFn: () => buyer().make(products, here),
    enabled: makes !== undefined && catalogue !== undefined,
    gcTime: 0,
  });
  if (!makes || !catalogue) return <Waiting error={error} />;
  const heads = [...(best.data?.heads ?? [])].sort((a, b) => b.count - a.count);
  const all = heads.reduce((sum, { count }) => sum + count, 0);
  const most = Math.max(1, ...heads.map(({ count }) => count));
  const money = heads.reduce((sum, { id, count }) => sum + count * (catalogue.product(id)?.priceMinor ?? 0), 0);
  const gone = (best.data?.runsOut ?? []).flatMap((id) => catalogue.materials.get(id) ?? []);
  return (
    <Page
      stub={
        <>
          <TheNumber value={best.data ? all : '…'}>heads can be made of what is here</TheNumber>
          {money > 0 && <p>They would be sold for {units.money(money)}.</p>}
          <Choice
            label="What you would rather"
            options={[...WISHES]}
            value={wish}
            onChange={(event) => setWish(event.target.value as Wish)}
          />
          <p className="quiet">
            Metal with what is skimmed, hooks, powder and parts are reckoned; sprues and bad heads come back to the pot.
            What is open already is not taken off.
          </p>
          <Link className="underline underline-offset-4" to="/stock/buy">
            What to buy, and where
          </Link>
          <Link className="underline underline-offset-4" to="/stock">
            All of the stock
          </Link>
        </>
      }
    >
      <ProblemNote error={best.error} />
      <div className="grid gap-x-10 gap-y-6 xl:grid-cols-[minmax(0,1fr)_300px]">
        <div>
          <Heading>The best of it</Heading>
          <ul>
            {heads.map(({ id, count }) => {
              const product = catalogue.product(id);
              return (
                <li
                  key={id}
                  className="grid grid-cols-[92px_minmax(0,1fr)_auto] items-center gap-x-4 border-b border-rule py-2"
                >
                  <span className="flex h-[44px] items-center overflow-hidden">
                    {product && (
                      <AsSold product={catalogue.known(product)} scale={1.3} className="max-h-[44px] max-w-full" />
                    )}
                  </span>
                  <span className="min-w-0">
                    <Link to={`/books/cost?product=${id}`} className="block truncate font-medium hover:underline">
                      {product?.name}
                    </Link>
                    <span className="mt-1 block h-2 bg-well">
                      <span
                        className="block h-full"
                        style={{ width: `${(100 * count) / most}%`, background: 'var(--lead-shade)' }}
                      />
                    </span>
                  </span>
                  <b className="fig text-[34px]">{count}</b>
                </li>
              );
            })}
            {best.data && heads.length === 0 && (
              <li className="quiet">Nothing that can be cast here has all that it takes on the shelf.</li>
            )}
          </ul>
        </div>
        <div>
          <Heading>What runs out first</Heading>
          <ul>
            {gone.map((material) => (
              <li key={material.id} className="flex items-center gap-2.5 border-b border-rule py-2">
                <Swatch material={material} />
                <span className="min-w-0 flex-1 truncate">{material.name}</span>
                <b className="fig">{units.part(material.kind, material.quantity)}</b>
              </li>
            ))}
            {best.data && gone.length === 0 && <li className="quiet">Nothing: there is more than is wanted.</li>}
          </ul>
        </div>
      </div>
    </Page>
  );
}
