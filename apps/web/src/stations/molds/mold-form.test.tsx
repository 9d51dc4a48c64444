import type { Material, Mold, MoldInput, TrialRecord } from '@schmelz/contract';
import { cleanup, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { ReactNode } from 'react';
import { ids, materials, molds, settings } from '../../test/fixtures.ts';
import { fakeApi, prepareBrowser, refuse, renderAt } from '../../test/render.tsx';
import { useSettings } from '../../api/queries.ts';
import { HooksPage } from './HooksPage.tsx';
import { MoldForm } from './MoldForm.tsx';

beforeEach(prepareBrowser);
afterEach(cleanup);

const ounces = { 'GET /settings': { ...settings, massUnit: 'oz', temperatureUnit: 'F' } };
/** Once the settings are read, as in the application. */
const InUnits = ({ children }: { children: () => ReactNode }) => useSettings().data && children();
async function open(more: Record<string, unknown> = {}, mold?: Mold) {
  const saved: unknown[] = [];
  const api = fakeApi({ 'POST /molds': molds[0], [`PUT /molds/${ids.mold}`]: molds[0], ...more });
  const own = mold ? { mold } : {};
  renderAt(<InUnits>{() => <MoldForm {...own} onSaved={(each) => saved.push(each)} />}</InUnits>, '/molds');
  await screen.findByText('Cavities, from the hinge');
  return { api, saved };
}
const write = async (label: RegExp | string, text: string, nth = 0) => {
  const field = screen.getAllByLabelText(label)[nth]!;
  await userEvent.clear(field);
  if (text) await userEvent.type(field, text);
};
const choose = (label: RegExp | string, option: string, nth = 0) =>
  userEvent.selectOptions(screen.getAllByLabelText(label)[nth]!, option);
const keep = () => userEvent.click(screen.getByRole('button', { name: /^(Add this mold|Keep the change)$/ }));
const sent = (api: ReturnType<typeof fakeApi>) => api.writes().at(-1)?.body as MoldInput;

describe('a new mold', () => {
  test('a row of cavities that are alike becomes so many, in the order they lie', async () => {
    const { api, saved } = await open();
    await write('Name', ' Gang of five ');
    await write(/^Block/, '1.2 kg');
    await write('Alike', '3');
    await write('Stamped', '7 g');
    await userEvent.click(screen.getByRole('button', { name: 'Other cavities' }));
    await write('Alike', '2', 1);
    await write('Stamped', '14 g', 1);
    await choose('Hook', '4/0', 1);
    await choose('Eye', '90', 1);
    await keep();
    await waitFor(() => expect(saved).toHaveLength(1));
    const { name, bodyKg, cavities, barKg } = sent(api);
    expect(name).toBe('Gang of five');
    expect(bodyKg).toBeCloseTo(1.2, 9);
    // What was not weighed is not known, and no nought.
    expect(barKg).toBeNull();
    expect(cavities.map(({ position, nominalMassKg }) => [position, Math.round(1e6 * nominalMassKg!)])).toEqual([
      [1, 7000],
      [2, 7000],
      [3, 7000],
      [4, 14_000],
      [5, 14_000],
    ]);
    expect(cavities.slice(3).map(({ hookSize, eyeAngleDeg }) => [hookSize, eyeAngleDeg])).toEqual([
      ['4/0', 90],
      ['4/0', 90],
    ]);
  });

  test('pins and keepers that are said for the mold are in every cavity', async () => {
    const { api } = await open();
    await write('Name', 'Weedless');
    await write('Alike', '2');
    await choose(/^Pins for a guard hole/, '3.2 mm, 1/8 inch');
    await choose('Slots for a wire keeper', 'in every cavity');
    await keep();
    await waitFor(() => expect(sent(api)).toBeDefined());
    for (const cavity of sent(api).cavities) {
      // An eighth of an inch is 3.175 mm.
      expect(cavity).toMatchObject({ keeper: true, pin: { diameterM: 0.003175 } });
    }
  });

  test('a cavity of another head and one that is blocked are so, the others follow the mold', async () => {
    const { api } = await open();
    await write('Name', 'Mixed');
    await choose('Head style', 'football');
    await userEvent.click(screen.getByRole('button', { name: 'Other cavities' }));
    await choose('Head', 'ball', 1);
    await choose('It is', 'blocked', 1);
    await keep();
    await waitFor(() => expect(sent(api)).toBeDefined());
    expect(sent(api).cavities.map(({ style, condition }) => [style, condition])).toEqual([
      ['football', 'good'],
      ['ball', 'blocked'],
    ]);
  });

  test('in ounces it is asked and read in ounces and pounds', async () => {
    const { api } = await open(ounces);
    expect(screen.getByLabelText<HTMLInputElement>('Stamped').value).toBe('3/8 oz');
    await write('Name', 'Old iron');
    await write(/^Block/, '2 lb');
    await write(/^Bar over the gates/, '1');
    await keep();
    await waitFor(() => expect(sent(api)).toBeDefined());
    // Pound and ounce of the international agreement of 1959.
    expect(sent(api).bodyKg).toBeCloseTo(0.90718474, 4);
    expect(sent(api).barKg).toBeCloseTo(0.028349523, 5);
    expect(sent(api).cavities[0]!.nominalMassKg).toBeCloseTo(0.375 * 0.028349523, 5);
  });

  test.each([
    ['Alike', '0', /cavities alike is.*0.*1 to 12/],
    ['Alike', '2.5', /cavities alike/],
    ['Stamped', 'big', /big/],
    [/^Block/, '', /./],
  ])('%s that reads “%s” is refused by name, and nothing is sent', async (label, text, says) => {
    const { api } = await open();
    await write('Name', 'Odd');
    await write(label, text);
    await keep();
    expect((await screen.findByRole('alert')).textContent).toMatch(says);
    expect(api.writes()).toEqual([]);
  });

  test('the last row stays, another goes', async () => {
    await open();
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Remove cavity 1' }).disabled).toBe(true);
    await userEvent.click(screen.getByRole('button', { name: 'Other cavities' }));
    await userEvent.click(screen.getByRole('button', { name: 'Remove cavity 2' }));
    expect(screen.queryByRole('button', { name: 'Remove cavity 2' })).toBeNull();
  });
});

test('a mold on record keeps its cavities by what they are, and is not asked for pins again', async () => {
  const { api } = await open({}, molds[0]);
  expect(screen.queryByLabelText(/^Pins for a guard hole/)).toBeNull();
  await write('Name', 'Three, new handles');
  await keep();
  await waitFor(() => expect(sent(api)).toBeDefined());
  expect(sent(api)).toMatchObject({ version: 1, name: 'Three, new handles', bodyKg: 0.5 });
  expect(sent(api).cavities.map(({ id }) => id)).toEqual(molds[0]!.cavities.map(({ id }) => id));
  expect(sent(api).cavities.every((cavity) => !('pin' in cavity))).toBe(true);
});

test('a refusal is said and what was typed stays', async () => {
  const no = refuse(409, { title: 'Changed meanwhile', detail: 'Somebody else changed it.' });
  const { saved } = await open({ [`PUT /molds/${ids.mold}`]: no }, molds[0]);
  await write('Name', 'Mine');
  await keep();
  expect(await screen.findByText(/Somebody else changed it/)).toBeTruthy();
  expect(screen.getByLabelText<HTMLInputElement>('Name').value).toBe('Mine');
  expect(saved).toEqual([]);
});

describe('hooks against cavities', () => {
  const LONG = '00000000-0000-4000-8000-000000000777';
  const trial = (more: Partial<TrialRecord & { struck: boolean }> = {}) => ({
    ...{ id: 't1', struck: false, kind: 'trial', thingId: ids.mold, at: Date.UTC(2026, 1, 3) },
    ...{ cavityId: molds[0]!.cavities[0]!.id, hookId: ids.hook, prepared: 'as it is', sound: 'thud', seamFlush: false },
    note: 'too wide',
    ...more,
  });
  const long = {
    ...materials[1]!,
    ...{ id: LONG, name: 'Hook 5/0', quantity: 12, hook: { ...materials[1]!.hook!, size: '5/0' } },
  } as Material;
  const page = async (trials: unknown[] = [], more: Record<string, unknown> = {}) => {
    const api = fakeApi({
      'GET /materials': [...materials, long],
      [`GET /records/trial?thing=${ids.mold}`]: trials,
      ...more,
    });
    renderAt(<HooksPage />, `/molds/${ids.mold}/hooks`, '/molds/:id/hooks');
    await screen.findByText('Hooks against cavities');
    return api;
  };
  const verdicts = (name: string) => {
    const row = screen
      .getAllByRole<HTMLTableRowElement>('row')
      .find((each) => each.cells[0]!.textContent.includes(name));
    return [...row!.cells].slice(1).map((cell) => cell.textContent);
  };

  test('the hook that the cavities are cut for seats in all, one far longer in none', async () => {
    await page();
    expect(verdicts('Hook 2/0').every((text) => /seats/.test(text))).toBe(true);
    expect(verdicts('Hook 5/0').some((text) => /seats/.test(text))).toBe(false);
    expect(screen.getByText('of 3 cavities have a hook in the house')).toBeTruthy();
  });

  test('what was tried outranks the estimate, in its own cavity only; struck out it counts no more', async () => {
    await page([trial()]);
    const [first, ...others] = verdicts('Hook 2/0');
    expect(first).not.toMatch(/seats/);
    expect(others.every((text) => /seats/.test(text))).toBe(true);
    cleanup();
    await page([trial({ struck: true })]);
    expect(verdicts('Hook 2/0').every((text) => /seats/.test(text))).toBe(true);
  });

  test('how a trial went is kept with cavity and hook, as it was heard and seen', async () => {
    const api = await page([trial()]);
    const row = screen
      .getAllByRole<HTMLTableRowElement>('row')
      .find((each) => each.cells[0]!.textContent.includes('Hook 5/0'))!;
    await userEvent.click(within(row.cells[2]!).getByRole('button'));
    const sheet = within(await screen.findByRole('dialog'));
    await userEvent.selectOptions(sheet.getByLabelText('Closing it'), 'it thuds');
    await userEvent.selectOptions(sheet.getByLabelText('The seam is'), 'open somewhere');
    await userEvent.type(sheet.getByLabelText('Note'), ' at the bend ');
    await userEvent.click(sheet.getByRole('button', { name: 'Keep what was tried' }));
    await waitFor(() => expect(api.writes()).toHaveLength(1));
    expect(api.writes()[0]!.body).toMatchObject({
      ...{ kind: 'trial', thingId: ids.mold, cavityId: molds[0]!.cavities[1]!.id, hookId: LONG },
      ...{ sound: 'thud', seamFlush: false, note: 'at the bend' },
    });
  });

  test('a trial on record is said with its day, and is struck out in one tap', async () => {
    const api = await page([trial()]);
    const row = screen
      .getAllByRole<HTMLTableRowElement>('row')
      .find((each) => each.cells[0]!.textContent.includes('Hook 2/0'))!;
    await userEvent.click(within(row.cells[1]!).getByRole('button'));
    const sheet = within(await screen.findByRole('dialog'));
    expect(sheet.getByText(/3 Feb.*: as it is, thud, seam open, too wide/)).toBeTruthy();
    await userEvent.click(sheet.getByRole('button', { name: 'Strike out' }));
    await waitFor(() => expect(api.writes().map(({ path }) => path)).toEqual(['/records/t1/strike']));
  });
});
