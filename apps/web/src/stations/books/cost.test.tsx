import type { CostOfProduct } from '@schmelz/contract';
import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { ids, products, settings } from '../../test/fixtures.ts';
import { fakeApi, prepareBrowser, reads, renderAt } from '../../test/render.tsx';
import { BreakEven } from './BreakEven.tsx';
import { PricePart } from './PricePart.tsx';

// The solver is a worker of the page: here it answers at once.
const least = jest.fn();
jest.mock('../buy/useShopping.ts', () => ({ useBuyer: () => () => ({ least }) }));
beforeEach(() => {
  prepareBrowser();
  least.mockReset();
});

const product = { ...products.find(({ id }) => id === ids.product)!, priceMinor: 200 };
const input = {} as CostOfProduct['input'];
const tool = (name: string, priceMinor: number) => {
  return { id: name, version: 1, name, priceMinor, boughtOn: '2026-01-05', lifeHeads: null, productIds: [], note: '' };
};

test('what to ask a shop, what it stands there for, and from how many on the margin is kept', async () => {
  fakeApi();
  least.mockResolvedValue(17);
  renderAt(<PricePart {...{ product, input, settings }} costMinor={60} rules={[]} />);
  // 0.60 of cost and half to keep: 1.20; a shop that keeps 40 % asks 2.00.
  expect(await screen.findByText(reads(/ask the shop €1\.20, and it stands there at €2\.00/))).toBeTruthy();
  expect(await screen.findByText(reads(/From 17 at once on, 50 % of €2\.00 are kept\./))).toBeTruthy();
  expect(least).toHaveBeenCalledWith(input, { priceMinor: 200, lines: [], margin: 0.5 });
  await userEvent.clear(screen.getByLabelText(/A shop keeps/));
  await userEvent.type(screen.getByLabelText(/A shop keeps/), '25');
  expect(screen.getByText(reads(/it stands there at €1\.60/))).toBeTruthy();
  least.mockResolvedValue(null);
  await userEvent.clear(screen.getByLabelText(/To keep of it/));
  await userEvent.type(screen.getByLabelText(/To keep of it/), '80');
  expect(await screen.findByText(reads(/No order leaves 80 % of €2\.00/))).toBeTruthy();
});

test('the month in which the tools are paid, by what was really made, of all that they serve', async () => {
  fakeApi();
  const other = products.find(({ id }) => id !== product.id)!;
  const month = (productId: string, at: string, heads: number, costMinor: number) => ({
    ...{ productId, month: at, heads, costMinor },
  });
  // 100 heads of 2.00 that cost 60.00 leave 140.00 in January; another product adds its own in February.
  const served = [month(product.id, '2026-01', 100, 6000), month(other.id, '2026-02', 50, 1000)];
  const all = products.map((each) => (each.id === other.id ? { ...each, priceMinor: 100 } : each));
  const tools = [tool('Mold', 12_000), tool('Pot', 5000)];
  const { unmount } = renderAt(<BreakEven {...{ product, tools, served }} products={all} costMinor={60} />);
  expect(await screen.findByText(reads(/they have been paid since February 2026\./))).toBeTruthy();
  expect(screen.getByText(/Another product that they serve counts with what they are sold at/)).toBeTruthy();
  unmount();
  const none = renderAt(<BreakEven {...{ product, tools }} served={[]} products={all} costMinor={60} />);
  expect(await none.findByText(reads(/By what was really made they are not paid/))).toBeTruthy();
});
