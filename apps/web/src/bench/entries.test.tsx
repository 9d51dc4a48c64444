import type { Entry, UndoEntry } from '@schmelz/core';
import { render, screen } from '@testing-library/react';
import { fakeApi, prepareBrowser, renderAt } from '../test/render.tsx';
import { EntryList } from './EntryList.tsx';

beforeEach(prepareBrowser);

test('every entry of a log: newest first, what was taken back struck, a time put right with what the device said', async () => {
  fakeApi();
  const at = new Date(2026, 2, 6, 19, 48).getTime();
  const log = [
    { id: 'a', at, kind: 'shot', positions: [1, 2, 3] },
    {
      id: 'b',
      at: at + 60_000,
      saidAt: new Date(2027, 2, 6, 19, 49).getTime(),
      kind: 'reject',
      position: 2,
      cause: 'short',
    },
    { id: 'c', at: at + 120_000, kind: 'undo', target: 'b' },
    { id: 'd', at: at + 180_000, kind: 'weighed', position: 1, massKg: 0.01, who: 'Runa' },
  ] as unknown as (Entry | UndoEntry)[];
  renderAt(<EntryList log={log} />);
  const rows = (await screen.findAllByRole('listitem', { hidden: true })).map((row) => row.textContent);
  expect(rows).toEqual([
    '6 Mar 2026 19:5110 g on the scale, cavity 1by Runa',
    '6 Mar 2026 19:491 not good: short, cavity 2, taken backtime put right: that device said 6 Mar 2027 19:49',
    '6 Mar 2026 19:48poured, 3 cavities',
  ]);
  expect(screen.getByText('3, 1 of them taken back')).toBeTruthy();
  expect(screen.getByText('1 not good: short, cavity 2').className).toContain('line-through');
});

test('a log without entries shows no list', () => {
  const { container } = render(<EntryList log={[]} />, { wrapper: ({ children }) => <>{children}</> });
  expect(container.textContent).toBe('');
});
