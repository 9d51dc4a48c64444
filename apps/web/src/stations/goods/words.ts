import type { GoodsDeed, GoodsMove } from '@schmelz/contract';
import type { GoodsReason } from '@schmelz/core';

/** What a movement of finished heads is called in a list. */
export const REASON_SAYS: Record<GoodsReason, string> = {
  made: 'made',
  sold: 'sold',
  given: 'given away',
  returned: 'came back',
  scrapped: 'scrapped',
  counted: 'counted',
};
export const DEED_ASKS: Record<GoodsDeed, string> = {
  sold: 'They are sold',
  given: 'They are given away',
  returned: 'They come back',
  scrapped: 'They are scrapped',
  counted: 'So many are really there',
};

/** Movements that were said in one go, under one id; what a ticket made stands by itself. */
export function together(moves: readonly GoodsMove[]): GoodsMove[][] {
  const groups: GoodsMove[][] = [];
  for (const move of moves) {
    const last = groups.at(-1);
    if (last && move.saidId !== null && last[0]!.saidId === move.saidId) last.push(move);
    else groups.push([move]);
  }
  return groups;
}

/** What was said in one go, in a line: how many of what, to whom. */
export function goSays(group: readonly GoodsMove[], nameOf: (productId: string) => string): string {
  const [first] = group;
  if (!first) return '';
  const lines = new Map<string, number>();
  for (const { productId, grade, pieces } of group) {
    const name = `${nameOf(productId)}${grade === 'second' ? ', second grade' : ''}`;
    lines.set(name, (lines.get(name) ?? 0) + pieces);
  }
  const what = [...lines].map(([name, pieces]) => `${Math.abs(pieces)} × ${name}`).join('; ');
  const who = first.party ? `, ${first.reason === 'returned' ? 'from' : 'to'} ${first.party}` : '';
  return `${what}${['sold', 'given', 'returned'].includes(first.reason) ? who : ''}`;
}
