import type { LotTicket, TicketTrace, TracedTicket } from '@schmelz/contract';
import { cleanup, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { ids, ticket } from '../../test/fixtures.ts';
import { fakeApi, prepareBrowser, renderAt } from '../../test/render.tsx';
import { LotPage } from './LotPage.tsx';
import { TracePage } from './TracePage.tsx';

beforeEach(prepareBrowser);
afterEach(cleanup);

const uuid = (n: number) => `40000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const on = (day: number) => new Date(2026, 2, day, 12).getTime();
const traced = (number: number, more: Partial<TracedTicket> = {}): TracedTicket => ({
  ...{ id: uuid(number), number, productId: ids.product, quantity: 12, good: 11, closedAt: on(8) },
  ...{ customer: 'Stall', orderNumber: 7, went: [], onShelf: 0 },
  ...more,
});
const sold = (party: string, pieces: number, orderNumber: number | null = null) => ({
  ...{ reason: 'sold' as const, party, orderNumber, at: on(9), pieces: -pieces },
});
const tickets: LotTicket[] = [
  { ...traced(101, { went: [sold('Lock keeper', 6, 7), sold('Ferry', 2)], onShelf: 3 }), used: 12 },
  { ...traced(102, { good: 4, went: [sold('Ferry', 4)] }), used: 4 },
  { ...traced(103, { good: null, closedAt: null }), used: 5 },
  { ...traced(104, { good: 0, productId: uuid(1) }), used: 1 },
];
const trace: TicketTrace = {
  product: ticket().product,
  ...traced(101, { went: [sold('Lock keeper', 6, 7)], onShelf: 3 }),
  lots: [
    { lotId: 31, materialId: ids.hook, name: 'Hook 2/0', kind: 'hook', lot: 'spring box', at: on(1), quantity: 12 },
    { lotId: 32, materialId: ids.white, name: 'Gull white', kind: 'powder', lot: '', at: on(2), quantity: 0.0012 },
  ],
  pours: [{ id: ids.pour, number: 3, at: on(6) }],
  runs: [
    { id: uuid(70), kind: 'oven', number: 4, at: on(7) },
    { id: uuid(71), kind: 'glue', number: 1, at: on(8) },
  ],
};

describe('a list to call heads back by', () => {
  const open = (more: Record<string, unknown> = {}) => {
    const api = fakeApi({
      'GET /trace/lots/31': tickets,
      'GET /trace/lots': [],
      'GET /trace/tickets/101': trace,
      ...more,
    });
    renderAt(<LotPage />, '/trace/lot/31', '/trace/lot/:id');
    return api;
  };

  test('counts heads, people and what lies here once each, and names the lot', async () => {
    open();
    const region = within(await screen.findByRole('region', { name: 'Who has them' }));
    // 11 + 4 + 0 good heads; Ferry has of two tickets and is one person.
    await screen.findByText(/Hook 2\/0, spring box, 1 Mar 2026/);
    expect(screen.getByText(/good heads hold of it, in 4 tickets/).parentElement!.textContent).toContain('15');
    expect(screen.getByText(/^2 people have them; 3 lie on the shelf/)).toBeTruthy();
    expect(region.getAllByRole('row')).toHaveLength(5);
  });

  test('says of each ticket who has how many, what lies here, what is still on the line and what is nobody’s', async () => {
    open();
    const region = within(await screen.findByRole('region', { name: 'Who has them' }));
    const [, first, second, third, fourth] = region.getAllByRole('row').map(({ textContent }) => textContent!);
    expect(first).toMatch(
      /^101Pebble 10 g, roe on gull6 sold to Lock keeper, order 7, 9 Mar 20262 sold to Ferry, 9 Mar/,
    );
    expect(first).toMatch(/3 on the shelf1112/);
    expect(second).toContain('4 sold to Ferry');
    expect(third).toContain('still on the line: for Stall, order 7');
    expect(third).toMatch(/–5on the line$/);
    expect(fourth).toContain('a product that is gone');
    expect(fourth).toContain('8 Mar 2026');
  });

  test('a lot that nothing has taken of says so, and one that is none is refused in words', async () => {
    open({ 'GET /trace/lots/31': [] });
    await screen.findByText('No ticket has taken of it yet.');
    expect(screen.queryByRole('table')).toBeNull();
    cleanup();
    open({
      'GET /trace/lots/31': { __status: 404, title: 'Not found', status: 404, detail: 'There is no lot 31.' },
    });
    await waitFor(() => expect(document.body.textContent).toMatch(/31/));
  });

  test('prints as it stands', async () => {
    const print = jest.fn();
    window.print = print;
    open();
    await userEvent.click(await screen.findByRole('button', { name: 'Print the list' }));
    expect(print).toHaveBeenCalledTimes(1);
  });
});

describe('from the number on a bag', () => {
  test('back to its lots, its pour and its runs, each a way on', async () => {
    fakeApi({ 'GET /trace/tickets/101': trace });
    renderAt(<TracePage />, '/trace/101', '/trace/:number');
    await screen.findByText(/is this ticket: order 7, Stall/);
    const href = (name: RegExp) => screen.getAllByRole('link', { name }).map((link) => link.getAttribute('href'));
    expect(href(/who else has it/)).toEqual(['/trace/lot/31', '/trace/lot/32']);
    expect(href(/^Pour 3$/)).toEqual([`/pour/${ids.pour}`]);
    expect(href(/^Oven load 4$/)).toEqual([`/bake/load/${uuid(70)}`]);
    expect(href(/^Mix of glue 1$/)).toEqual([`/finish/glue/${uuid(71)}`]);
    expect(screen.getByText('spring box, 1 Mar 2026')).toBeTruthy();
    expect(screen.getByText('of 2 Mar 2026')).toBeTruthy();
    expect(screen.getByText('1.2 g')).toBeTruthy();
    expect(screen.getByText(/Closed 8 Mar 2026/).textContent).toContain('11 good of 12');
  });

  test('that is no number goes nowhere; one that is, to its ticket; one that is not there is told', async () => {
    fakeApi({ 'GET /trace/lots': [] });
    const { router } = renderAt(<TracePage />, '/trace', '/trace');
    const field = await screen.findByLabelText('Number on the bag');
    await userEvent.type(field, 'box{Enter}');
    expect(router.state.location.pathname).toBe('/trace');
    await userEvent.clear(field);
    await userEvent.type(field, ' 101 {Enter}');
    expect(router.state.location.pathname).toBe('/trace/101');
    cleanup();
    fakeApi({ 'GET /trace/lots': [] });
    renderAt(<TracePage />, '/trace/999', '/trace/:number');
    expect((await screen.findByRole('alert')).textContent).toContain('/trace/tickets/999');
  });

  test('nothing is booked yet where the pour is open', async () => {
    fakeApi({ 'GET /trace/tickets/101': { ...trace, lots: [], closedAt: null, good: null } });
    renderAt(<TracePage />, '/trace/101', '/trace/:number');
    await screen.findByText(/Nothing is booked for it yet/);
    expect(screen.getByText(/Still on the line/).textContent).toContain('0 good of 12');
  });
});
