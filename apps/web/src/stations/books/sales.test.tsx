import { screen, within } from '@testing-library/react';
import type { Sale } from '@schmelz/core';
import { ids, products } from '../../test/fixtures.ts';
import { fakeApi, prepareBrowser, renderAt } from '../../test/render.tsx';
import { salesCsv, SalesPage } from './SalesPage.tsx';

beforeEach(prepareBrowser);

const SALES: Sale[] = [
  {
    productId: ids.product,
    party: 'Stall',
    heads: 6,
    minor: 900,
    costMinor: 200,
    workMinor: 100,
    givenHeads: 0,
    notTimedHeads: 4,
  },
  { productId: ids.product, party: '=1+1', heads: 4, minor: 500, costMinor: 150, workMinor: 50, givenHeads: 1 },
];

test('by product and by customer, with what was left', async () => {
  fakeApi({ 'GET /books/sales': SALES });
  renderAt(<SalesPage />);
  expect(await screen.findByText('€14.00', { selector: '.fig *, .fig' })).toBeTruthy();
  const product = within(screen.getByRole('region', { name: 'By product' }));
  expect(product.getByRole('row', { name: new RegExp(products[0]!.name) }).textContent).toMatch(
    /10.*1 given.*€14\.00.*€3\.50.*€1\.50.*4 not timed: by your ways.*€9\.00/,
  );
  const [, first, second] = within(screen.getByRole('region', { name: 'By customer' })).getAllByRole('row');
  expect(first!.textContent).toMatch(/^Stall6/);
  expect(second!.textContent).toMatch(/^=1\+14/);
});

test('as a table no cell of which a spreadsheet runs', () => {
  const [head, first, second] = salesCsv(SALES, () => 'Ball', 2).split('\r\n');
  expect(head).toBe('product,customer,sold,given,cameIn,parts,work,left,headsNotTimed');
  expect(first).toBe('Ball,Stall,6,0,9.00,2.00,1.00,6.00,4');
  expect(second).toMatch(/^Ball,"?'=1\+1"?,4,1,5\.00,1\.50,0\.50,3\.00,0$/);
});

test('nothing sold is said', async () => {
  fakeApi({ 'GET /books/sales': [] });
  renderAt(<SalesPage />);
  expect(await screen.findByText(/^Nothing was sold or given/)).toBeTruthy();
});
