import type { Supplier } from '@schmelz/contract';
import type { Lacking, NeedTonight, Shopping } from '@schmelz/core';
import { expose } from 'comlink';
import { cleanup, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { ids, materials } from '../../test/fixtures.ts';
import { fakeApi, prepareBrowser, renderAt } from '../../test/render.tsx';
import { BuyPage } from './BuyPage.tsx';

// The worker of the browser as a message port of this process: its answers are made up here, and what it was asked is
// kept.
let needs: NeedTonight[] = [];
let shopping: Shopping;
const asked: { lacking: Lacking[]; offers: string[] }[] = [];
jest.mock('../../workers/start.ts', () => ({
  startBuyer: () => {
    const { port1, port2 } = new MessageChannel();
    const buyer = {
      needs: () => needs,
      buy: (lacking: Lacking[], offers: { id: string }[]) => {
        asked.push({ lacking, offers: offers.map(({ id }) => id) });
        return shopping;
      },
    };
    expose(buyer, port1 as never);
    return Object.assign(port2, { terminate: () => port2.close() });
  },
}));

const suppliers = [
  {
    ...{ id: 's1', version: 1, name: 'Harbour post', note: '', freightMinor: 490, freeAboveMinor: 5000, days: 4 },
    offers: [{ materialId: ids.hook, pack: 50, prices: [{ fromPacks: 1, minor: 800 }] }],
  },
  { id: 's2', version: 1, name: 'Mill', note: '', freightMinor: 0, freeAboveMinor: null, days: 9, offers: [] },
] as unknown as Supplier[];
const need = (materialId: string, count: number): NeedTonight => {
  const { name, kind, quantity: have } = materials.find(({ id }) => id === materialId)!;
  return { materialId, name, kind, need: count, have, missing: Math.max(0, count - have) };
};
const bought = (more: Partial<Shopping> = {}): Shopping => ({
  bought: [
    {
      ...{ offerId: 'Harbour post 0', supplier: 'Harbour post', materialId: ids.hook },
      ...{ packs: 2, quantity: 100, minor: 1600 },
    },
  ],
  freight: [{ supplier: 'Harbour post', goodsMinor: 1600, freightMinor: 490, days: 4 }],
  ...{ totalMinor: 2090, boundMinor: 2090, optimal: true, nobody: [], late: [] },
  ...more,
});

beforeEach(() => {
  prepareBrowser();
  needs = [need(ids.hook, 70)];
  shopping = bought({ nobody: [ids.orange] });
  asked.length = 0;
});
afterEach(cleanup);
const open = (more: Record<string, unknown> = {}) => {
  const api = fakeApi({ 'GET /suppliers': suppliers, 'GET /tonight': { wanted: [] }, ...more });
  renderAt(<BuyPage />);
  return api;
};

test('what is short stands first with how much, then what runs low; what is enough is on no list', async () => {
  open();
  await screen.findByText('30 pieces short').catch(() => screen.findByText(/30.* short/));
  const rows = screen.getAllByRole('img', { name: /for the open work/ }).map((bar) => bar.closest('li')!.textContent);
  expect(rows).toHaveLength(2);
  expect(rows[0]).toMatch(/^ ?Hook 2\/0 30 short/);
  expect(rows[1]).toMatch(/^ ?Roe orange.*runs low/);
  expect(document.body.textContent).not.toContain('Keel lead');
  expect(screen.getByText(/things run low, or lack/).parentElement!.textContent).toContain('2');
});

test('the slip of a supplier adds up: packs, freight, and when it is here; what nobody sells is named', async () => {
  open();
  const slip = within((await screen.findByText('Harbour post', { selector: 'b' })).closest('article')!);
  expect(slip.getByText('2 ×')).toBeTruthy();
  expect(slip.getByText(/^50.* in a pack$/)).toBeTruthy();
  expect([slip.getByText('€16.00'), slip.getByText('€4.90'), slip.getByText('€20.90')]).toHaveLength(3);
  expect(screen.getByText(/Nobody on record sells Roe orange/)).toBeTruthy();
  expect(screen.getByText(/buys them, all here in 4 days/).textContent).toContain('€20.90');
  expect(screen.getByText(/No other packs or suppliers cost less/)).toBeTruthy();
});

test('a list that is not proved to be the cheapest says by how much it may be dearer; no freight is none', async () => {
  shopping = bought({
    ...{ optimal: false, boundMinor: 1990, totalMinor: 1600 + 490 },
    freight: [{ supplier: 'Harbour post', goodsMinor: 1600, freightMinor: 0, days: 4 }],
  });
  open();
  expect(await screen.findByText(/At most €1.00 more than the least/)).toBeTruthy();
  expect(screen.getByText('no freight')).toBeTruthy();
});

test('what is asked for is what lacks, of what is sold; what is typed outranks it, and nonsense changes nothing', async () => {
  open();
  await screen.findByText('Harbour post', { selector: 'b' });
  const first = asked.at(-1)!;
  expect(first.offers).toEqual(['Harbour post 0']);
  const hooks = (all: Lacking[]) => all.find(({ materialId }) => materialId === ids.hook)!.quantity;
  // Thirty are short, and sixty are the least that lies here of hooks.
  expect(hooks(first.lacking)).toBe(90);
  const field = screen.getAllByRole('textbox')[0]!;
  await userEvent.clear(field);
  await userEvent.type(field, '200');
  await waitFor(() => expect(hooks(asked.at(-1)!.lacking)).toBe(200));
  await userEvent.clear(field);
  await userEvent.type(field, 'many');
  await waitFor(() => expect(hooks(asked.at(-1)!.lacking)).toBe(90));
});

test('the list is a file for a spreadsheet, named by its day', async () => {
  const files: string[] = [];
  URL.createObjectURL = () => 'blob:list';
  URL.revokeObjectURL = () => undefined;
  jest.spyOn(HTMLAnchorElement.prototype, 'click').mockImplementation(function (this: HTMLAnchorElement) {
    files.push(this.download);
  });
  open();
  await screen.findByText('Harbour post', { selector: 'b' });
  await userEvent.click(screen.getByRole('button', { name: 'The list as CSV' }));
  expect(files).toEqual([expect.stringMatching(/^schmelz-to-buy-\d{4}-\d\d-\d\d\.csv$/)]);
});

test('with enough of everything nothing is bought, and with nobody to sell it is asked who does', async () => {
  needs = [];
  shopping = bought({ bought: [], freight: [], totalMinor: 0, boundMinor: 0 });
  const plenty = materials.map((each) => ({ ...each, quantity: 500 }));
  open({ 'GET /materials': plenty, 'GET /suppliers': [] });
  await screen.findByText(/There is enough of everything/);
  expect(screen.getByText(/Say who sells to you/)).toBeTruthy();
  expect(screen.getByRole('button', { name: 'The list as CSV' })).toHaveProperty('disabled', true);
});
