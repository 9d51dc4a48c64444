import type { Placed, Task, TonightPlan } from '@schmelz/core';
import { lanesOf, shortName } from './lanes.ts';

const task = (id: string, more: Partial<Task>): Task => ({
  ...{ id, name: id, station: 'paint', seconds: 600, hands: true, holds: [], after: [], works: ['w'], heads: 12 },
  ...more,
});
const placed = (taskId: string, startS: number, endS: number, more: Partial<Placed> = {}): Placed => ({
  ...{ taskId, startS, endS, changeS: 0, person: 0, tools: {} },
  ...more,
});
const plan = {
  tasks: [
    task('Pour Five', { station: 'pour', holds: ['pot'], leadS: 300 }),
    task('Paint White', { holds: ['gun'] }),
    task('Skirt on', { station: 'finish', after: [{ task: 'Paint White', lagS: 1800 }] }),
    task('Bag', { station: 'finish', after: [{ task: 'Skirt on', lagS: 60 }] }),
  ],
  schedule: {
    ...{ endS: 5000, boundS: 5000 },
    placed: [
      placed('Pour Five', 300, 900, { tools: { pot: 0 } }),
      placed('Paint White', 900, 1500, { tools: { gun: 0 }, person: 1 }),
      placed('Skirt on', 4000, 4600),
      placed('Bag', 4700, 5000),
    ],
  },
} as Pick<TonightPlan, 'tasks' | 'schedule'>;
const rows = (people: string[], fromS = 0, toS = 9000) =>
  lanesOf(plan, people, fromS, toS).map(({ id, name, bars }) => [
    name,
    ...bars.map((bar) => `${shortName(bar, id)} ${bar.startS}-${bar.endS}`),
  ]);

test('people, the pot from when it melts, the gun where two want it, and what stands until it is dry', () => {
  expect(rows(['Runa', 'Tevo'])).toEqual([
    ['Runa', 'Pour Five 300-900', 'Skirt on 4000-4600', 'Bag 4700-5000'],
    ['Tevo', 'Paint White 900-1500'],
    ['Pot', 'Five 0-900'],
    ['Gun', 'White 900-1500'],
    // A minute in the hand is no standing; glue that dries for half an hour is.
    ['Stands', 'Skirt on 1500-3300'],
  ]);
  // One alone with one gun: her own row says it.
  expect(rows(['Runa']).map(([name]) => name)).toEqual(['Runa', 'Pot', 'Stands']);
  // What begins in another evening stands there.
  expect(rows(['Runa', 'Tevo'], 4000)).toEqual([['Runa', 'Skirt on 4000-4600', 'Bag 4700-5000'], ['Tevo']]);
});
