import type { Pour } from '@schmelz/contract';
import { nextTurn, pourState } from '@schmelz/core';
import { ids, pour as made } from '../../test/fixtures.ts';
import { whatNow } from './what-now.ts';

const START = 1_700_000_000_000;
const log: Pour['log'] = [
  { id: 'c', at: START, kind: 'charge', massKg: 2, potC: 20 },
  { id: 's', at: START + 900_000, kind: 'shot', moldId: ids.mold, positions: [1, 2] },
];
/** What the bench says so many seconds after the pour, of a mold that is shut for ten. */
function says(seconds: number, times: object) {
  const { setup } = made();
  const molds = setup.molds.map((mold) => ({ ...mold, plannedBlanks: 0, openS: 10, solidS: 6, ...times }));
  const pour: Pour = { ...made(), log, setup: { ...setup, molds } };
  const [state, now] = [pourState(pour.setup, log), START + 900_000 + 1000 * seconds];
  return whatNow(pour, state, log, nextTurn(pour.setup, state, now, null), '', now).then;
}

test('a rod is called for at its moment, and help where it is late', () => {
  const rodS = { fromS: 1, toS: 3 };
  expect(says(0.5, { rodS })).toBe('Twist the rod now, mold face down.');
  expect(says(2, { rodS })).toBe('Twist the rod now, mold face down.');
  expect(says(5, { rodS })).toMatch(/second pair of hands/);
  expect(says(12, { rodS })).toMatch(/^Heads out/);
  expect(says(2, { rodS: undefined })).toMatch(/^Solid, and a moment more/);
});

test('heads come out by the bend while that is cool, and with pliers after', () => {
  expect(says(11, { hookHeldS: 6.4 })).toBe('Heads out, look at barb, shank, nose. Bends stay cool 5 s more');
  expect(says(11, { hookHeldS: 0.5 })).toBe('Heads out, look at barb, shank, nose. Bends are hot: pliers');
  expect(says(11, { hookHeldS: undefined })).toBe('Heads out, look at barb, shank, nose');
});
