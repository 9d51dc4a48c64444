import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { ids, materials } from '../../test/fixtures.ts';
import { fakeApi, prepareBrowser, renderAt } from '../../test/render.tsx';
import { ParcelPage } from './ParcelPage.tsx';

beforeEach(prepareBrowser);

const type = async (label: string | RegExp, text: string, nth = 0) => {
  const field = (await screen.findAllByLabelText(label))[nth]!;
  await userEvent.clear(field);
  await userEvent.type(field, text);
};

test('a parcel of two: what each costs with the way is seen before it is sent, and sent once as one thing', async () => {
  const api = fakeApi({ 'POST /parcels': { shares: [900, 300] } });
  renderAt(<ParcelPage />);
  await type('How much', '10 kg');
  await type(/^Paid for it/, '30');
  await userEvent.click(screen.getByRole('button', { name: 'Another line' }));
  await userEvent.selectOptions(screen.getAllByLabelText('Material')[1]!, materials[1]!.name);
  await type(/^How many/, '100');
  await type(/^Paid for it/, '10', 1);
  await type(/^Freight/, '12');
  // Three to one, by what they cost: 30 and 10.
  expect(await screen.findByText('€39.00')).toBeTruthy();
  expect(screen.getByText(/€3\.00 of it freight, €0\.130 each/)).toBeTruthy();
  expect(screen.getByText('€52.00')).toBeTruthy();
  await userEvent.click(screen.getByRole('button', { name: 'All of it is here' }));
  await waitFor(() => expect(api.writes()).toHaveLength(1));
  expect(api.writes()[0]).toMatchObject({
    path: '/parcels',
    body: {
      ...{ by: 'value', freightMinor: 1200 },
      lines: [
        { materialId: ids.lead, quantity: 10, priceMinor: 3000 },
        { materialId: materials[1]!.id, quantity: 100, priceMinor: 1000 },
      ],
    },
  });
});

test('what is half typed or wrong is named, and nothing is sent', async () => {
  const api = fakeApi();
  renderAt(<ParcelPage />);
  await type('How much', 'a heap');
  await type(/^Paid for it/, '30');
  await userEvent.click(screen.getByRole('button', { name: 'All of it is here' }));
  expect((await screen.findByRole('alert')).textContent).toMatch(/a heap/);
  expect(api.writes()).toEqual([]);
});
