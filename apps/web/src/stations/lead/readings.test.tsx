import { cleanup, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { channels } from '../../test/fixtures.ts';
import { fakeApi, prepareBrowser, refuse, renderAt } from '../../test/render.tsx';
import { ImportLog } from '../../lists/ImportLog.tsx';
import { ReadingsPage } from './ReadingsPage.tsx';

beforeEach(prepareBrowser);
afterEach(cleanup);

const LOG = 'time,pot_c,hall,note\n2026-03-06 18:00:00,21.5,70,on\n2026-03-06 18:00:10,22.5,70,\n';
/** What a browser reads out of a file jsdom cannot. */
const file = (text = LOG, name = 'evening.csv') =>
  Object.assign(new File([text], name, { type: 'text/csv' }), { text: async () => text });
const took = { rows: 2, empty: 0, gaps: [] };
async function open(answer: unknown = took, picked = file()) {
  const saved: true[] = [];
  const api = fakeApi({ 'POST /readings/import': answer });
  renderAt(<ImportLog onSaved={() => saved.push(true)} />, '/readings');
  await userEvent.upload(await screen.findByLabelText('File'), picked);
  return { api, saved };
}
const take = () => userEvent.click(screen.getByRole('button', { name: 'Take it in' }));
const queryOf = (api: ReturnType<typeof fakeApi>, nth = -1) =>
  new URLSearchParams(api.writes().at(nth)!.path.split('?')[1]);
const mappingOf = (api: ReturnType<typeof fakeApi>) =>
  JSON.parse(queryOf(api).get('mapping')!) as {
    timeColumn: string;
    columns: { column: string; place: string; unit: string }[];
  };

describe('a log of another logger', () => {
  test('shows each column with its first value, and what it takes it for', async () => {
    await open();
    const rows = within(await screen.findByRole('table'))
      .getAllByRole<HTMLTableRowElement>('row')
      .slice(1);
    expect(rows.map(({ cells }) => [cells[0]!.textContent, cells[1]!.textContent])).toEqual([
      ['pot_c', '21.5'],
      ['hall', '70'],
      ['note', 'on'],
    ]);
    expect(screen.getByLabelText<HTMLSelectElement>('Time is in').value).toBe('time');
    expect(screen.getByLabelText<HTMLSelectElement>('pot_c is').value).toBe('pot');
    expect(screen.getByLabelText<HTMLInputElement>('Its name here').value).toBe('evening.csv');
  });

  test('goes whole, with what each column means; one that is no probe stays out', async () => {
    const { api, saved } = await open();
    await screen.findByRole('table');
    await userEvent.selectOptions(screen.getByLabelText('hall is'), 'oven');
    await userEvent.selectOptions(screen.getByLabelText('hall is in'), 'F');
    await userEvent.selectOptions(screen.getByLabelText('pot_c is'), 'no probe');
    await take();
    await waitFor(() => expect(saved).toHaveLength(1));
    expect(mappingOf(api).columns).toEqual([{ column: 'hall', place: 'oven', unit: 'F' }]);
    expect(mappingOf(api).timeColumn).toBe('time');
    expect(queryOf(api).has('again')).toBe(false);
    expect(api.writes()[0]!.body).toBe(LOG);
  });

  test('figures that no oven reaches in °C are asked about, and nothing goes before it is said', async () => {
    const { api, saved } = await open(took, file('time,oven\n18:00:00,68\n18:30:00,351.5\n'));
    const asked = await screen.findByRole('note');
    expect(asked.textContent).toContain('oven reaches 351.5: no oven is as hot as that in °C. Is it in °F?');
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Take it in' }).disabled).toBe(true);
    await userEvent.click(screen.getByRole('button', { name: 'In °F' }));
    expect(screen.queryByRole('note')).toBeNull();
    await take();
    await waitFor(() => expect(saved).toHaveLength(1));
    expect(mappingOf(api).columns).toEqual([{ column: 'oven', place: 'oven', unit: 'F' }]);
  });

  test('a kiln that is as hot as that stays in °C', async () => {
    const { api } = await open(took, file('time,oven\n18:00:00,68\n18:30:00,351.5\n'));
    await userEvent.click(await screen.findByRole('button', { name: 'In °C all the same' }));
    await take();
    await waitFor(() => expect(api.writes()).toHaveLength(1));
    expect(mappingOf(api).columns).toEqual([{ column: 'oven', place: 'oven', unit: 'C' }]);
  });

  test('a unit can be said only of what is a probe', async () => {
    await open();
    await screen.findByRole('table');
    await userEvent.selectOptions(screen.getByLabelText('hall is'), 'no probe');
    expect(screen.getByLabelText<HTMLSelectElement>('hall is in').disabled).toBe(true);
    await userEvent.selectOptions(screen.getByLabelText('hall is'), 'oven');
    expect(screen.getByLabelText<HTMLSelectElement>('hall is in').disabled).toBe(false);
  });

  test('without a probe in it nothing is sent, and it is said', async () => {
    const { api } = await open();
    await screen.findByRole('table');
    for (const column of ['pot_c', 'hall', 'note'])
      await userEvent.selectOptions(screen.getByLabelText(`${column} is`), 'no probe');
    await take();
    expect(await screen.findByRole('alert')).toBeTruthy();
    expect(api.writes()).toEqual([]);
  });

  test('a file without a heading is refused by its name, and one after it is read', async () => {
    await open(took, file('nothing here', 'notes.csv'));
    expect((await screen.findByRole('alert')).textContent).toContain(
      'notes.csv has no heading line with two columns or more.',
    );
    expect(screen.queryByRole('button', { name: 'Take it in' })).toBeNull();
    await userEvent.upload(screen.getByLabelText('File'), file());
    await screen.findByRole('table');
    expect(screen.queryByRole('alert')).toBeNull();
  });

  test('one that was taken before is taken once more only when that is said', async () => {
    const before = refuse(409, { title: 'Taken already', detail: 'This file was taken in on 6 March.' });
    const answers: unknown[] = [before, took];
    const { api, saved } = await open(() => answers.shift());
    await screen.findByRole('table');
    await take();
    await userEvent.click(await screen.findByRole('button', { name: 'Take it once more' }));
    await waitFor(() => expect(saved).toHaveLength(1));
    expect(queryOf(api, 0).has('again')).toBe(false);
    expect(queryOf(api, 1).get('again')).toBe('true');
  });

  test('another refusal offers nothing of the kind', async () => {
    await open(refuse(422, { title: 'Not readable', detail: 'Row 7 has no time.' }));
    await screen.findByRole('table');
    await take();
    expect(await screen.findByText(/Row 7 has no time/)).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Take it once more' })).toBeNull();
  });
});

describe('what the probes say', () => {
  const log = { id: 9, kind: 'log', name: 'evening log', at: Date.UTC(2026, 2, 6), struck: false };
  const page = async (more: Record<string, unknown> = {}) => {
    const points = [0, 1, 2].map((at) => ({ at: 600_000 * at, meanC: 300 + at, lowC: 299, highC: 304 }));
    const api = fakeApi({
      'GET /imports': [log],
      'GET /channels/1/readings': { points },
      'GET /channels/2/readings': { points },
      ...more,
    });
    renderAt(<ReadingsPage />, '/readings');
    return api;
  };
  test('what was taken in is shown by its name, with how much of it there is', async () => {
    await page();
    expect(await screen.findByRole('heading', { name: /evening log, pot/ })).toBeTruthy();
    expect(screen.getByText(/900 readings since 1 Jan/)).toBeTruthy();
    expect(screen.getByText('probe on record, none live now')).toBeTruthy();
  });

  test('of two sources the newer is shown first, the other when it is asked for', async () => {
    const other = { ...channels[0]!, id: 2, name: 'oven', place: 'oven', source: 'autumn', lastAt: 9_000_000 };
    await page({ 'GET /channels': [channels[0], other] });
    expect(await screen.findByRole('heading', { name: /autumn, oven/ })).toBeTruthy();
    expect(screen.queryByRole('heading', { name: /evening log, pot/ })).toBeNull();
    expect(screen.getByText('probes on record, none live now')).toBeTruthy();
  });

  test('a workshop without any is told so, and offered to take one in', async () => {
    await page({ 'GET /channels': [], 'GET /imports': [] });
    expect(await screen.findByText('probes on record, none live now')).toBeTruthy();
    expect(screen.getAllByRole('button').length).toBeGreaterThan(0);
  });
});
