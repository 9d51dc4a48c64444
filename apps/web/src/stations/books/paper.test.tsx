import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { molds } from '../../test/fixtures.ts';
import { fakeApi, prepareBrowser, reads, renderAt } from '../../test/render.tsx';
import { PaperPage } from './PaperPage.tsx';

beforeEach(prepareBrowser);

const evening = (line: number, more: object = {}) => ({
  ...{ line, on: '2025-03-14', name: 'five', mold: molds[0]!.name, product: null, good: 96, casts: 110 },
  ...{ minutes: 150, note: '', ...more },
});
const NOTHING = { evenings: [], more: false, total: { evenings: 0, good: 0 }, byName: [] };
const fileOf = (text: string) =>
  Object.assign(new File([text], 'log.csv', { type: 'text/csv' }), { text: () => Promise.resolve(text) });

test('a log from paper is read whatever its columns are called, asked where it is not understood, and taken', async () => {
  const api = fakeApi({
    'GET /evenings/paper': NOTHING,
    'GET /imports': [],
    'POST /evenings/import': { id: null, rows: 2, takenAt: null, evenings: [evening(2), evening(3, { casts: null })] },
  });
  renderAt(<PaperPage />);
  expect(await screen.findByRole('figure', { name: 'What a log may look like' })).toBeTruthy();
  const text = 'Evening,Poured,Good,Rejects,Took\n14.3.2025,the five,96,14,2:30\n20.3.2025,lent one,40,,\n';
  await userEvent.upload(screen.getByLabelText('CSV file'), fileOf(text));
  // Names that nobody knows are asked; what stays a name of its own comes in all the same.
  await userEvent.selectOptions(await screen.findByLabelText('the five is'), `the mold ${molds[0]!.name}`);
  expect(screen.getAllByText('The first: 14.3.2025')).toHaveLength(1);
  await userEvent.click(screen.getByRole('button', { name: 'See what would come in' }));
  await userEvent.click(await screen.findByRole('button', { name: 'Take these 2 evenings' }));
  await waitFor(() => expect(api.writes()).toHaveLength(2));
  expect(api.writes()[0]!.path).toBe('/evenings/import?look=true');
  expect(String(api.writes()[1]!.body).split('\r\n')).toEqual([
    'on,name,mold,product,good,casts,minutes,note',
    `2025-03-14,the five,${molds[0]!.name},,96,110,150,`,
    '2025-03-20,lent one,,,40,40,,',
  ]);
});

test('evenings stand newest first with what is not known left open, and what they come to by mold', async () => {
  fakeApi({
    'GET /imports': [],
    'GET /evenings/paper': {
      evenings: [
        { id: 'b', ...evening(3, { on: '2025-04-02', mold: null, casts: null, minutes: null, note: 'lent' }) },
        { id: 'a', ...evening(2) },
      ],
      ...{ more: false, total: { evenings: 2, good: 192 } },
      byName: [
        {
          ...{ name: molds[0]!.name, moldId: molds[0]!.id, evenings: 1, good: 96 },
          ...{ judged: { good: 96, casts: 110 }, timed: { good: 96, minutes: 150 } },
        },
        {
          ...{ name: 'five', moldId: null, evenings: 1, good: 96 },
          ...{ judged: { good: 0, casts: 0 }, timed: { good: 0, minutes: 0 } },
        },
      ],
    },
  });
  renderAt(<PaperPage />);
  const rows = within(await screen.findByRole('region', { name: 'Evenings on paper' })).getAllByRole('row');
  expect(rows.slice(1).map((row) => row.textContent)).toEqual([
    '2 Apr 2025fivelent96––',
    `14 Mar 2025${molds[0]!.name} as “five”96110150 min`,
  ]);
  const good = within(screen.getByRole('list', { name: 'How many were good' })).getAllByRole('listitem');
  expect(good.map((each) => each.textContent)).toEqual([`${molds[0]!.name}87 %of 110`]);
  // 150 min of 96 heads are 94 s each.
  expect(screen.getByText(reads(/94 s/))).toBeTruthy();
});
