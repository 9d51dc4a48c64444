import type { Mold, Pour } from '@schmelz/contract';
import type { PourEntry } from '@schmelz/core';
import { cleanup, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { ids, molds, pour } from '../../test/fixtures.ts';
import { fakeApi, prepareBrowser, renderAt } from '../../test/render.tsx';
import { PourBenchPage } from './PourBench.tsx';

// What is seldom said at the pot, and two molds in turn.
beforeEach(prepareBrowser);
afterEach(cleanup);

const uuid = (n: number) => `80000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const ago = (seconds: number) => Date.now() - seconds * 1000;
const charged = { id: uuid(1), at: ago(4000), kind: 'charge', massKg: 1.2, potC: 20 } as const;
const second: Mold = {
  ...molds[0]!,
  id: uuid(20),
  name: 'Twin',
  cavities: molds[0]!.cavities.map((each) => ({ ...each, id: uuid(200 + each.position) })),
};
const blank = (n: number, moldId: string, seconds: number) =>
  ({ id: uuid(n), at: ago(seconds), kind: 'blank', moldId }) satisfies PourEntry;
const shot = (n: number, moldId: string, seconds: number) =>
  ({ id: uuid(n), at: ago(seconds), kind: 'shot', moldId, positions: [1, 2] }) satisfies PourEntry;

let pours = 0;
function open(log: Pour['log'], two = false) {
  const id = uuid(900 + (pours += 1));
  const one = pour();
  const setup = two
    ? {
        ...one.setup,
        molds: [one.setup.molds[0]!, { ...one.setup.molds[0]!, moldId: second.id }],
        loads: [
          ...one.setup.loads,
          ...one.setup.loads.map((load) => ({
            ...{ ...load, moldId: second.id, cavityId: uuid(200 + load.position), ticketIds: [uuid(30)] },
          })),
        ],
        needs: { [ids.ticket]: 12, [uuid(30)]: 12 },
        atOnce: 2,
      }
    : one.setup;
  const api = fakeApi({ [`GET /pours/${id}`]: pour({ id, log, setup }), 'GET /molds': [molds[0], second] });
  renderAt(<PourBenchPage />, `/pour/${id}`, '/pour/:id');
  return { sent: () => api.writes().map(({ body }) => body as Record<string, unknown>) };
}
const warm = [charged, blank(2, ids.mold, 3000), blank(3, ids.mold, 2900)];

describe('what is tried against shorts', () => {
  test.each([
    ['Pressed against the spout', { kind: 'done', what: 'injected' }],
    ['Mold tipped, first cavity low', { kind: 'done', what: 'first cavity low' }],
    ['Spout reamed', { kind: 'done', what: 'spout reamed' }],
    ['Metal hotter', { kind: 'done', what: 'metal hotter' }],
    ['Hooks warmed in the mold', { kind: 'done', what: 'hooks warmed' }],
    ['Mold smoked', { kind: 'smoked', moldId: ids.mold }],
  ])('is said by a key and its name: %s', async (name, entry) => {
    const { sent } = open([...warm, shot(10, ids.mold, 200)]);
    await screen.findByText('Shots to go');
    await userEvent.keyboard('-');
    const sheet = within(await screen.findByRole('dialog'));
    await userEvent.click(sheet.getByRole('button', { name }));
    await waitFor(() => expect(sent()).toHaveLength(1));
    expect(sent()[0]).toMatchObject(entry);
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
  });
  test('is no key before anything was shot', async () => {
    const { sent } = open(warm);
    await screen.findByText('Shots to go');
    await userEvent.keyboard('-');
    expect(screen.queryByRole('dialog')).toBeNull();
    expect(sent()).toEqual([]);
  });
});

describe('hooks that are left', () => {
  test('are counted, or none; no number is not said', async () => {
    const { sent } = open([...warm, shot(10, ids.mold, 200)]);
    await screen.findByText('Shots to go');
    await userEvent.keyboard('u');
    const sheet = within(await screen.findByRole('dialog'));
    // Fourteen laid out, two of them cast in.
    expect(sheet.getByText('reckoned: 12')).toBeTruthy();
    const say = sheet.getByRole('button', { name: 'So many' });
    for (const wrong of ['', 'few', '2.5', '-1']) {
      await userEvent.clear(sheet.getByLabelText('Counted'));
      if (wrong) await userEvent.type(sheet.getByLabelText('Counted'), wrong);
      expect([wrong, (say as HTMLButtonElement).disabled]).toEqual([wrong, true]);
    }
    await userEvent.clear(sheet.getByLabelText('Counted'));
    await userEvent.type(sheet.getByLabelText('Counted'), '9');
    await userEvent.click(say);
    await waitFor(() => expect(sent()).toMatchObject([{ kind: 'hooks', materialId: ids.hook, left: 9 }]));
  });
});

describe('two molds', () => {
  const both = [...warm, blank(4, second.id, 2800), blank(5, second.id, 2700)];

  test('the other one stands beside with what it does, and its last shot can be looked at', async () => {
    const { sent } = open([...both, shot(10, ids.mold, 300), shot(11, second.id, 60)], true);
    await screen.findByRole('heading', { name: /^Three ?is next/ });
    const other = screen.getByRole('group', { name: 'The other mold, Twin' });
    expect(other.textContent).toMatch(/open, waits for its turn/);
    await userEvent.keyboard('.');
    await screen.findByRole('heading', { name: /^Twin ?its last shot/ });
    // A digit means the heads that are shown.
    await userEvent.keyboard('1');
    await waitFor(() => expect(sent()).toMatchObject([{ kind: 'reject', shotId: uuid(11), position: 1 }]));
  });

  test('is put off the pot and back; the one that stays is next', async () => {
    const { sent } = open([...both, shot(10, ids.mold, 300), shot(11, second.id, 200)], true);
    await screen.findByRole('heading', { name: /is next/ });
    await userEvent.keyboard('c');
    const sheet = within(await screen.findByRole('dialog'));
    expect(sheet.getByText('Twin').closest('li')!.textContent).toMatch(/1 shots?, \d+ to go/);
    await userEvent.click(within(sheet.getByText('Twin').closest('li')!).getByRole('button', { name: 'Off the pot' }));
    await waitFor(() => expect(sent()).toHaveLength(1));
    expect(sent()[0]).toMatchObject({ moldId: second.id });
    await screen.findByText(/the only one that still wants heads/);
    await userEvent.keyboard('z');
    await waitFor(() => expect(sent()).toHaveLength(2));
    expect(sent()[1]).toMatchObject({ kind: 'undo', target: sent()[0]!['id'] });
  });

  test('T takes the other one first, for one shot', async () => {
    const { sent } = open([...both, shot(10, ids.mold, 300), shot(11, second.id, 200)], true);
    await screen.findByRole('heading', { name: /^Three ?is next/ });
    await userEvent.keyboard('t');
    await screen.findByRole('heading', { name: /^Twin ?is next: because you said so/ });
    await userEvent.keyboard(' ');
    await waitFor(() => expect(sent()).toMatchObject([{ kind: 'shot', moldId: second.id }]));
    await screen.findByRole('heading', { name: /^Three ?is next/ });
  });
});
