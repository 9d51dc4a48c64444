import { seeded } from '../random/seeded.ts';
import { filled, goodsValue, handedSays, piecesOf, takeGoods, type GoodsLot } from './goods.ts';

// Relative sales value, as any text on joint costs works it: 12.00 spent; 20 good at 1, 8 second at 1/2 are 24 shares,
// 50 minor units a share.
test('what was spent is shared by what each grade would fetch', () => {
  expect(goodsValue(1200, { good: 20, second: 8 }, 0.5)).toEqual({ good: 1000, second: 200 });
  expect(goodsValue(1200, { good: 20, second: 8 }, 0)).toEqual({ good: 1200, second: 0 });
  expect(goodsValue(1200, { good: 0, second: 8 }, 0.5)).toEqual({ good: 0, second: 1200 });
  expect(goodsValue(1200, { good: 0, second: 8 }, 0)).toEqual({ good: 0, second: 1200 });
  expect(goodsValue(1200, { good: 0, second: 0 }, 0.5)).toEqual({ good: 0, second: 0 });
  expect(() => goodsValue(1200, { good: 1, second: 1 }, 1.5)).toThrow(/second-grade share/);
});

test('both grades together are all that was spent, to the last minor unit', () => {
  const random = seeded(5);
  for (let at = 0; at < 400; at++) {
    const spent = Math.floor(random() * 100_000);
    const heads = { good: Math.floor(random() * 90), second: 1 + Math.floor(random() * 30) };
    const { good, second } = goodsValue(spent, heads, random());
    expect(good + second).toBe(spent);
    expect(Math.min(good, second)).toBeGreaterThanOrEqual(0);
  }
});

const shelf: GoodsLot[] = [
  { ticketId: 'first', pieces: 10, valueMinor: 1000 },
  { ticketId: 'second', pieces: 5, valueMinor: 333 },
];

test('the oldest go first, at what they cost; the last of a lot takes the rest of its cost', () => {
  expect(takeGoods(shelf, 12)).toEqual([
    { ticketId: 'first', pieces: 10, valueMinor: 1000 },
    { ticketId: 'second', pieces: 2, valueMinor: 133 },
  ]);
  expect(takeGoods(shelf, 15).at(-1)).toEqual({ ticketId: 'second', pieces: 5, valueMinor: 333 });
  expect(takeGoods(shelf, 0)).toEqual([]);
  expect(() => takeGoods(shelf, 16)).toThrow('pieces is 16; allowed: at most 15, what is on the shelf');
});

test('taken piece by piece or at once, a shelf ends empty and has given its whole cost', () => {
  const random = seeded(6);
  for (let round = 0; round < 100; round++) {
    let lots = Array.from({ length: 4 }, (_, at) => ({
      ticketId: String(at),
      pieces: 1 + Math.floor(random() * 40),
      valueMinor: Math.floor(random() * 5000),
    }));
    const cost = lots.reduce((sum, { valueMinor }) => sum + valueMinor, 0);
    let given = 0;
    while (piecesOf(lots) > 0) {
      const taken = takeGoods(lots, Math.min(piecesOf(lots), 1 + Math.floor(random() * 30)));
      given += taken.reduce((sum, { valueMinor }) => sum + valueMinor, 0);
      lots = lots.map((lot) => {
        const gone = taken.find(({ ticketId }) => ticketId === lot.ticketId);
        return gone ? { ...lot, pieces: lot.pieces - gone.pieces, valueMinor: lot.valueMinor - gone.valueMinor } : lot;
      });
    }
    expect(given).toBe(cost);
  }
});

test('an order is filled line by line, in part if need be', () => {
  const lines = [
    { productId: 'a', quantity: 60 },
    { productId: 'b', quantity: 12 },
  ];
  expect(handedSays(filled(lines, {}))).toBe('nothing');
  const part = filled(lines, { a: 60, b: 5 });
  expect(part.map(({ open }) => open)).toEqual([0, 7]);
  expect(handedSays(part)).toBe('part');
  expect(handedSays(filled(lines, { a: 63, b: 12 }))).toBe('all');
});
