import { randomUUID } from 'node:crypto';
import { seeded } from '@schmelz/core';
import type { GoodsInput, Order } from '@schmelz/contract';
import { listGoods, moveGoods, orderGoods } from '../services/goods.ts';
import type { Store } from '../store/store.ts';

const DAY_MS = 24 * 3600 * 1000;
const isoDay = (at: number) => new Date(at).toISOString().slice(0, 10);

const say = (store: Store, said: Omit<GoodsInput, 'id' | 'note'> & { note?: string }) =>
  said.lines.length ? moveGoods(store, { id: randomUUID(), note: '', ...said }) : Promise.resolve();

/**
 * What becomes of a finished order: most are handed over on the next days, some in part; now and then a few come back,
 * and second grade goes to the club. The last ones still lie there.
 */
export async function handOver(
  store: Store,
  { id: orderId, number }: Pick<Order, 'id' | 'number'>,
  closedAt: number,
  notAfter: number,
): Promise<void> {
  // Its own numbers, so that what is poured does not hang on what is sold.
  const random = seeded(31 + number);
  const on = closedAt + (1 + Math.floor(random() * 3)) * DAY_MS;
  if (on > notAfter - 6 * DAY_MS) return;
  const { lines } = await orderGoods(store, orderId);
  const share = random() < 0.12 ? 0.5 : 1;
  const sold = lines.flatMap(({ productId, open, here, priceMinor }) => {
    const pieces = Math.floor(Math.min(open, here) * share);
    const line = { productId, grade: 'good' as const, pieces, priceMinor: priceMinor && pieces * priceMinor };
    return pieces > 0 ? [line] : [];
  });
  await say(store, { what: 'sold', orderId, party: '', on: isoDay(on), lines: sold });
  const [first] = sold;
  if (first && random() < 0.08) {
    const back = { ...first, pieces: 2, priceMinor: first.priceMinor && (2 * first.priceMinor) / first.pieces };
    const priceMinor = back.priceMinor && Math.round(back.priceMinor);
    const lines = [{ ...back, priceMinor }];
    await say(store, { what: 'returned', orderId, party: '', on: isoDay(on + 2 * DAY_MS), note: 'chipped', lines });
  }
  if (random() < 0.2) await clubTakesSecond(store, on);
}

async function clubTakesSecond(store: Store, on: number): Promise<void> {
  const second = (await listGoods(store)).filter(({ grade, pieces }) => grade === 'second' && pieces > 2);
  const lines = second.map(({ productId, grade, pieces }) => ({
    ...{ productId, grade, pieces: pieces - 1, priceMinor: 40 * (pieces - 1) },
  }));
  await say(store, { what: 'sold', orderId: null, party: 'Youth club', on: isoDay(on), lines });
}
