import type { Supplier } from '@schmelz/contract';
import { currencyDigits, type Lacking, type NeedTonight, type PartToBuy } from '@schmelz/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { call } from '../../api/client.ts';
import { useList } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { ProblemNote, Waiting } from '../../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { Sheet } from '../../design/Sheet.tsx';
import { leftOnShelf, useUsed } from '../../shell/low.ts';
import { PutAway } from '../../shell/PutAway.tsx';
import { save } from '../../shell/save.ts';
import { isoDay, moment } from '../../units/dates.ts';
import { useUnits } from '../../units/Units.tsx';
import { amountIn } from './amount.ts';
import { shoppingCsv } from './shopping-csv.ts';
import { Slip } from './Slip.tsx';
import { StockBar } from './StockBar.tsx';
import { SupplierForm } from './SupplierForm.tsx';
import { useShopping } from './useShopping.ts';

const ORDER = { short: 0, low: 1, enough: 2 };

/** What runs low, how much of it to buy, and where that costs least. */
export function BuyPage() {
  const units = useUnits();
  const { data: materials, error } = useList('materials');
  const { data: suppliers } = useList('suppliers');
  const { data: asked, error: askedError } = useQuery({ queryKey: ['tonight'], queryFn: () => call('GET /tonight') });
  const { data: used } = useUsed();
  /** What the maker would rather buy, by material, as typed. */
  const [typed, setTyped] = useState<Readonly<Record<string, string>>>({});
  const [open, setOpen] = useState<Supplier | 'new' | null>(null);
  /** What the open work takes of, and what runs low; what is lacking most first. */
  const rows = (needs: readonly NeedTonight[]) =>
    leftOnShelf(
      materials ?? [],
      suppliers ?? [],
      used ?? [],
      (id) => needs.find((each) => each.materialId === id)?.need ?? 0,
    )
      .filter(({ why, need }) => why !== 'enough' || need > 0)
      .sort((a, b) => ORDER[a.why] - ORDER[b.why]);
  const amountOf = ({ materialId, buy }: PartToBuy) => {
    const text = typed[materialId];
    return (text === undefined ? null : amountIn(text)) ?? buy;
  };
  const {
    needs,
    shopping,
    error: why,
  } = useShopping(used && materials ? asked : undefined, suppliers, (all) =>
    rows(all).map((row): Lacking => ({ materialId: row.materialId, quantity: amountOf(row), withinDays: null })),
  );
  if (!materials || !suppliers || !used) return <Waiting error={error ?? askedError} />;
  const materialOf = (id: string) => materials.find((each) => each.id === id);
  const list = rows(needs ?? []);
  const lacks = list.filter(({ buy }) => buy > 0);
  const most = Math.max(1, ...(shopping?.freight ?? []).map(({ days }) => days));
  return (
    <Page
      stub={
        <>
          <TheNumber value={lacks.length}>
            {lacks.length === 1 ? 'thing runs' : 'things run'} low, or lack for what is open
          </TheNumber>
          {shopping && shopping.bought.length > 0 && (
            <p>
              <b className="fig text-[26px]">{units.money(shopping.totalMinor)}</b> buys them, all here in {most} days.{' '}
              <span className="quiet">
                {shopping.optimal
                  ? 'No other packs or suppliers cost less.'
                  : `At most ${units.money(shopping.totalMinor - shopping.boundMinor)} more than the least.`}
              </span>
            </p>
          )}
          <Button
            look="main"
            className="self-start"
            disabled={!shopping?.bought.length}
            onClick={() =>
              shopping &&
              save(
                shoppingCsv(shopping, (id) => materialOf(id)?.name ?? '', currencyDigits(units.currency)),
                'text/csv',
                `schmelz-to-buy-${isoDay(moment())}.csv`,
              )
            }
          >
            The list as CSV
          </Button>
          <div>
            <p className="quiet mb-1">Who sells to you</p>
            <ul>
              {suppliers.map((supplier) => (
                <li key={supplier.id}>
                  <button type="button" className="underline underline-offset-4" onClick={() => setOpen(supplier)}>
                    {supplier.name}
                  </button>
                  <span className="quiet">
                    , {supplier.offers.length} packs, {supplier.days} days
                  </span>
                </li>
              ))}
            </ul>
            <Button className="mt-2" onClick={() => setOpen('new')}>
              Another supplier
            </Button>
          </div>
          <Link className="underline underline-offset-4" to="/stock">
            All of the stock
          </Link>
        </>
      }
    >
      <div className="grid gap-x-9 gap-y-6 xl:grid-cols-[minmax(0,1fr)_340px]">
        <div>
          <Heading aside={needs ? undefined : 'Reckoning what the open work takes …'}>What runs low</Heading>
          <ul>
            {list.map((row) => (
              <StockBar
                key={row.materialId}
                row={row}
                material={materialOf(row.materialId)!}
                typed={typed[row.materialId]}
                onType={(text) => setTyped({ ...typed, [row.materialId]: text })}
              />
            ))}
            {list.length === 0 && needs && (
              <li className="quiet">There is enough of everything for what is open, and for the weeks after it.</li>
            )}
          </ul>
        </div>
        <div>
          <Heading>Where it costs least</Heading>
          <ProblemNote error={why} />
          <div className="flex flex-col gap-4">
            {shopping?.freight.map((slip) => (
              <Slip
                key={slip.supplier}
                slip={slip}
                bought={shopping.bought.filter(({ supplier }) => supplier === slip.supplier)}
                materialOf={materialOf}
              />
            ))}
            {shopping && shopping.nobody.length > 0 && (
              <p>
                Nobody on record sells {shopping.nobody.map((id) => materialOf(id)?.name).join(', ')}: say it at a
                supplier.
              </p>
            )}
            {suppliers.length > 0 && shopping?.bought.length === 0 && (
              <p className="quiet">
                Nothing lacks. Say on the left what you would rather have more of, and what that costs stands here.
              </p>
            )}
            {suppliers.length === 0 && (
              <p className="quiet">
                Say who sells to you, in which packs and for how much; then the cheapest way to buy is worked out here.
              </p>
            )}
          </div>
        </div>
      </div>
      <Sheet
        open={open !== null}
        onOpenChange={(on) => !on && setOpen(null)}
        title={open === 'new' || open === null ? 'Another supplier' : open.name}
      >
        {open !== null && (
          <>
            <SupplierForm
              supplier={open === 'new' ? undefined : open}
              materials={materials}
              onSaved={() => setOpen(null)}
            />
            {open !== 'new' && (
              <div className="mt-6">
                <PutAway path="suppliers" thing={open} onGone={() => setOpen(null)} />
              </div>
            )}
          </>
        )}
      </Sheet>
    </Page>
  );
}
