import type { Ticket } from '@schmelz/contract';
import { cleanup, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { ticket } from '../test/fixtures.ts';
import { BENCHES } from '../test/benches.ts';
import { fakeApi, prepareBrowser, renderAt } from '../test/render.tsx';
import { CountBenchPage } from './CountBench.tsx';

// Every key of every bench that counts, by what the page says that it does and by what is sent.
beforeEach(prepareBrowser);
afterEach(cleanup);

const uuid = (n: number) => `50000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const ago = (seconds: number) => Date.now() - seconds * 1000;
let made = 0;
const through = (step: string, count = 12) => ({
  ...{ id: uuid((made += 1)), at: ago(900 - made), kind: 'good' as const, step, count },
});
/** What was done before, so that all twelve heads wait at a station. */
const BEFORE: Record<string, string[]> = {
  trim: [],
  paint: ['trim'],
  finish: ['trim', 'paint', 'bake'],
};
/** The causes of a station as the trade names them, in the order of their digits. */
const CAUSES: Record<string, string[]> = {
  trim: ['divot', 'void', 'loose hook', 'bent hook', 'flash', 'other'],
  paint: ['runs', 'bubbles', 'thin', 'dull', 'eye closed', 'hole filled', 'colour bled', 'other'],
  finish: ['chipped', 'eye closed', 'loose hook', 'rusty hook', 'comes apart', 'crooked', 'other'],
};
const GOES: [string, string][] = [
  ['l', 'melt'],
  ['h', 'hook lost'],
  ['r', 'back to step'],
  ['k', 'second grade'],
  ['x', 'scrap'],
];

async function bench(station: string, more: Partial<Ticket> = {}) {
  const id = uuid(9000 + (made += 1));
  const log = BEFORE[station]!.map((step) => through(step)) as Ticket['log'];
  const api = fakeApi({ [`GET /tickets/${id}`]: ticket({ id, log, ...more }) });
  renderAt(<CountBenchPage station={station} Bench={BENCHES[station]} />, `/${station}/${id}`, `/${station}/:id`);
  await screen.findByText(`Left to ${station}`);
  await waitFor(() => expect(left(station)).toBe('12'));
  return { sent: () => api.writes().map(({ body }) => body as Record<string, unknown>) };
}
const left = (station: string) => screen.getByText(`Left to ${station}`).nextSibling!.textContent;

describe.each(Object.keys(CAUSES))('at %s', (station) => {
  test.each(CAUSES[station]!.map((cause, nth) => [String(nth + 1), cause]))(
    '%s is one head that is bad: %s',
    async (key, cause) => {
      const { sent } = await bench(station);
      const bar = within(screen.getByRole('group', { name: 'What happened' }));
      expect(bar.getByRole('button', { name: new RegExp(`^${key} ${cause}$`) })).toBeTruthy();
      await userEvent.keyboard(key);
      await waitFor(() => expect(sent()).toHaveLength(1));
      expect(sent()[0]).toMatchObject({ kind: 'reject', step: station, cause, count: 1 });
      // It is said what becomes of it, and that is the usual.
      const becomes = screen.getByRole('region', { name: 'What becomes of it' });
      expect(becomes.textContent).toContain(`${cause}, so it is`);
      expect(becomes.textContent).toContain('(as usual)');
      const again = sent()[0]!['goes'] === 'back to step';
      await waitFor(() => expect(left(station)).toBe(again ? '12' : '11'));
    },
  );

  test.each(GOES)('%s says that what was thrown back last goes this way: %s', async (key, goes) => {
    const { sent } = await bench(station);
    // Before anything was thrown back it says nothing.
    await userEvent.keyboard(key);
    await userEvent.keyboard('6');
    await waitFor(() => expect(sent().length).toBeGreaterThan(0));
    expect(sent()).toHaveLength(1);
    const usual = sent()[0]!['goes'];
    await userEvent.keyboard(key);
    await waitFor(() => expect(sent().at(-1)).toMatchObject({ kind: 'reject' }));
    if (usual !== goes) {
      await waitFor(() => expect(sent().map(({ kind }) => kind)).toEqual(['reject', 'undo', 'reject']));
      expect(sent()[1]!['target']).toBe(sent()[0]!['id']);
      expect(sent()[2]).toMatchObject({ cause: sent()[0]!['cause'], count: 1, goes });
    }
    // A good head after it: what became of that one is settled.
    await userEvent.keyboard(' ');
    await waitFor(() => expect(sent().at(-1)).toMatchObject({ kind: 'good' }));
    const before = sent().length;
    await userEvent.keyboard(key);
    await userEvent.keyboard('p');
    await waitFor(() => expect(sent().at(-1)).toMatchObject({ kind: 'pause' }));
    expect(sent()).toHaveLength(before + 1);
  });

  test('P rests: no key counts, each says why; P again goes on where it was', async () => {
    const { sent } = await bench(station);
    await userEvent.keyboard('p');
    await waitFor(() => expect(sent()).toHaveLength(1));
    await userEvent.keyboard(' 1g');
    expect((await screen.findAllByText('You are resting: P goes on')).length).toBeGreaterThan(0);
    expect(sent()).toHaveLength(1);
    await userEvent.keyboard('p');
    await userEvent.keyboard(' ');
    await waitFor(() => expect(sent().map(({ kind }) => kind)).toEqual(['pause', 'resume', 'good']));
  });

  test('Z takes back one after another, newest first, down to what was said here', async () => {
    const { sent } = await bench(station);
    await userEvent.keyboard(' ');
    await userEvent.keyboard('6');
    await userEvent.keyboard('g');
    await waitFor(() => expect(sent()).toHaveLength(3));
    const [first, second, third] = sent().map(({ id }) => id);
    await userEvent.keyboard('zzz');
    await waitFor(() => expect(sent()).toHaveLength(6));
    expect(
      sent()
        .slice(3)
        .map(({ kind, target }) => [kind, target]),
    ).toEqual([
      ['undo', third],
      ['undo', second],
      ['undo', first],
    ]);
    await waitFor(() => expect(left(station)).toBe('12'));
    await userEvent.keyboard('z');
    expect(sent()).toHaveLength(6);
  });

  test('no more heads can be good than came', async () => {
    const { sent } = await bench(station);
    await userEvent.keyboard('g');
    await waitFor(() => expect(sent()).toHaveLength(1));
    expect(sent()[0]).toMatchObject({ kind: 'good', count: 12, step: station });
    await userEvent.keyboard(' g1');
    expect(sent()).toHaveLength(1);
    expect(screen.getByText('All seen here')).toBeTruthy();
  });
});

test('keys that are typed into a field are letters and count nothing', async () => {
  const { sent } = await bench('trim');
  await userEvent.keyboard('w');
  const field = await screen.findByRole('dialog').then((sheet) => within(sheet).getByRole('textbox'));
  await userEvent.type(field, '1 6gpz');
  expect((field as HTMLInputElement).value).toBe('1 6gpz');
  expect(sent()).toEqual([]);
});

describe('parts at the finish', () => {
  const guardId = uuid(8001);
  const glueId = uuid(8002);
  const { planned } = ticket({});
  const part = (partId: string, kind: string, quantity: number) => {
    return { partId, name: kind, kind, quantity, waste: 0.05, step: 'finish' };
  };
  const withParts = {
    planned: { ...planned, bill: [...planned.bill, part(guardId, 'guard', 1), part(glueId, 'glue', 0.1)] },
  };

  test('a piece that broke is said with one key, and what is measured has none', async () => {
    const { sent } = await bench('finish', withParts);
    await userEvent.click(screen.getByRole('button', { name: 'one broke' }));
    await waitFor(() => expect(sent()).toHaveLength(1));
    expect(sent()[0]).toMatchObject({ kind: 'spoiled', step: 'finish', partId: guardId, count: 1 });
    expect((await screen.findByText(', 1 broke')).parentElement!.textContent).toContain('guard');
  });

  test('of a head that came apart it is asked which parts are in the hand still', async () => {
    const { sent } = await bench('finish', withParts);
    expect(screen.queryByRole('button', { name: 'still in the hand' })).toBeNull();
    await userEvent.keyboard('5');
    const inHand = await screen.findByRole('button', { name: 'still in the hand' });
    expect(inHand.getAttribute('aria-pressed')).toBe('false');
    await userEvent.click(inHand);
    await waitFor(() => expect(sent()).toHaveLength(3));
    expect(sent()[1]).toMatchObject({ kind: 'undo', target: sent()[0]!['id'] });
    expect(sent()[2]).toMatchObject({ kind: 'reject', cause: 'comes apart', count: 1, spared: [guardId] });
    // Another way for it to go leaves that as it is.
    await userEvent.keyboard('x');
    await waitFor(() => expect(sent()).toHaveLength(5));
    expect(sent()[4]).toMatchObject({ kind: 'reject', goes: 'scrap', spared: [guardId] });
  });
});
