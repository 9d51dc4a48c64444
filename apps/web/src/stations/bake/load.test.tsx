import type { RunView } from '@schmelz/contract';
import { cleanup, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { ids, ovenRun, ticket } from '../../test/fixtures.ts';
import { fakeApi, prepareBrowser, renderAt } from '../../test/render.tsx';
import { LoadBenchPage } from './LoadPage.tsx';

beforeEach(prepareBrowser);
afterEach(cleanup);

const uuid = (n: number) => `70000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const ago = (seconds: number) => Date.now() - seconds * 1000;
let made = 0;
/** A load of two tickets, or of one, that went in so long ago. */
function load(seconds: number, tickets: number, ...more: RunView['log']): RunView {
  const id = uuid(500 + (made += 1));
  const heads = [
    { ticketId: ids.ticket, step: 'bake', count: 8 },
    { ticketId: uuid(2), step: 'bake', count: 5 },
  ].slice(0, tickets);
  const run = ovenRun({ ticketId: ids.ticket, count: 8 }, { id: uuid(600 + made), at: ago(seconds), heads }, ...more);
  return { ...run, id };
}
function open(run: RunView) {
  const second = ticket({ id: uuid(2), number: 102, productId: ids.product });
  const api = fakeApi({
    'GET /line': { tickets: [ticket(), second], pours: [], runs: [run] },
    [`GET /runs/oven/${run.id}`]: run,
  });
  return { api, ...renderAt(<LoadBenchPage />, `/bake/load/${run.id}`, '/bake/load/:id') };
}
const out = (seconds: number): RunView['log'][number] =>
  ({ id: uuid(700 + (made += 1)), at: ago(seconds), kind: 'unload', coolS: 600 }) as never;

test('while it bakes the clock runs, the door is said, and it is not out before anybody says so', async () => {
  const { api } = open(load(60, 2));
  expect((await screen.findByText('Take out in')).nextSibling!.textContent).toMatch(/^2[67]:\d\d/);
  await userEvent.keyboard('d');
  await waitFor(() => expect(api.writes()[0]?.body).toMatchObject({ kind: 'door' }));
});

test('when it is done one key takes it out; heads of several tickets are then looked at one after the other', async () => {
  const run = load(1700, 2);
  const { api } = open(run);
  await screen.findByText(/^Take them out/);
  await userEvent.keyboard(' ');
  await waitFor(() => expect(api.writes()[0]?.body).toMatchObject({ kind: 'unload' }));
  expect(api.writes()[0]!.path).toBe(`/runs/oven/${run.id}/entries`);
  await screen.findByText('Out, to look at');
  // Eight and five.
  expect(screen.getByText('13')).toBeTruthy();
  expect(screen.getByText('Ticket 101')).toBeTruthy();
  const ways = screen.getAllByRole('link', { name: 'Look at them' }).map((link) => link.getAttribute('href'));
  expect(ways).toEqual([`/bake/${ids.ticket}`, `/bake/${uuid(2)}`]);
});

test('heads of one ticket are looked at where they were hung up', async () => {
  const { router } = open(load(2000, 1, out(100)));
  await waitFor(() => expect(router.state.location.pathname).toBe(`/bake/${ids.ticket}`));
});

test('a load that was taken back is made anew: of one ticket at its bench, of several where loads are drawn', async () => {
  const back = (run: RunView): RunView => ({
    ...run,
    log: [...run.log, { id: uuid(800 + made), at: ago(10), kind: 'undo', target: run.log[0]!.id } as never],
  });
  const one = open(back(load(60, 1)));
  await waitFor(() => expect(one.router.state.location.pathname).toBe(`/bake/${ids.ticket}`));
  cleanup();
  const two = open(back(load(60, 2)));
  await waitFor(() => expect(two.router.state.location.pathname).toBe('/bake/loads'));
});
