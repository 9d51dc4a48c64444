import type { GoodsMove } from '@schmelz/contract';
import { call } from '../../api/client.ts';
import { useWrite } from '../../api/queries.ts';
import { DatedRow } from '../../design/DatedRow.tsx';
import { ProblemNote } from '../../design/Notice.tsx';
import type { Catalogue } from '../../shell/catalogue.ts';
import { useUnits } from '../../units/Units.tsx';
import { goSays, REASON_SAYS, together } from './words.ts';

/** What came and went of finished heads, newest first; what a person said can be struck out. */
export function GoMoves({ moves, catalogue }: { moves: readonly GoodsMove[]; catalogue: Catalogue }) {
  const units = useUnits();
  const strike = useWrite((id: string) => call('POST /goods/moves/:id/strike', { params: { id } }));
  const nameOf = (productId: string) => catalogue.product(productId)?.name ?? 'a product that is gone';
  return (
    <>
      <ul>
        {together(moves).map((group) => {
          const first = group[0]!;
          const price = group.reduce((sum, { priceMinor }) => sum + (priceMinor ?? 0), 0);
          const ticket = first.reason === 'made' ? `, ticket ${first.ticketNumber}` : '';
          const order = first.orderNumber === null ? '' : `, order ${first.orderNumber}`;
          const row = (
            <span className="min-w-0 flex-1">
              <b className="font-medium">{REASON_SAYS[first.reason]}</b> {goSays(group, nameOf)}
              <span className="quiet">
                {ticket}
                {order}
                {price !== 0 && `, ${units.money(price)}`}
                {first.note && `, ${first.note}`}
              </span>
            </span>
          );
          const { saidId, struck, at } = first;
          return (
            <DatedRow
              key={first.id}
              at={at}
              struck={struck}
              {...(saidId ? { onStrike: () => strike.mutate(saidId) } : {})}
            >
              {row}
            </DatedRow>
          );
        })}
      </ul>
      <ProblemNote error={strike.error} />
    </>
  );
}
