import type { GoodsMove, Material, OrderGoods, PartLot } from '@schmelz/contract';
import { cleanup, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { ids, materials, order } from '../../test/fixtures.ts';
import { fakeApi, prepareBrowser, refuse, renderAt } from '../../test/render.tsx';
import { useCatalogue } from '../../shell/catalogue.ts';
import { PartLots } from '../stock/PartLots.tsx';
import { GoMoves } from './GoMoves.tsx';
import { HandOver } from './HandOver.tsx';
import { MoveForm, type Goes } from './MoveForm.tsx';

beforeEach(prepareBrowser);
afterEach(cleanup);

const goes = (more: Partial<Goes> = {}): Goes => ({
  ...{ productId: ids.product, grade: 'good', name: 'Pebble', here: 9, likely: 9, priceMinor: 195 },
  ...more,
});
const seconds = goes({ grade: 'second', name: 'Pebble seconds', here: 2, likely: 2, priceMinor: null });
type Sent = { what: string; party: string; lines: { pieces: number; priceMinor: number | null; grade: string }[] };

describe('finished heads that go', () => {
  const open = (all: Goes[], more: { order?: { id: string; customer: string } } = {}) => {
    const api = fakeApi();
    const done = jest.fn();
    renderAt(<MoveForm goes={all} onDone={done} {...more} />);
    return { api, done, sent: () => api.writes().map(({ body }) => body as Sent) };
  };
  const book = () => userEvent.click(screen.getByRole('button', { name: /Book it|Hand them over/ }));
  const retype = async (field: HTMLElement, text: string) => {
    await userEvent.clear(field);
    if (text) await userEvent.type(field, text);
  };

  test('are sold at their price for all, which can be another; what none goes of is left out', async () => {
    const { sent, done } = open([goes(), seconds]);
    const [price] = await screen.findAllByLabelText(/^For all/);
    expect((price as HTMLInputElement).value).toBe('17.55');
    await userEvent.type(screen.getByLabelText('Who has them now'), 'Ferry');
    await retype(screen.getAllByLabelText('Heads')[0]!, '4');
    await retype(price!, '7.50');
    await retype(screen.getAllByLabelText('Heads')[1]!, '0');
    await book();
    await waitFor(() => expect(done).toHaveBeenCalledTimes(1));
    expect(sent()).toMatchObject([{ what: 'sold', party: 'Ferry', lines: [{ pieces: 4, priceMinor: 750 }] }]);
    expect(sent()[0]!.lines).toHaveLength(1);
  });

  test.each([
    ['They are given away', 'given', true],
    ['They are scrapped', 'scrapped', false],
    ['So many are really there', 'counted', false],
  ])('%s: without a price, and with a name only where somebody has them', async (label, what, named) => {
    const { sent } = open([goes()]);
    await userEvent.type(await screen.findByLabelText('Who has them now'), 'Ferry');
    await userEvent.selectOptions(screen.getByLabelText('What happens'), label);
    expect(screen.queryByLabelText(/^For all/)).toBeNull();
    expect(screen.queryByLabelText('Who has them now') !== null).toBe(named);
    await book();
    await waitFor(() => expect(sent()).toHaveLength(1));
    expect(sent()[0]).toMatchObject({ what, party: named ? 'Ferry' : '', lines: [{ pieces: 9, priceMinor: null }] });
  });

  test('a count may find none; a sale of none, of half a head or for words is refused before it is sent', async () => {
    const { sent } = open([goes()]);
    const heads = (await screen.findAllByLabelText('Heads'))[0]!;
    for (const wrong of ['0', '2.5', '-1', 'some']) {
      await retype(heads, wrong);
      await book();
      await waitFor(() => expect(screen.getAllByRole('alert').length).toBeGreaterThan(0));
      expect([wrong, sent()]).toEqual([wrong, []]);
    }
    await retype(heads, '3');
    await retype(screen.getByLabelText(/^For all/), 'a lot');
    await book();
    expect(sent()).toEqual([]);
    await userEvent.selectOptions(screen.getByLabelText('What happens'), 'So many are really there');
    await retype(heads, '0');
    await book();
    await waitFor(() => expect(sent()).toMatchObject([{ what: 'counted', lines: [{ pieces: 0 }] }]));
  });

  test('said twice by one form have one id, so that they count once', async () => {
    const api = fakeApi({ 'POST /goods/moves': refuse(503, { title: 'Away', detail: 'The disk is full.' }) });
    renderAt(<MoveForm goes={[goes()]} onDone={() => undefined} />);
    await screen.findByLabelText('Who has them now');
    await book();
    expect((await screen.findByRole('alert')).textContent).toContain('The disk is full.');
    await book();
    await waitFor(() => expect(api.writes()).toHaveLength(2));
    const [first, second] = api.writes().map(({ body }) => (body as { id: string }).id);
    expect(first).toBe(second);
  });

  test('on an order they are handed over to who ordered, and cannot be scrapped there', async () => {
    const { sent } = open([goes()], { order: { id: ids.order, customer: 'Stall' } });
    expect(((await screen.findByLabelText('Who has them now')) as HTMLInputElement).value).toBe('Stall');
    expect(screen.queryByRole('option', { name: 'They are scrapped' })).toBeNull();
    await book();
    await waitFor(() => expect(sent()).toMatchObject([{ what: 'sold', party: 'Stall', orderId: ids.order }]));
  });
});

/** With everything that names products, once it is read. */
function WithCatalogue({
  show,
}: {
  show: (catalogue: NonNullable<ReturnType<typeof useCatalogue>>) => React.ReactNode;
}) {
  const catalogue = useCatalogue();
  return catalogue && <>{show(catalogue)}</>;
}
const move = (id: number, more: Partial<GoodsMove>): GoodsMove => ({
  ...{ id, saidId: `said ${id}`, at: new Date(2026, 2, 9).getTime(), productId: ids.product, grade: 'good' },
  ...{ reason: 'sold', pieces: -2, valueMinor: -60, priceMinor: 390, ticketNumber: 101, orderNumber: null },
  ...{ party: 'Ferry', note: '', struck: false },
  ...more,
});

test('what was said in one go is one line with its sum; it is struck out whole, and what a ticket made is not', async () => {
  const api = fakeApi();
  const moves = [
    move(4, { saidId: 'one go', pieces: -3 }),
    move(3, { saidId: 'one go', pieces: -1, ticketNumber: 104, priceMinor: 195 }),
    move(2, { saidId: 'back', reason: 'returned', pieces: 1, priceMinor: -195, note: 'rust', orderNumber: 7 }),
    move(1, { saidId: null, reason: 'made', pieces: 9, priceMinor: null, party: '' }),
  ];
  renderAt(<WithCatalogue show={(catalogue) => <GoMoves moves={moves} catalogue={catalogue} />} />);
  const rows = (await screen.findAllByRole('listitem')).map(({ textContent }) => textContent!);
  expect(rows).toHaveLength(3);
  expect(rows[0]).toContain('4 × Pebble 10 g, roe on gull, to Ferry');
  expect(rows[0]).toContain('€5.85');
  expect(rows[1]).toMatch(/came back 1 × Pebble 10 g, roe on gull, from Ferry.*order 7.*rust/);
  expect(rows[2]).toMatch(/made 9 × Pebble 10 g, roe on gull, ticket 101/);
  const strike = screen.getAllByRole('button', { name: /strike/i });
  expect(strike).toHaveLength(2);
  await userEvent.click(strike[0]!);
  await waitFor(() => expect(api.writes()).toMatchObject([{ method: 'POST', path: '/goods/moves/one go/strike' }]));
});

describe('an order with who ordered it', () => {
  const goods = (more: Partial<OrderGoods['lines'][number]> = {}, moves: GoodsMove[] = []): OrderGoods => ({
    lines: [{ productId: ids.product, quantity: 12, handed: 5, open: 7, here: 4, priceMinor: 195, ...more }],
    moves,
  });
  const open = (all: OrderGoods) => {
    fakeApi({ [`GET /orders/${ids.order}/goods`]: all });
    renderAt(<WithCatalogue show={(catalogue) => <HandOver order={order} catalogue={catalogue} />} />);
  };
  test.each([
    [{}, 'handed over in part'],
    [{ handed: 0, open: 12 }, 'nothing handed over yet'],
    [{ handed: 12, open: 0 }, 'all of it is handed over'],
  ])('%j is %s', async (more, says) => {
    open(goods(more, [move(1, {})]));
    expect(await screen.findByText(says)).toBeTruthy();
  });
  test('asks for as many as lie here, and no more than are still open', async () => {
    open(goods());
    await userEvent.click(await screen.findByRole('button', { name: 'Hand over, or take back' }));
    const sheet = within(await screen.findByRole('dialog'));
    expect((sheet.getByLabelText('Heads') as HTMLInputElement).value).toBe('4');
    cleanup();
    open(goods({ open: 2 }));
    await userEvent.click(await screen.findByRole('button', { name: 'Hand over, or take back' }));
    expect((within(await screen.findByRole('dialog')).getByLabelText('Heads') as HTMLInputElement).value).toBe('2');
  });
  test('is not spoken of where nothing lies here and nothing went', async () => {
    open(goods({ here: 0, handed: 0 }));
    await waitFor(() => expect(screen.queryByText('With who ordered it')).toBeNull());
  });
});

describe('lots of a part', () => {
  const hook = materials.find(({ id }) => id === ids.hook) as Material;
  const went = (ticketNumber: number, quantity: number) => ({
    ...{ reason: 'hooks', ticketId: `t${ticketNumber}`, ticketNumber, quantity },
  });
  const lots: PartLot[] = [
    {
      ...{ id: 31, at: new Date(2026, 1, 1).getTime(), lot: 'spring box', quantity: 100, valueMinor: 1600, left: 40 },
      went: [went(101, 40), went(101, 8), went(102, 12)],
    },
    { id: 32, at: new Date(2026, 2, 1).getTime(), lot: '', quantity: 50, valueMinor: 900, left: 50, went: [] },
  ];
  test('say what is left of each, and each ticket once; who has it leads on', async () => {
    fakeApi({ [`GET /materials/${ids.hook}/lots`]: lots });
    renderAt(<PartLots material={hook} />);
    const [, first, second] = (await screen.findAllByRole('row')) as HTMLElement[];
    expect(
      within(first!)
        .getAllByRole('link')
        .map((link) => link.getAttribute('href')),
    ).toEqual(['/tickets/t101', '/tickets/t102', '/trace/lot/31']);
    expect(first!.textContent).toMatch(/spring box.*40.*of 100/);
    expect(second!.textContent).toMatch(/of 1 Mar 2026.*50.*of 50.*none yet/);
  });
  test('a ticket that was of the other box is put right, once both are said', async () => {
    const api = fakeApi({ [`GET /materials/${ids.hook}/lots`]: lots });
    renderAt(<PartLots material={hook} />);
    const button = await screen.findByRole('button', { name: 'Put it right' });
    expect(button).toHaveProperty('disabled', true);
    await userEvent.selectOptions(screen.getByLabelText('Ticket'), '102');
    await userEvent.selectOptions(screen.getByLabelText('was of lot'), 'of 1 Mar 2026');
    await userEvent.click(button);
    await waitFor(() =>
      expect(api.writes()).toMatchObject([
        { method: 'PUT', path: `/materials/${ids.hook}/lots/32`, body: { ticketId: 't102' } },
      ]),
    );
  });
  test('one lot, or none that was used, has nothing to put right', async () => {
    fakeApi({ [`GET /materials/${ids.hook}/lots`]: lots.slice(1) });
    renderAt(<PartLots material={hook} />);
    await screen.findByText('none yet');
    expect(screen.queryByRole('button', { name: 'Put it right' })).toBeNull();
  });
});
