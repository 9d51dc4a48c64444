import type { Material, RunView, Ticket } from '@schmelz/contract';
import { cleanup, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { ids, materials, products, settings, ticket } from '../../test/fixtures.ts';
import { fakeApi, prepareBrowser, renderAt } from '../../test/render.tsx';
import { TemplatesPage } from '../products/TemplatesPage.tsx';
import { FinishDesk } from './FinishDesk.tsx';
import { GluePage } from './GluePage.tsx';
import { LabelsPage } from './LabelsPage.tsx';

beforeEach(prepareBrowser);
afterEach(cleanup);

const uuid = (n: number) => `60000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const ago = (seconds: number) => Date.now() - seconds * 1000;

describe('labels for the bags of a ticket', () => {
  const done = (count: number): Ticket['log'] =>
    ['trim', 'paint', 'bake', 'finish'].map((step, nth) => ({
      ...{ id: uuid(10 + nth), at: ago(900 - nth), kind: 'good' as const, step, count },
    }));
  const open = (more: Record<string, unknown> = {}, log = done(12)) => {
    const api = fakeApi({ [`GET /tickets/${ids.ticket}`]: ticket({ log }), ...more });
    renderAt(<LabelsPage />, `/finish/labels/${ids.ticket}`, '/finish/labels/:id');
    return api;
  };
  const labels = () => [...document.querySelectorAll<HTMLElement>('[data-label]')];

  test('are one a bag, five heads each and the rest in the last; each has what, how many, of which ticket, and its code', async () => {
    open();
    await screen.findByText('bags of 12 heads');
    expect(labels()).toHaveLength(3);
    expect(
      labels().map(({ textContent }) =>
        /hook 2\/0(\d+) in this bag · ticket 101, (\d) of 3/.exec(textContent!)!.slice(1),
      ),
    ).toEqual([
      ['5', '1'],
      ['5', '2'],
      ['2', '3'],
    ]);
    for (const label of labels()) {
      expect(label.textContent).toContain('Test shed');
      expect(label.textContent).toContain('Pebble 10 g, roe on gull');
      expect(label.textContent).toContain('hook 2/0');
      expect(within(label).getByRole('img', { name: 'Code of ticket 101' })).toBeTruthy();
    }
  });

  test('go on where a sheet was begun, over to the next; a place that is none is the first or the last', async () => {
    open();
    const first = await screen.findByLabelText('First free label of the sheet');
    const [, onSheet] = /1 to (\d+)/.exec(document.body.textContent!)!;
    const places = () => labels().map(({ style }) => `${style.left} ${style.top}`);
    const atFirst = places();
    await userEvent.clear(first);
    await userEvent.type(first, '2');
    expect(places().slice(0, 2)).toEqual(atFirst.slice(1));
    await userEvent.clear(first);
    await userEvent.type(first, onSheet!);
    // One at the last place of this sheet, two on the next.
    const sheets = screen.getAllByRole('group', { name: /^Sheet \d$/ });
    expect(sheets.map((sheet) => sheet.querySelectorAll('[data-label]').length)).toEqual([1, 2]);
    await userEvent.clear(first);
    await userEvent.type(first, '999');
    expect(screen.getAllByRole('group', { name: /^Sheet \d$/ })).toHaveLength(2);
    await userEvent.clear(first);
    await userEvent.type(first, 'none');
    expect(places()).toEqual(atFirst);
  });

  test('nothing finished is nothing to print', async () => {
    open({}, []);
    await screen.findByText(/No head of this ticket is finished yet/);
    expect(screen.getByRole('button', { name: 'Print' })).toHaveProperty('disabled', true);
    expect(labels()).toHaveLength(0);
  });

  test('the maker’s own words are kept for the next ticket; half a head a bag is refused at its field', async () => {
    const api = open({ 'PUT /settings': settings });
    const perBag = await screen.findByLabelText('Heads a bag');
    await userEvent.clear(perBag);
    await userEvent.type(perBag, '2.5');
    await userEvent.type(screen.getByLabelText('Your own line'), '  at the ferry  ');
    await userEvent.click(screen.getByRole('button', { name: 'Keep this' }));
    await screen.findByRole('alert');
    expect(api.writes()).toEqual([]);
    await userEvent.clear(perBag);
    await userEvent.type(perBag, '6');
    await userEvent.click(screen.getByRole('button', { name: 'Keep this' }));
    await waitFor(() => expect(api.writes()).toHaveLength(1));
    expect(api.writes()[0]!.body).toMatchObject({
      version: 1,
      workshopName: 'Test shed',
      labels: { perBag: 6, line: 'at the ferry' },
    });
  });
});

describe('glue, a mix at a time', () => {
  const epoxy = { ...materials[1]!, id: uuid(50), kind: 'glue', name: 'Five minute', hook: null } as Material;
  const route = [
    { key: 'trim', station: 'trim', does: 'Trim' },
    { key: 'guard', station: 'finish', does: 'Guard in', task: 'guard' },
  ] as Ticket['route'];
  /** A ticket whose heads wait for their guard, in glue: 0.2 ml a head. */
  const waits = (id: string, heads: number, number: number) => {
    const own = ticket({ id, number, quantity: heads, poured: heads, route });
    const log = [{ id: uuid(number), at: ago(900), kind: 'good', step: 'trim', count: heads }] as Ticket['log'];
    const glue = { partId: epoxy.id, name: epoxy.name, kind: 'glue', quantity: 0.2, waste: 0, step: 'guard' };
    return { ...own, log, planned: { ...own.planned, bill: [...own.planned.bill, glue] } } as Ticket;
  };
  const desk = (tickets: Ticket[], runs: RunView[] = []) => {
    const api = fakeApi({
      'GET /materials': [...materials, epoxy],
      'GET /line': { tickets, pours: [], runs },
    });
    return { api, ...renderAt(<FinishDesk />, '/finish') };
  };

  test('that nothing waits for is not on the desk', async () => {
    desk([ticket({ log: [] })]);
    await screen.findByRole('navigation', { name: 'Rooms of the finish' });
    await waitFor(() => expect(screen.queryByText(/Glue, a mix at a time/)).toBeNull());
  });

  test('is reckoned over all tickets that wait for it, and begun with those heads', async () => {
    const { api, router } = desk([waits(uuid(1), 4, 101), waits(uuid(2), 3, 102)]);
    const item = (await screen.findByText('Five minute')).closest('li')!;
    expect(item.textContent).toMatch(/7 heads wait/);
    await userEvent.click(within(item).getByRole('button', { name: 'It is mixed: begin' }));
    await waitFor(() => expect(api.writes()).toHaveLength(1));
    const { path, body } = api.writes()[0]! as { path: string; body: Record<string, unknown> };
    expect(path).toMatch(/^\/runs\/glue\/[0-9a-f-]{36}\/entries$/);
    expect(body).toMatchObject({ kind: 'begin', partId: epoxy.id, name: 'Five minute' });
    const heads = body['heads'] as { ticketId: string; step: string; count: number }[];
    expect(heads.every(({ step }) => step === 'guard')).toBe(true);
    expect(heads.reduce((sum, { count }) => sum + count, 0)).toBeLessThanOrEqual(7);
    expect(heads[0]!.count).toBeGreaterThan(0);
    await waitFor(() => expect(router.state.location.pathname).toMatch(/^\/finish\/glue\//));
  });

  const begun = (leftS: number): RunView =>
    ({
      ...{ id: uuid(70), version: 1, kind: 'glue', number: 4 },
      log: [
        {
          ...{ id: uuid(71), at: Date.now() - (300 - leftS) * 1000, kind: 'begin', partId: epoxy.id, name: epoxy.name },
          ...{ heads: [{ ticketId: uuid(1), step: 'guard', count: 4 }], potLifeS: 300, setS: 3600 },
        },
      ],
    }) as unknown as RunView;
  test.each([
    [240, /^Can be worked for [34]:\d\d$/],
    [30, /^Can be worked for [0-3]?\d$/],
    [-20, /^This mix is stiff: end it, mix anew\.$/],
  ])('with %d s of its pot life left the bench says so', async (leftS, says) => {
    const run = begun(leftS);
    fakeApi({
      'GET /materials': [...materials, epoxy],
      'GET /line': { tickets: [waits(uuid(1), 4, 101)], pours: [], runs: [run] },
      [`GET /runs/glue/${run.id}`]: run,
      [`GET /tickets/${uuid(1)}`]: waits(uuid(1), 4, 101),
    });
    renderAt(<GluePage />, `/finish/glue/${run.id}`, '/finish/glue/:id');
    expect((await screen.findByRole('timer')).textContent).toMatch(says);
    expect(screen.getByText('Left in this mix').nextSibling!.textContent).toBe('4');
  });

  test('of a head that comes apart its guard is still in the hand, and in it again when that was a slip', async () => {
    const guard = { partId: uuid(51), name: 'Wire guard', kind: 'wire guard', quantity: 1, waste: 0, step: 'guard' };
    const one = waits(uuid(1), 4, 101);
    const own = { ...one, planned: { ...one.planned, bill: [...one.planned.bill, guard] } } as Ticket;
    const run = { ...begun(240), id: uuid(75) };
    const api = fakeApi({
      'GET /materials': [...materials, epoxy],
      'GET /line': { tickets: [own], pours: [], runs: [run] },
      [`GET /runs/glue/${run.id}`]: run,
    });
    renderAt(<GluePage />, `/finish/glue/${run.id}`, '/finish/glue/:id');
    await screen.findByText('Left in this mix');
    expect(screen.queryByRole('button', { name: /still in the hand/ })).toBeNull();
    await userEvent.keyboard('1');
    await userEvent.click(await screen.findByRole('button', { name: 'H Wire guard still in the hand' }));
    const said = () => api.writes().map(({ body }) => body as Record<string, unknown>);
    await waitFor(() => expect(said()).toHaveLength(3));
    expect(said()[1]).toMatchObject({ kind: 'undo', target: said()[0]!['id'] });
    expect(said()[2]).toMatchObject({ kind: 'reject', ticketId: uuid(1), step: 'guard', spared: [guard.partId] });
    await userEvent.keyboard('h');
    await waitFor(() => expect(said()).toHaveLength(5));
    expect(said()[4]).not.toHaveProperty('spared');
  });
});

describe('products to start from', () => {
  test('one is taken by its own name, in a paint and a bake of the house; a refusal is heard', async () => {
    const api = fakeApi({ 'POST /products/from-template': { ...products[0], name: 'Mine' } });
    const { router } = renderAt(<TemplatesPage />, '/products/templates');
    await userEvent.click(await screen.findByRole('button', { name: /^This one: Plain/ }));
    const name = screen.getByLabelText('Its name');
    await userEvent.clear(name);
    await userEvent.type(name, '  Mine ');
    await userEvent.click(screen.getByRole('button', { name: 'Take it' }));
    await waitFor(() => expect(router.state.location.pathname).toBe('/products'));
    expect(api.writes()).toEqual([
      {
        ...{ method: 'POST', path: '/products/from-template' },
        body: { template: 'plain', name: 'Mine', recipeId: ids.recipe, bakeProgramId: ids.program },
      },
    ]);
  });
  test('only one is open at a time; what is not painted asks for no paint', async () => {
    fakeApi();
    renderAt(<TemplatesPage />, '/products/templates');
    await userEvent.click(await screen.findByRole('button', { name: /^This one: Plain/ }));
    const [, second] = screen.getAllByRole('button', { name: /^This one:/ });
    await userEvent.click(second!);
    expect(screen.getAllByLabelText('Its name')).toHaveLength(1);
    const bare = screen
      .getAllByRole('button', { name: /^This one:/ })
      .find((each) => /bare/i.test(each.ariaLabel ?? each.getAttribute('aria-label')!));
    await userEvent.click(bare!);
    expect(screen.queryByLabelText('Paint')).toBeNull();
  });
});
