import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { fakeApi, prepareBrowser, renderAt } from '../../test/render.tsx';
import { ImportForm } from './ImportForm.tsx';

beforeEach(prepareBrowser);

const purchase = (line: number, material: string) => ({
  ...{ line, material, kind: 'lead', quantity: 12.5, priceMinor: 3120, on: '2026-03-14', lot: '' },
});
const looked = (rows: number) => ({
  ...{
    id: null,
    rows,
    takenAt: null,
    purchases: Array.from({ length: rows }, (_, at) => purchase(at + 2, 'Keel lead')),
  },
});
const fileOf = (text: string) => {
  const file = new File([text], 'year.csv', { type: 'text/csv' });
  // A file of jsdom cannot be read as text.
  return Object.assign(file, { text: () => Promise.resolve(text) });
};
const choose = async (text: string) => {
  await waitFor(() => expect(screen.getByLabelText('CSV file')).toBeTruthy());
  await userEvent.upload(screen.getByLabelText('CSV file'), fileOf(text));
};

test('a list that is understood is looked at at once, in names and units of the workshop', async () => {
  const api = fakeApi({ 'POST /materials/import': looked(1), 'GET /imports': [] });
  renderAt(<ImportForm />);
  await choose('Date,Item,Weight (lb),Paid\n14.3.2026,keel lead,5,31.20\n');
  await screen.findByRole('button', { name: 'Take this purchase' });
  expect(screen.queryByLabelText('The day is in')).toBeNull();
  expect(api.writes()[0]).toMatchObject({
    path: '/materials/import?look=true',
    body: 'material,quantity,price,on,lot\r\nKeel lead,2.26796185,31.2,2026-03-14,',
  });
});

test('what is not understood is asked: a column, how days are written, and names that Stock does not know', async () => {
  const api = fakeApi({ 'POST /materials/import': looked(1), 'GET /imports': [] });
  renderAt(<ImportForm />);
  await choose('Tag,Ware,Menge,Euro\n3/4/2026,old keel,10,20\n3/5/2026,coffee,1,4\n');
  await userEvent.selectOptions(await screen.findByLabelText('What was bought is in'), 'Ware');
  await userEvent.selectOptions(screen.getByLabelText('How much is in'), 'Menge');
  await userEvent.selectOptions(screen.getByLabelText('What was paid is in'), 'Euro');
  const see = screen.getByRole('button', { name: 'See what would come in' });
  expect((see as HTMLButtonElement).disabled).toBe(true);
  await userEvent.selectOptions(screen.getByLabelText('The day is in'), 'Tag');
  expect(screen.getByText('The first: 3/4/2026')).toBeTruthy();
  await userEvent.selectOptions(screen.getByLabelText('Days are written'), 'day.month.year');
  await userEvent.selectOptions(screen.getByLabelText('What was paid is'), 'for each');
  // Nothing is known of it by name: nothing would come in.
  expect((see as HTMLButtonElement).disabled).toBe(true);
  await userEvent.selectOptions(screen.getByLabelText('old keel is'), 'Keel lead');
  await userEvent.click(see);
  expect(await screen.findByText('1 row is left out.')).toBeTruthy();
  expect(api.writes()[0]!.body).toBe('material,quantity,price,on,lot\r\nKeel lead,10,200,2026-04-03,');
  await userEvent.click(screen.getByRole('button', { name: 'Take this purchase' }));
  await waitFor(() => expect(api.writes().at(-1)!.path).toBe('/materials/import'));
  expect(within(document.body).queryByLabelText('What was bought is in')).toBeNull();
});

test('a file without rows says so', async () => {
  fakeApi({ 'GET /imports': [] });
  renderAt(<ImportForm />);
  await choose('just one line');
  expect((await screen.findByRole('alert')).textContent).toMatch(/year.csv has no line of headings with rows below it/);
});
