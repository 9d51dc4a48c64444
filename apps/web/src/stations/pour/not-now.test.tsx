import type { Pour } from '@schmelz/contract';
import type { PourEntry } from '@schmelz/core';
import { cleanup, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { toast } from '../../design/toast.ts';
import { ids, pour } from '../../test/fixtures.ts';
import { fakeApi, prepareBrowser, renderAt } from '../../test/render.tsx';
import { PourBenchPage } from './PourBench.tsx';

// What cannot be done at the pot just now: pour solid metal, cast without a hook, fill beyond the rim.
beforeEach(prepareBrowser);
afterEach(cleanup);

const uuid = (n: number) => `30000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const ago = (seconds: number) => Date.now() - seconds * 1000;
const charged = { id: uuid(1), at: ago(4000), kind: 'charge', massKg: 1.2, potC: 20 } as const;
const blanks = [2, 3].map((n) => ({ id: uuid(n), at: ago(3000 - n * 40), kind: 'blank', moldId: ids.mold }) as const);
const shot = (n: number, seconds: number) =>
  ({ id: uuid(n), at: ago(seconds), kind: 'shot', moldId: ids.mold, positions: [1, 2] }) satisfies PourEntry;

let pours = 0;
function bench(log: Pour['log'], setup = pour().setup) {
  const id = uuid(900 + (pours += 1));
  const api = fakeApi({ [`GET /pours/${id}`]: pour({ id, log, setup }) });
  renderAt(<PourBenchPage />, `/pour/${id}`, '/pour/:id');
  return api;
}
const said = (api: ReturnType<typeof fakeApi>) => api.writes().map(({ body }) => body as Record<string, unknown>);

test('in solid metal Space pours nothing: it says that the metal is liquid, and then it is a blank shot', async () => {
  const api = bench([{ ...charged, at: Date.now() - 60_000 }]);
  await screen.findByText('Melt ready in');
  await userEvent.keyboard(' ');
  await waitFor(() => expect(said(api)).toMatchObject([{ kind: 'done', what: 'skimmed' }]));
  await screen.findByText('Blank shots to go');
  await userEvent.keyboard(' ');
  await waitFor(() => expect(said(api)[1]).toMatchObject({ kind: 'blank', moldId: ids.mold }));
});

test('without a hook nothing more is asked for: what is owed is said, more hooks go on, or the pour ends', async () => {
  const none = { id: uuid(30), at: ago(90), kind: 'hooks', materialId: ids.hook, left: 0 } as const;
  const api = bench([charged, ...blanks, shot(10, 100), none]);
  await screen.findByText('No hook left');
  expect(screen.getByText('heads owed').parentElement!.textContent).toMatch(/^10/);
  expect(screen.getByRole('button', { name: /The pot is off/ })).toBeTruthy();
  await userEvent.keyboard('u');
  const sheet = within(await screen.findByRole('dialog'));
  await userEvent.type(sheet.getByLabelText('Counted'), '6');
  await userEvent.click(sheet.getByRole('button', { name: 'So many' }));
  await screen.findByText('Shots to go');
  await userEvent.keyboard(' ');
  await waitFor(() => expect(said(api)[1]).toMatchObject({ kind: 'shot', positions: [1, 2] }));
});

test('more than the pot holds is refused in words', async () => {
  const warned = jest.spyOn(toast, 'error').mockImplementation(() => {});
  const api = bench([charged, ...blanks, shot(10, 100)], { ...pour().setup, potHoldsKg: 2 });
  await screen.findByText('Shots to go');
  await userEvent.keyboard('a');
  await userEvent.type(await screen.findByLabelText('How much'), '1.4 kg');
  await userEvent.click(screen.getByRole('button', { name: 'It is in' }));
  await waitFor(() => expect(warned).toHaveBeenCalledTimes(1));
  const why = (warned.mock.calls[0]![0] as { props: { of: string } }).props.of;
  expect(why.replaceAll('\u00a0', ' ')).toBe('1.4 kg do not go into this pot: it holds 2 kg, and 1.17 kg are in it.');
  expect(api.writes()).toEqual([]);
  warned.mockRestore();
});
