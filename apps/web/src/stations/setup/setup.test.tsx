import type { BackupView, LocalRule } from '@schmelz/contract';
import { cleanup, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { settings } from '../../test/fixtures.ts';
import { fakeApi, prepareBrowser, refuse, renderAt } from '../../test/render.tsx';
import { SetupPage } from './SetupPage.tsx';

beforeEach(prepareBrowser);
afterEach(cleanup);

const DAY_MS = 86_400_000;
const copy = (nth: number, more: Partial<BackupView> = {}): BackupView => ({
  ...{
    name: `copy ${nth}.sqlite`,
    why: 'daily',
    at: Date.now() - nth * DAY_MS - 60_000,
    bytes: 2_340_000,
    wrong: null,
  },
  ...more,
});
const rule: LocalRule = {
  ...{ id: 'rule 1', version: 3, where: 'Upper lake', noLead: false, fromKg: null, belowKg: 0.02835, note: 'by phone' },
};
async function open(more: Record<string, unknown> = {}) {
  const api = fakeApi({ 'GET /backups': [], ...more });
  renderAt(<SetupPage />, '/setup');
  await screen.findByText('Workshop and units');
  return api;
}
const field = (name: string | RegExp) => screen.getAllByRole<HTMLInputElement>('textbox', { name })[0]!;
const write = async (name: string | RegExp, text: string) => {
  await userEvent.clear(field(name));
  if (text) await userEvent.type(field(name), text);
};
const keep = () => userEvent.click(screen.getByRole('button', { name: 'Keep this' }));
const kept = (api: ReturnType<typeof fakeApi>) =>
  api.writes().find(({ path }) => path === '/settings')?.body as typeof settings;

describe('what is said of the house', () => {
  test('what was not touched is kept exactly, though it is shown rounded', async () => {
    // 700 F is 371.11 C: shown as 371, it must not become it.
    const ways = { ...settings.ways, pourC: 371.1111, heelKg: 0.453592, filmM: 6.35e-5 };
    const api = await open({ 'GET /settings': { ...settings, ways } });
    await write('Name', 'Shed by the water');
    await keep();
    await waitFor(() => expect(kept(api)).toBeDefined());
    expect(kept(api).workshopName).toBe('Shed by the water');
    expect(kept(api).ways).toMatchObject({ pourC: 371.1111, heelKg: 0.453592, filmM: 6.35e-5 });
  });

  test('heat and mass are read as they are written, in whatever unit, and seconds, shares and money too', async () => {
    const api = await open();
    await write('Pour at', '700 F');
    await write('Heel left in the pot', '1 lb');
    await write(/^Dross/, '2.5');
    await write(/^Powder film/, '80');
    await write(/^An hour of work/, '14,50');
    await write(/^A head of second grade/, '40');
    await write(/^Lay in a hook/, '11');
    await keep();
    await waitFor(() => expect(kept(api)).toBeDefined());
    const { ways, secondGradeShare } = kept(api);
    // (700 - 32) / 1.8, and the pound of the international agreement of 1959.
    expect(ways.pourC).toBeCloseTo(371.11, 1);
    expect(ways.heelKg).toBeCloseTo(0.45359237, 4);
    expect(ways.drossShare).toBeCloseTo(0.025, 10);
    expect(ways.filmM).toBeCloseTo(80e-6, 12);
    expect(ways.labourMinorPerHour).toBe(1450);
    expect(ways.loadS).toBe(11);
    expect(secondGradeShare).toBeCloseTo(0.4, 10);
  });

  test('seconds of trim and paint may be left to the ways of the house; others must be said', async () => {
    const api = await open();
    await write(/^Trim/, '');
    await keep();
    await waitFor(() => expect(kept(api)?.ways.trimS).toBeNull());
    await write(/^Take out and look/, '');
    const before = api.writes().length;
    await keep();
    expect((await screen.findByRole('alert')).textContent).toMatch(/Take out and look/);
    expect(api.writes()).toHaveLength(before);
  });

  test('names with commas, the safety list a line each; blank ones are nobody and nothing', async () => {
    const api = await open();
    await write(/^Who works here/, 'Ada, , Jon ,');
    await write(/^Your safety list/, 'Fan on{Enter}{Enter}  Gloves ');
    await keep();
    await waitFor(() => expect(kept(api)).toBeDefined());
    expect(kept(api)).toMatchObject({ people: ['Ada', 'Jon'], safety: ['Fan on', 'Gloves'] });
  });

  test('what makes no sense names the field and what is allowed, and nothing is sent', async () => {
    const api = await open();
    await write('Pour at', 'hot');
    await keep();
    expect((await screen.findByRole('alert')).textContent).toMatch(/hot/);
    await write('Pour at', '372 C');
    await write('Currency', 'dollars');
    await keep();
    await waitFor(() => expect(screen.getByRole('alert').textContent).toMatch(/[Cc]urrency/));
    expect(api.writes()).toEqual([]);
  });
});

describe('copies', () => {
  const section = async () => within((await screen.findByRole('heading', { name: 'Copies' })).closest('section')!);
  test('a workshop without one is told so, and makes one', async () => {
    const api = await open();
    expect(await screen.findByText(/There is no copy yet/)).toBeTruthy();
    await userEvent.click((await section()).getByRole('button', { name: 'Make a copy now' }));
    await waitFor(() => expect(api.writes().map(({ path }) => path)).toEqual(['/backups']));
  });

  test('the newest is the newest that is whole; one that is not cannot be put back', async () => {
    await open({ 'GET /backups': [copy(0, { wrong: 'is cut off' }), copy(3), copy(4)] });
    expect(await screen.findByText(/The newest is 3 days old/)).toBeTruthy();
    expect((await section()).getByText(/This copy is cut off: it cannot be put back/)).toBeTruthy();
    expect((await section()).getAllByRole('button', { name: 'Put back' })).toHaveLength(2);
  });

  test('putting one back is asked once more, by its name, and may be left', async () => {
    const api = await open({ 'GET /backups': [copy(1), copy(2)] });
    await userEvent.click((await (await section()).findAllByRole('button', { name: 'Put back' }))[1]!);
    expect((await section()).getByText('Everything since then goes; it is copied first.')).toBeTruthy();
    await userEvent.click((await section()).getByRole('button', { name: 'Leave it' }));
    expect(api.writes()).toEqual([]);
    await userEvent.click((await section()).getAllByRole('button', { name: 'Put back' })[1]!);
    await userEvent.click((await section()).getByRole('button', { name: 'Put it back' }));
    await waitFor(() => expect(api.writes()).toHaveLength(1));
    expect(api.writes()[0]).toMatchObject({ path: '/backups/restore', body: { name: 'copy 2.sqlite' } });
  });

  test('a refusal is said where it happened, and the copy can be asked for again', async () => {
    const no = refuse(409, { title: 'Not possible', detail: 'That copy is of a newer Schmelz.' });
    await open({ 'GET /backups': [copy(1)], 'POST /backups/restore': no });
    await userEvent.click(await (await section()).findByRole('button', { name: 'Put back' }));
    await userEvent.click((await section()).getByRole('button', { name: 'Put it back' }));
    expect(await (await section()).findByText(/of a newer Schmelz/)).toBeTruthy();
    expect((await section()).getByRole('button', { name: 'Put it back' })).toBeTruthy();
  });

  test('five are shown, the rest when they are asked for', async () => {
    await open({ 'GET /backups': [1, 2, 3, 4, 5, 6, 7].map((nth) => copy(nth)) });
    expect(await (await section()).findAllByRole('button', { name: 'Put back' })).toHaveLength(5);
    await userEvent.click((await section()).getByRole('button', { name: 'All 7' }));
    expect((await section()).getAllByRole('button', { name: 'Put back' })).toHaveLength(7);
    await userEvent.click((await section()).getByRole('button', { name: 'Only the newest' }));
    expect((await section()).getAllByRole('button', { name: 'Put back' })).toHaveLength(5);
  });

  test('each table is offered by its words', async () => {
    await open();
    await userEvent.selectOptions(
      await screen.findByLabelText('One table for a spreadsheet'),
      screen.getByRole('option', { name: 'order lines' }),
    );
    expect((await section()).getByRole('link', { name: 'As CSV' }).getAttribute('href')).toBe(
      '/api/export/tables/orderLines',
    );
  });

  test('a file is read first, what would change is said, and it is taken or left', async () => {
    const seen = {
      copy: copy(0, { name: 'taken in.sqlite', why: 'taken-in' }),
      tables: [
        { table: 'orders', now: 4, then: 9 },
        { table: 'stockMoves', now: 20, then: 31 },
        { table: 'somethingInner', now: 1, then: 2 },
      ],
    };
    const api = await open({ 'GET /backups': [], 'POST /backups/take-in': seen });
    // What a browser reads out of a file jsdom cannot.
    const file = () =>
      Object.assign(new File(['{"a":1}'], 'all.json', { type: 'application/json' }), { text: async () => '{"a":1}' });
    await userEvent.upload(await screen.findByLabelText(/A whole workshop out of a file/), file());
    const table = within(await screen.findByRole('table', { name: 'What would change' }));
    const rows = table.getAllByRole('row').map((row) => row.textContent);
    expect(rows).toEqual(['ofherein the file', 'orders49', 'movements of stock2031']);
    await userEvent.click((await section()).getByRole('button', { name: /Leave/ }));
    expect(screen.queryByRole('table', { name: 'What would change' })).toBeNull();
    expect(api.writes().map(({ path }) => path)).toEqual(['/backups/take-in']);
    await userEvent.upload(screen.getByLabelText(/A whole workshop out of a file/), file());
    await screen.findByRole('table', { name: 'What would change' });
    await userEvent.click((await section()).getByRole('button', { name: /Put|Take/ }));
    await waitFor(() => expect(api.writes().at(-1)).toMatchObject({ path: '/backups/restore' }));
    expect(api.writes().at(-1)!.body).toEqual({ name: 'taken in.sqlite' });
  });
});

describe('what is allowed where', () => {
  test('each rule in words, with where it is from', async () => {
    const more = [
      { ...rule, id: 'r2', where: 'The country', noLead: true, belowKg: null, note: '' },
      { ...rule, id: 'r3', where: 'A shop', belowKg: null, fromKg: 0.03, note: '' },
    ];
    await open({ 'GET /rules': [rule, ...more] });
    const list = (await screen.findByRole('button', { name: 'Upper lake' })).closest('ul')!;
    const says = within(list)
      .getAllByRole('listitem')
      .map((item) => item.textContent);
    expect(says).toEqual([
      expect.stringMatching(/^Upper lakeno lead lighter than 28(\.\d+)? gby phone$/),
      'The countryno lead',
      expect.stringMatching(/^A shopno lead of 30 g and more$/),
    ]);
  });

  test('one is added with its mass, another changed to lead of any kind, which has none', async () => {
    const api = await open({ 'GET /rules': [rule] });
    await userEvent.click(await screen.findByRole('button', { name: 'Another rule' }));
    const sheet = within(await screen.findByRole('dialog'));
    await userEvent.type(sheet.getByLabelText('Where'), 'Harbour');
    await userEvent.selectOptions(sheet.getByLabelText('Not allowed there'), 'from');
    await userEvent.type(sheet.getByLabelText(/^Mass/), '2 oz');
    await userEvent.click(sheet.getByRole('button', { name: 'Keep it' }));
    await waitFor(() => expect(api.writes()).toHaveLength(1));
    const made = api.writes()[0]!.body as LocalRule;
    expect(made).toMatchObject({ where: 'Harbour', noLead: false, belowKg: null });
    expect(made.fromKg).toBeCloseTo(0.0567, 4);
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
    await userEvent.click(screen.getByRole('button', { name: 'Upper lake' }));
    const again = within(await screen.findByRole('dialog'));
    expect(again.getByLabelText<HTMLInputElement>(/^Mass/).value).toBe('28.35 g');
    await userEvent.selectOptions(again.getByLabelText('Not allowed there'), 'none');
    expect(again.queryByLabelText(/^Mass/)).toBeNull();
    await userEvent.click(again.getByRole('button', { name: 'Keep it' }));
    await waitFor(() => expect(api.writes()).toHaveLength(2));
    expect(api.writes()[1]!.body).toMatchObject({ noLead: true, fromKg: null, belowKg: null, version: 3 });
  });
});

describe('a workshop that asks for its password', () => {
  test.each([
    [1, null],
    [2, 'End the other session'],
    [4, 'End the 3 other sessions'],
  ])('%d sessions', async (sessions, others) => {
    const api = await open({ 'GET /settings': { ...settings, passwordSet: true, sessions } });
    expect(screen.getByText(/asks for its password/)).toBeTruthy();
    if (others) {
      await userEvent.click(screen.getByRole('button', { name: others }));
      await waitFor(() => expect(api.writes().map(({ path }) => path)).toEqual(['/logout-others']));
    } else {
      expect(screen.queryByRole('button', { name: /^End/ })).toBeNull();
      await userEvent.click(screen.getByRole('button', { name: 'Log out' }));
      await waitFor(() => expect(api.writes().map(({ path }) => path)).toEqual(['/logout']));
    }
  });
});
