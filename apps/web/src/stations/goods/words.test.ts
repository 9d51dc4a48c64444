import type { GoodsMove } from '@schmelz/contract';
import { goSays, together } from './words.ts';

const move = (said: Partial<GoodsMove>): GoodsMove => ({
  ...{ id: 1, saidId: 'a', at: 0, productId: 'p', grade: 'good', reason: 'sold', pieces: -4, valueMinor: -100 },
  ...{ priceMinor: null, ticketNumber: 101, orderNumber: null, party: 'Ferry club', note: '', struck: false },
  ...said,
});
const nameOf = (id: string) => ({ p: 'Pebble', q: 'Fry' })[id] ?? '?';

test('what was said in one go is one line, whatever tickets it came from', () => {
  const groups = together([
    move({ id: 4, pieces: -3 }),
    move({ id: 3, ticketNumber: 102 }),
    move({ id: 2, saidId: null, reason: 'made', pieces: 9 }),
    move({ id: 1, saidId: null, reason: 'made', pieces: 5 }),
  ]);
  expect(groups.map((group) => group.length)).toEqual([2, 1, 1]);
  expect(goSays(groups[0]!, nameOf)).toBe('7 × Pebble, to Ferry club');
  expect(goSays(groups[1]!, nameOf)).toBe('9 × Pebble');
});

test('grades are told apart; what comes back comes from somebody; what is scrapped goes to nobody', () => {
  const back = [move({ reason: 'returned', pieces: 2 }), move({ reason: 'returned', grade: 'second', pieces: 1 })];
  expect(goSays(back, nameOf)).toBe('2 × Pebble; 1 × Pebble, second grade, from Ferry club');
  expect(goSays([move({ reason: 'scrapped', productId: 'q', party: '' })], nameOf)).toBe('4 × Fry');
});
