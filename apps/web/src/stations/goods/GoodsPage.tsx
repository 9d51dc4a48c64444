import type { GoodsOnShelf } from '@schmelz/contract';
import { currencyDigits } from '@schmelz/core';
import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { call } from '../../api/client.ts';
import { Button } from '../../design/Button.tsx';
import { Waiting } from '../../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { Sheet } from '../../design/Sheet.tsx';
import { AsCsv } from '../../shell/AsCsv.tsx';
import { AsSold } from '../../shell/AsSold.tsx';
import { useCatalogue, type Catalogue } from '../../shell/catalogue.ts';
import { useUnits } from '../../units/Units.tsx';
import { GoMoves } from './GoMoves.tsx';
import { MoveForm, type Goes } from './MoveForm.tsx';

/** Heads of one ticket as they hang there: a tag with their number, and what stands on their bags. */
const Tag = ({ lot }: { lot: GoodsOnShelf['lots'][number] }) => {
  const tag = (
    <>
      <b className="fig text-[21px] leading-none">{lot.pieces}</b>
      <span className="quiet text-[12.5px]">{lot.ticketNumber === null ? 'found' : `no. ${lot.ticketNumber}`}</span>
    </>
  );
  const look = 'cut flex items-baseline gap-2 bg-well px-3 py-1.5';
  return lot.ticketNumber === null ? (
    <span className={look}>{tag}</span>
  ) : (
    <Link to={`/trace/${lot.ticketNumber}`} className={`${look} hover:bg-rule`}>
      {tag}
    </Link>
  );
};

const keyOf = ({ productId, grade }: Pick<GoodsOnShelf, 'productId' | 'grade'>) => `${productId} ${grade}`;

/** One product and grade: drawn as it is sold, its number, who waits for it, and its tickets. */
function Row({
  goods,
  catalogue,
  chosen,
  onChoose,
}: {
  goods: GoodsOnShelf;
  catalogue: Catalogue;
  chosen: boolean;
  onChoose: () => void;
}) {
  const units = useUnits();
  const product = catalogue.product(goods.productId);
  const name = product?.name ?? 'A product that is gone';
  const second = goods.grade === 'second';
  return (
    <li className={`border-b border-rule ${chosen ? 'bg-well' : ''}`}>
      <div className="grid grid-cols-[auto_112px_minmax(0,1fr)_auto] items-center gap-x-4 gap-y-1 px-1 py-2.5">
        <input
          type="checkbox"
          className="size-5 accent-(--ink)"
          aria-label={`Take of ${name}${second ? ', second grade' : ''}`}
          checked={chosen}
          onChange={onChoose}
        />
        <span className={`flex h-[54px] items-center overflow-hidden ${second ? 'opacity-50' : ''}`}>
          {product && <AsSold product={catalogue.known(product)} scale={1.5} className="max-h-[54px] max-w-full" />}
        </span>
        <span className="min-w-0">
          <b className="block truncate font-medium">{name}</b>
          <span className="quiet block">
            {second && 'second grade, '}
            cost {units.money(goods.valueMinor)}
            {goods.wanted > 0 && `, ${goods.wanted} still ordered`}
          </span>
          <span className="mt-1.5 flex flex-wrap gap-1.5">
            {goods.lots.map((lot) => (
              <Tag key={lot.ticketId ?? 'found'} lot={lot} />
            ))}
            {goods.more > 0 && <span className="quiet self-center">and {goods.more} tickets more</span>}
          </span>
        </span>
        <span className={`fig text-right text-[46px] leading-none ${second ? 'text-ink-3' : ''}`}>{goods.pieces}</span>
      </div>
    </li>
  );
}

const useGoods = () => useQuery({ queryKey: ['goods'], queryFn: () => call('GET /goods') });
const useGoodsMoves = () =>
  useInfiniteQuery({
    queryKey: ['goods', 'moves'],
    queryFn: ({ pageParam }) => call('GET /goods/moves', pageParam ? { query: { before: pageParam } } : {}),
    initialPageParam: 0,
    getNextPageParam: (page) => (page.length < 60 ? undefined : page.at(-1)?.id),
    select: ({ pages }) => pages.flat(),
  });

/** The shelf of what is finished: how many of each, from which tickets, and where the rest went. */
export function GoodsPage() {
  const units = useUnits();
  const catalogue = useCatalogue();
  const { data: goods, error } = useGoods();
  const moves = useGoodsMoves();
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [open, setOpen] = useState(false);
  if (!goods || !catalogue || !moves.data) return <Waiting error={error ?? moves.error} />;
  const sorted = [...goods].sort((a, b) => a.grade.localeCompare(b.grade) || b.pieces - a.pieces);
  const good = goods.filter(({ grade }) => grade === 'good').reduce((sum, { pieces }) => sum + pieces, 0);
  const second = goods.filter(({ grade }) => grade === 'second').reduce((sum, { pieces }) => sum + pieces, 0);
  const worth = goods.reduce((sum, { valueMinor }) => sum + valueMinor, 0);
  const taken = sorted.filter((each) => chosen.has(keyOf(each)));
  const goes = taken.map(({ productId, grade, pieces }): Goes => {
    const product = catalogue.product(productId);
    const priceMinor = grade === 'good' ? (product?.priceMinor ?? null) : null;
    return { productId, grade, name: product?.name ?? '?', here: pieces, likely: pieces, priceMinor };
  });
  const choose = (key: string) => {
    const next = new Set(chosen);
    if (!next.delete(key)) next.add(key);
    setChosen(next);
  };
  return (
    <Page
      stub={
        <>
          <TheNumber value={good}>{good === 1 ? 'head is' : 'heads are'} finished and still here</TheNumber>
          <p className="quiet">
            {second > 0 && `Beside them ${second} of second grade. `}They cost {units.money(worth)} in lead, hooks,
            paint and parts; work and current are not counted in.
          </p>
          <AsCsv
            name="finished-heads"
            rows={() =>
              sorted.map(({ productId, grade, pieces, wanted, valueMinor }) => ({
                product: catalogue.product(productId)?.name ?? '',
                ...{ grade, pieces, ordered: wanted, cost: valueMinor / 10 ** currencyDigits(units.currency) },
              }))
            }
          />
          <Sheet
            open={open}
            onOpenChange={setOpen}
            title="Off the shelf, or back"
            says="The oldest ticket goes first. What is said here can be struck out below."
            trigger={
              <Button look="main" className="self-start" disabled={taken.length === 0}>
                {taken.length === 0 ? 'Tick what goes' : 'Sold, given, back'}
              </Button>
            }
          >
            {open && (
              <MoveForm
                goes={goes}
                onDone={() => {
                  setOpen(false);
                  setChosen(new Set());
                }}
              />
            )}
          </Sheet>
          <p className="quiet">
            What an order waits for is handed over on the order itself: then it stands there as filled, in part or
            whole.
          </p>
        </>
      }
    >
      <Heading>On the shelf</Heading>
      <ul className="mb-7">
        {sorted.map((each) => (
          <Row
            key={keyOf(each)}
            goods={each}
            catalogue={catalogue}
            chosen={chosen.has(keyOf(each))}
            onChoose={() => choose(keyOf(each))}
          />
        ))}
        {sorted.length === 0 && (
          <li className="quiet">
            Nothing is finished and here. Heads come to this shelf when the last step of their ticket is closed.
          </li>
        )}
      </ul>
      <Heading>Where they came from and went</Heading>
      <GoMoves moves={moves.data} catalogue={catalogue} />
      {moves.hasNextPage && (
        <Button
          look="quiet"
          className="mt-3"
          disabled={moves.isFetchingNextPage}
          onClick={() => void moves.fetchNextPage()}
        >
          Older ones
        </Button>
      )}
    </Page>
  );
}
