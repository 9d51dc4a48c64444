import { ticketState, usualRoute, type TicketEntry } from '@schmelz/core';
import { cleanup, screen, within } from '@testing-library/react';
import { ids, ticket } from '../../test/fixtures.ts';
import { fakeApi, prepareBrowser, renderAt } from '../../test/render.tsx';
import { useCatalogue } from '../../shell/catalogue.ts';
import { setupOf, wholeLog } from '../../shell/line-state.ts';
import { TicketStrip } from './TicketStrip.tsx';

beforeEach(prepareBrowser);
afterEach(cleanup);

function Strip({ of, next }: { of: ReturnType<typeof ticket>; next: boolean }) {
  const catalogue = useCatalogue();
  const state = ticketState(setupOf(of), wholeLog(of));
  return catalogue && <TicketStrip {...{ catalogue, next }} ticket={{ ...of, state }} />;
}
let nth = 0;
const log = (...entries: object[]) =>
  entries.map((entry): TicketEntry => {
    nth += 1;
    return { id: `e${nth}`, at: 60_000 * nth, ...entry } as TicketEntry;
  });
const good = (step: string, count: number) => ({ kind: 'good', step, count });
const reject = (step: string, count: number, cause: string) => ({ kind: 'reject', step, count, cause, goes: 'melt' });

async function strip(more: Parameters<typeof ticket>[0], next = false) {
  fakeApi();
  renderAt(<Strip of={ticket(more)} next={next} />);
  return screen.findByRole('article', { name: 'Ticket 101' });
}
/** What stands in each column that has something, in the line's order. */
const stands = (article: HTMLElement) =>
  within(article)
    .getAllByRole('listitem')
    .flatMap((stop) => stop.textContent.trim() || []);

const painted = usualRoute({ painted: true, baked: true });
const keys = painted.map(({ key }) => key);

test('names the head, its paint and whom it is for, and leads to the ticket', async () => {
  const article = await strip({});
  const link = within(article).getByRole('link');
  expect(link.getAttribute('href')).toBe(`/tickets/${ids.ticket}`);
  expect(link.textContent).toMatch(/101.*Pebble 10 g.*roe on gull, .*Stall/);
});

test('what is for nobody by name is for the shelf', async () => {
  const article = await strip({ customer: '' });
  expect(within(article).getByRole('link').textContent).not.toContain('Stall');
});

test('before the pour it says how many are to be poured', async () => {
  const article = await strip({ poured: 0, pourClosed: false, pourCauses: {}, toCast: 12 });
  expect(stands(article)).toContain('12 to pour');
});

test('while it is at the pot it stands there, and more are said where more are wanted', async () => {
  const atPot = await strip({ poured: 5, pourClosed: false, pourCauses: {}, toCast: 7 });
  expect(stands(atPot).some((text) => text.startsWith('at the pot') || text.startsWith('7 more to pour'))).toBe(true);
  cleanup();
  const short = await strip({ poured: 10, pourClosed: true, pourCauses: {}, toCast: 2 });
  expect(stands(short).some((text) => text.startsWith('2 more to pour'))).toBe(true);
});

test('after the pot: how many came, and the worst cause of those that did not', async () => {
  const article = await strip({ poured: 12, pourCauses: { short: 1, wrinkled: 4 } });
  // Five were thrown back: four wrinkled, and one that was short.
  expect(stands(article)).toContain('4 wrinkled, 1 more12');
  expect(stands(article)).toContain('12 to trim');
});

test('heads that are good at a step wait at the next; what was thrown back stays at its own', async () => {
  const article = await strip({ log: log(good(keys[0]!, 9), reject(keys[0]!, 2, 'flash')) });
  expect(stands(article)).toContain('1 to trim');
  expect(stands(article).some((text) => /^9 to /.test(text))).toBe(true);
  cleanup();
  const done = await strip({ log: log(good(keys[0]!, 9), reject(keys[0]!, 3, 'flash')) });
  expect(stands(done)).toContain('3 flash9');
});

test('heads off the shelf are not poured: they are to take, then go along', async () => {
  const off = { source: 'shelf' as const, fromId: ids.hook, poured: 0, pourCauses: {} };
  const before = await strip(off);
  expect(stands(before).some((text) => text.startsWith('12 to take'))).toBe(true);
  expect(stands(before).some((text) => text.includes('pour'))).toBe(false);
  cleanup();
  const after = await strip({ ...off, log: log({ kind: 'take', count: 12 }) });
  expect(stands(after).some((text) => text.includes('to take'))).toBe(false);
  expect(stands(after)).toContain('12 to trim');
});

test('a ticket of which all is done can be closed: said where there is no column for it', async () => {
  const article = await strip({ log: log(...keys.map((key) => good(key, 12))) });
  expect(within(article).getByText('ready to close')).toBeTruthy();
});

test('the next thing is marked, and only that', async () => {
  const marked = (article: HTMLElement) => article.querySelectorAll('.text-good, .bg-good').length > 0;
  expect(marked(await strip({}, true))).toBe(true);
  cleanup();
  expect(marked(await strip({}, false))).toBe(false);
});

test('lead is grey until it is painted, then its colours', async () => {
  const bars = (article: HTMLElement) =>
    [...article.querySelectorAll<HTMLElement>('li span[style*="background"]')].map(({ style }) => style.background);
  const grey = bars(await strip({ log: log(good(keys[0]!, 12)) }));
  expect(new Set(grey).size).toBe(1);
  cleanup();
  const upTo = keys.indexOf(painted.find(({ station }) => station === 'paint')!.key);
  const colours = bars(await strip({ log: log(...keys.slice(0, upTo + 1).map((key) => good(key, 12))) }));
  // Roe on gull: the back over the base.
  expect(colours.at(-1)).toMatch(/linear-gradient\(.*(#dd5f33|221, 95, 51).*(#ece7d8|236, 231, 216)/);
  expect(colours[0]).toBe(grey[0]);
});
