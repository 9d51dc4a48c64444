import {
  castsOfTonight,
  chances,
  knownProduct,
  planTonight,
  type CastsTonight,
  type TonightAsked,
  type TonightPlan,
  type TonightWishes,
} from '@schmelz/core';
import { expose } from 'comlink';
import { cleanup, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { ids, materials, ovens, pots, products, settings } from '../../test/fixtures.ts';
import { fakeApi, prepareBrowser, renderAt } from '../../test/render.tsx';
import { TonightPage } from './TonightPage.tsx';

// The workers of the browser as message ports of this process. What they answer comes from core; what is checked here
// is what the page makes of it, and what it asks them.
const asks: TonightWishes[] = [];
let refuses = false;
let refined: (() => void)[] = [];
let holds = false;
const EVENINGS = 200;
jest.mock('../../workers/start.ts', () => {
  const worker = (answers: object) => {
    const { port1, port2 } = new MessageChannel();
    expose(answers, port1 as never);
    return Object.assign(port2, { terminate: () => port2.close() });
  };
  return {
    startPlanner: () =>
      worker({
        plan(asked: TonightAsked, wishes: TonightWishes) {
          asks.push(wishes);
          if (refuses) throw new Error('A pot of 0 kg melts nothing.');
          return planTonight(asked, wishes, castsOfTonight(asked, wishes, nothingCast), { tries: 1, quick: true });
        },
        sure: () => 0.5,
      }),
    startRefiner: () =>
      worker({
        async better(asked: TonightAsked, wishes: TonightWishes, casts: CastsTonight) {
          if (holds) await new Promise<void>((resolve) => refined.push(resolve));
          return planTonight(asked, wishes, casts, { tries: 5 });
        },
        chances({ tasks, schedule, windows }: TonightPlan) {
          return chances(tasks, schedule.placed, { evenings: EVENINGS, windows });
        },
      }),
  };
});

const nothingCast = () => {
  throw new Error('nothing is cast in these evenings');
};
const product = knownProduct(products[1]!, {
  part: (id) => materials.find((each) => each.id === id),
  recipe: () => undefined,
  program: () => undefined,
});
/** A ticket of bare heads that wait to be trimmed, and then to be counted into bags. */
const waits = (id: string, heads: number, number: number, customer: string) => ({
  ...{ id, name: `${product.name} ${number}`, customer, orderNumber: number, ticketNumber: number, orderId: ids.order },
  ...{ dueMs: null, product, heads: 0, left: { trim: heads } },
});
const asked = (more: Partial<TonightAsked> = {}): TonightAsked =>
  ({
    wanted: [waits('w1', 40, 101, 'Stall'), waits('w2', 12, 102, '')],
    ...{ molds: [], pot: pots[0], oven: ovens[0], ways: settings.ways, afterPour: { mean: 0.97, sure: 100 } },
    ...{ hooksHere: {}, leadHereKg: 12, leadId: ids.lead },
    stock: materials.map((each) => ({ ...each, materialId: each.id })),
    ...more,
  }) as unknown as TonightAsked;

const evening = (more: object = {}) =>
  localStorage.setItem('schmelz.evening', JSON.stringify({ from: '18:00', to: '22:30', ...more }));

beforeEach(() => {
  prepareBrowser();
  [asks.length, refuses, holds, refined] = [0, false, false, []];
  jest.useFakeTimers({
    now: new Date(2026, 2, 6, 9),
    doNotFake: [
      'setTimeout',
      'setInterval',
      'queueMicrotask',
      'setImmediate',
      'clearTimeout',
      'clearInterval',
      'nextTick',
      'requestAnimationFrame',
      'cancelAnimationFrame',
      'performance',
    ],
  });
});
afterEach(() => {
  cleanup();
  jest.useRealTimers();
});
const open = (all: TonightAsked = asked(), more: Record<string, unknown> = {}) => {
  const api = fakeApi({ 'GET /tonight': all, ...more });
  return { api, ...renderAt(<TonightPage />, '/tonight') };
};
const ended = () => screen.findByText(/Nine evenings in ten by/);

test('what is open is laid into the evening that is wished, and said when it is over and how sure that is', async () => {
  evening();
  open();
  await ended();
  expect(asks[0]!.evenings).toEqual([
    { fromMs: new Date(2026, 2, 6, 18).getTime(), toMs: new Date(2026, 2, 6, 22, 30).getTime() },
  ]);
  expect(screen.getByText('6 March, from 18:00')).toBeTruthy();
  expect(screen.getByText(/and all that is open is done/).parentElement!.textContent).toMatch(/1[89]:\d\d|2[012]:\d\d/);
  expect(screen.getByText(/\d+ in a hundred by 22:30/)).toBeTruthy();
  // Each bar is said with its time, in the order of the hours.
  const strip = within(screen.getByRole('group', { name: 'The evening along its hours' }));
  const begins = strip
    .getAllByRole('button')
    .map((bar) => / (\d\d:\d\d) to \d\d:\d\d/.exec(bar.getAttribute('aria-label')!)![1]!);
  expect(begins.length).toBeGreaterThan(1);
  expect(Math.min(...begins.map((time) => Number(time.slice(0, 2))))).toBe(18);
});

test('a ticket that is left for another day is asked without, and comes back', async () => {
  evening();
  open();
  await ended();
  const box = screen.getByRole('checkbox', { name: `${product.name} 101 for Stall, tonight` });
  await userEvent.click(box);
  await waitFor(() => expect(asks.at(-1)!.leftOut).toEqual(['w1']));
  await userEvent.click(box);
  await waitFor(() => expect(asks.at(-1)!.leftOut).toEqual([]));
});

test('a task that is chosen goes sooner or later by a quarter of an hour, stands pinned, and is let go', async () => {
  evening();
  open();
  await ended();
  const strip = within(screen.getByRole('group', { name: 'The evening along its hours' }));
  const [bar] = strip.getAllByRole('button') as [HTMLElement];
  const [, hours, minutes] = / (\d\d):(\d\d) to /.exec(bar.getAttribute('aria-label')!)!;
  await userEvent.click(bar);
  await userEvent.click(await screen.findByRole('button', { name: '15 min later' }));
  const pinned = () => asks.flatMap((each) => Object.values(each.pinned));
  await waitFor(() => expect(pinned().length).toBeGreaterThan(0));
  // From its own beginning on, as it stands on the bar to the minute.
  const began = 60 * (60 * (Number(hours) - 18) + Number(minutes));
  expect(Math.abs(pinned()[0]! - (began + 900))).toBeLessThanOrEqual(60);
  expect((await strip.findAllByRole('button', { name: /, pinned$/ })).length).toBeGreaterThan(0);
  await userEvent.click(await screen.findByRole('button', { name: 'Let it go' }));
  await waitFor(() => expect(asks.at(-1)!.pinned).toEqual({}));
});

test('while a better one is looked for the first stands, and can be taken as good enough', async () => {
  evening();
  holds = true;
  open();
  const enough = await screen.findByRole('button', { name: 'This one is good enough' });
  expect(screen.getByText(/Playing the evening through/)).toBeTruthy();
  await userEvent.click(enough);
  await waitFor(() => expect(screen.queryByRole('button', { name: 'This one is good enough' })).toBeNull());
  expect(screen.getByText(/and all that is open is done/)).toBeTruthy();
});

test.each([
  [1, ['Runa']],
  [2, ['Runa', 'Tevo']],
  [3, ['Runa', 'Tevo', 'Third']],
])('%d pairs of hands are those who work here, by name', async (people, names) => {
  evening({ people });
  open(asked(), { 'GET /settings': { ...settings, people: ['Runa', 'Tevo'] } });
  await ended();
  // What is compared beside it is asked too, with a helper.
  expect(asks.map((each) => each.people.map(({ name }) => name))).toContainEqual(names);
});

test('nothing open is said, with the way to an order; a plan that cannot be is told in words', async () => {
  evening();
  open(asked({ wanted: [] }));
  await screen.findByText(/No order is open and no ticket is under way/);
  expect(screen.getByRole('link', { name: 'A new order' }).getAttribute('href')).toBe('/orders/new');
  expect(screen.queryByRole('button', { name: 'Print the run sheet' })).toBeNull();
  cleanup();
  refuses = true;
  open();
  expect((await screen.findByRole('alert')).textContent).toContain('A pot of 0 kg melts nothing.');
});
