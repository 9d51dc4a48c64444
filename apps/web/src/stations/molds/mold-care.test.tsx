import type { Care, Cavity, Mold } from '@schmelz/contract';
import type { CavityVariant } from '@schmelz/core';
import { cleanup, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { care, ids, molds } from '../../test/fixtures.ts';
import { fakeApi, prepareBrowser, renderAt } from '../../test/render.tsx';
import { CarePage } from './CarePage.tsx';
import { CavityForm, VariantForm } from './CavityForms.tsx';

beforeEach(prepareBrowser);
afterEach(cleanup);

const mold = molds[0] as Mold;
const day = 86_400_000;

describe('care of a mold', () => {
  const noted = (id: string, what: Care['what'], at: number, more: Partial<Care> = {}): Care =>
    ({ ...care[0]!, id, what, at: at * day, ...more }) as Care;
  const open = (notes: Care[] = care, kept: Partial<Mold> = {}) => {
    const own = { ...mold, ...kept };
    const api = fakeApi({ 'GET /molds': [own], [`GET /records/care?thing=${ids.mold}`]: notes });
    renderAt(<CarePage />, `/molds/${ids.mold}/care`, '/molds/:id/care');
    return api;
  };
  const rows = async () => {
    await screen.findByRole('heading', { name: 'Soot' });
    return within(screen.getByRole('table')).getAllByRole('row').slice(1);
  };

  test('shows each cavity that is cast in, with what is left of its soot; a blocked one is not asked after', async () => {
    const cavities = mold.cavities.map((each, nth) => ({
      ...each,
      shotsSinceSmoked: [0, 60, 60][nth]!,
      condition: nth === 2 ? 'blocked' : 'good',
    })) as Cavity[];
    open(care, { cavities });
    const [fresh, worn, ...others] = await rows();
    expect(others).toEqual([]);
    const left = (row: HTMLElement) =>
      Number.parseInt(
        within(row)
          .getByRole('img', { name: /of its soot left$/ })
          .getAttribute('aria-label')!,
      );
    expect(left(fresh!)).toBe(100);
    expect(left(worn!)).toBeLessThan(40);
    expect(worn!.textContent).toContain('due');
    expect(fresh!.textContent).toMatch(/in .*50.* shots/);
    expect(screen.getByText('cavity wants the candle')).toBeTruthy();
  });

  test('one that never was smoked has no soot; by the usual way it is counted from its first shot', async () => {
    open(care, { cavities: [{ ...mold.cavities[0]!, everSmoked: false, shotsSinceSmoked: 0 }] });
    const [row] = await rows();
    expect(within(row!).getByRole('img', { name: '0 % of its soot left' })).toBeTruthy();
    expect(row!.textContent).toMatch(/in .*50.* shots/);
  });

  test('smoked is one tap, of one cavity or of all', async () => {
    const api = open();
    const [, second] = await rows();
    await userEvent.click(within(second!).getByRole('button', { name: 'Smoked now' }));
    await userEvent.click(screen.getByRole('button', { name: 'All smoked now' }));
    await waitFor(() => expect(api.writes()).toHaveLength(2));
    expect(api.writes()).toMatchObject([
      { path: '/records', body: { kind: 'care', what: 'smoked', thingId: ids.mold, positions: [2] } },
      { path: '/records', body: { what: 'smoked', positions: [] } },
    ]);
  });

  test('something else is written down with its cavities; a cavity that is no number is refused', async () => {
    const api = open();
    await rows();
    await userEvent.click(screen.getByRole('button', { name: 'Something else was done' }));
    const sheet = within(await screen.findByRole('dialog'));
    await userEvent.selectOptions(sheet.getByLabelText('What was done'), 'degreased');
    await userEvent.type(sheet.getByLabelText('Cavities'), 'all');
    await userEvent.click(sheet.getByRole('button', { name: 'Write it down' }));
    await sheet.findByRole('alert');
    expect(api.writes()).toEqual([]);
    await userEvent.clear(sheet.getByLabelText('Cavities'));
    await userEvent.type(sheet.getByLabelText('Cavities'), ' 1, 3 ');
    await userEvent.type(sheet.getByLabelText('Note'), ' brake cleaner ');
    await userEvent.click(sheet.getByRole('button', { name: 'Write it down' }));
    await waitFor(() => expect(api.writes()).toHaveLength(1));
    expect(api.writes()[0]!.body).toMatchObject({ what: 'degreased', positions: [1, 3], note: 'brake cleaner' });
  });

  test('the last time of each is said, a struck one is none; the log is newest first and can be struck', async () => {
    const api = open([
      noted('a', 'degreased', 10),
      noted('b', 'hinge waxed', 20),
      noted('c', 'degreased', 30, { struck: true }),
      noted('d', 'smoked', 40, { positions: [1, 2], note: 'candle' }),
    ]);
    await rows();
    const at = (of: number) => new Date(of * day).getDate();
    expect(screen.getByText(new RegExp(`^Degreased on ${at(10)} Jan 1970`))).toBeTruthy();
    expect(screen.getByText(new RegExp(`^Hinge waxed on ${at(20)} Jan 1970`))).toBeTruthy();
    const log = screen.getAllByRole('button', { name: /strike/i });
    expect(log).toHaveLength(3);
    expect(log[0]!.closest('li')!.textContent).toContain('smoked, cavity 1, 2: candle');
    await userEvent.click(log[0]!);
    await waitFor(() => expect(api.writes()).toMatchObject([{ path: '/records/d/strike' }]));
    cleanup();
    open([]);
    await screen.findByText('Nothing written down yet.');
    expect(screen.getByText(/^Never degreased on record/)).toBeTruthy();
  });

  test('another way of smoking is kept with the mold and its version', async () => {
    const api = open();
    await rows();
    const way = screen.getByLabelText('Smoked');
    const other = [...way.querySelectorAll('option')].find((option) => option.value !== 'fifty')!;
    await userEvent.selectOptions(way, other.value);
    await waitFor(() => expect(api.writes()).toHaveLength(1));
    expect(api.writes()[0]).toMatchObject({
      ...{ method: 'PUT', path: `/molds/${ids.mold}` },
      body: { version: mold.version, sootSchool: other.value, name: 'Three' },
    });
    // Cavities keep their identity, and none of what was reckoned of them is sent.
    const { cavities } = api.writes()[0]!.body as { cavities: Record<string, unknown>[] };
    expect(cavities.map(({ id }) => id)).toEqual(mold.cavities.map(({ id }) => id));
    expect(cavities[0]).not.toHaveProperty('casts');
  });
});

describe('a cavity', () => {
  const cavity = mold.cavities[0] as Cavity;
  const open = (more: Partial<Cavity> = {}) => {
    fakeApi();
    const changed = jest.fn<void, [Partial<Cavity>]>();
    renderAt(<CavityForm cavity={{ ...cavity, ...more }} error={null} onChange={changed} />);
    return changed;
  };
  const keep = () => userEvent.click(screen.getByRole('button', { name: 'Keep the change' }));

  test('has a pin by its diameter and how much of it stands in the metal, or none', async () => {
    const changed = open();
    await userEvent.type(await screen.findByLabelText('Base-hole pin'), '1/8 in');
    await userEvent.type(screen.getByLabelText('Of it in the metal'), '8 mm');
    await keep();
    await waitFor(() => expect(changed).toHaveBeenCalledTimes(1));
    const [sent] = changed.mock.calls[0]!;
    // An eighth of an inch is 3.175 mm exactly (NIST SP 811, appendix B.8).
    expect(sent.pin!.diameterM).toBeCloseTo(0.003175, 9);
    expect(sent.pin!.lengthM).toBeCloseTo(0.008, 9);
    await userEvent.clear(screen.getByLabelText('Base-hole pin'));
    await keep();
    await waitFor(() => expect(changed).toHaveBeenCalledTimes(2));
    expect(changed.mock.calls[1]![0].pin).toBeNull();
  });
  test('that is open below is warned of, and kept so', async () => {
    const changed = open();
    expect(screen.queryByText(/metal runs out/)).toBeNull();
    await userEvent.selectOptions(await screen.findByLabelText('Below'), 'open');
    expect(screen.getByText(/metal runs out where no hook or pin closes it/)).toBeTruthy();
    await userEvent.selectOptions(screen.getByLabelText('It is'), 'blocked');
    await keep();
    await waitFor(() => expect(changed).toHaveBeenCalledTimes(1));
    expect(changed.mock.calls[0]![0]).toMatchObject({ openBelow: true, condition: 'blocked', hookSize: '2/0' });
  });
  test('whose pin cannot be read changes nothing', async () => {
    const changed = open();
    await userEvent.type(await screen.findByLabelText('Base-hole pin'), 'thin');
    await keep();
    await screen.findByRole('alert');
    expect(changed).not.toHaveBeenCalled();
  });

  test('can cast one thing more: with cavities beside it that stay empty, and what is laid in', async () => {
    fakeApi();
    const added = jest.fn<void, [CavityVariant]>();
    renderAt(<VariantForm mold={mold} cavity={cavity} error={null} onAdd={added} />);
    await userEvent.type(await screen.findByLabelText('Its name'), '  Wide ');
    await userEvent.type(screen.getByLabelText('Cavities that must stay empty'), 'two');
    await userEvent.click(screen.getByRole('button', { name: 'Add it' }));
    await screen.findByRole('alert');
    expect(added).not.toHaveBeenCalled();
    await userEvent.clear(screen.getByLabelText('Cavities that must stay empty'));
    await userEvent.type(screen.getByLabelText('Cavities that must stay empty'), '2 3');
    await userEvent.selectOptions(screen.getByLabelText('Wire guards cast in'), '2');
    await userEvent.selectOptions(screen.getByLabelText('Wire keeper'), 'yes');
    await userEvent.click(screen.getByRole('button', { name: 'Add it' }));
    await waitFor(() => expect(added).toHaveBeenCalledTimes(1));
    expect(added.mock.calls[0]![0]).toMatchObject({
      ...{ name: 'Wide', pin: 'as cut', grooveFor: null, blocks: [2, 3] },
      ...{ keeper: true, wireGuards: 2 },
    });
    // A cavity without a pin has none that could be cut short.
    expect(within(screen.getByLabelText('Pin')).getAllByRole('option')).toHaveLength(1);
  });
});
