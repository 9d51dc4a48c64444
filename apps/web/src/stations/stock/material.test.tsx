import type { Material, MaterialInput } from '@schmelz/contract';
import { cleanup, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { ids, materials, settings } from '../../test/fixtures.ts';
import { fakeApi, prepareBrowser, refuse, renderAt } from '../../test/render.tsx';
import { MaterialForm } from './MaterialForm.tsx';

// What is written of a material is sent in SI, whatever the units of the workshop; what cannot be read is refused at
// its field, before anything is made.
beforeEach(prepareBrowser);
afterEach(cleanup);

const [lead, hook, white] = materials as [Material, Material, Material];
async function open(form: React.ReactElement, more: Record<string, unknown> = {}) {
  const api = fakeApi({ 'POST /materials': { ...hook, id: 'made' }, ...more });
  renderAt(form);
  await screen.findByLabelText('Name');
  return { api, sent: () => api.writes().map(({ body }) => body as MaterialInput & { version?: number }) };
}
const fill = async (label: RegExp | string, text: string) => {
  const field = screen.getByLabelText(label);
  await userEvent.clear(field);
  if (text) await userEvent.type(field, text);
};
const choose = (label: string, option: string) => userEvent.selectOptions(screen.getByLabelText(label), option);
const add = () => userEvent.click(screen.getByRole('button', { name: /^(Add|Keep) it$/ }));

describe('a hook', () => {
  test('measured and weighed is sent in metres and kilograms, ten of them weighed at once', async () => {
    const { sent } = await open(<MaterialForm />);
    await fill('Name', '  Jig hook 3/0 ');
    await choose('Size', '3/0');
    await choose('Eye angle', '90°');
    await fill('Length, if measured', '42 mm');
    await fill('Wire, if measured', '1.2 mm');
    await fill('Ten of them weigh, if weighed', '12.5 g');
    await fill('Its plating stands', '300 F');
    await add();
    await waitFor(() => expect(sent()).toHaveLength(1));
    const [made] = sent();
    expect(made).toMatchObject({ kind: 'hook', name: 'Jig hook 3/0', metalId: null, powder: null, composition: null });
    expect(made!.hook).toMatchObject({ size: '3/0', eyeAngleDeg: 90, plating: 'bronze', bend: 'round' });
    expect(made!.hook!.lengthM).toBeCloseTo(0.042, 9);
    expect(made!.hook!.wireM).toBeCloseTo(0.0012, 9);
    expect(made!.hook!.massKg).toBeCloseTo(0.00125, 9);
    // 300 F is 148.9 C.
    expect(made!.limitC).toBe(148.9);
  });
  test('of which nothing was measured says nothing of it', async () => {
    const { sent } = await open(<MaterialForm />);
    await fill('Name', 'Jig hook');
    await add();
    await waitFor(() => expect(sent()).toHaveLength(1));
    expect(sent()[0]).toMatchObject({
      limitC: null,
      details: null,
      hook: { lengthM: null, wireM: null, massKg: null },
    });
  });
  test('that is changed comes back as it was kept, and goes with its version', async () => {
    const kept = {
      ...hook,
      version: 4,
      limitC: 175,
      note: 'from the fair',
      hook: { ...hook.hook!, lengthM: 0.042, wireM: 0.0012, massKg: 0.00125 },
    } as Material;
    const { sent, api } = await open(<MaterialForm material={kept} />);
    expect((screen.getByLabelText('Ten of them weigh, if weighed') as HTMLInputElement).value).toBe('12.5 g');
    expect((screen.getByLabelText('Its plating stands') as HTMLInputElement).value).toBe('175 C');
    expect(screen.queryByLabelText('Kind')).toBeNull();
    await fill('Name', 'Hook of the fair');
    await add();
    await waitFor(() => expect(sent()).toHaveLength(1));
    expect(api.writes()[0]).toMatchObject({ method: 'PUT', path: `/materials/${ids.hook}` });
    expect(sent()[0]).toMatchObject({ version: 4, name: 'Hook of the fair', note: 'from the fair', limitC: 175 });
    expect(sent()[0]!.hook!.lengthM).toBeCloseTo(0.042, 6);
    expect(sent()[0]!.hook!.massKg).toBeCloseTo(0.00125, 9);
  });
});

describe('metal', () => {
  test('that is hard has its antimony, by what it is or by a hardness test', async () => {
    const { sent } = await open(<MaterialForm start={{ kind: 'lead' }} />);
    await fill('Name', 'Wheel weights');
    await choose('Metal', 'hard-lead');
    await fill(/^Antimony/, '4');
    await add();
    await waitFor(() => expect(sent()).toHaveLength(1));
    expect(sent()[0]).toMatchObject({
      ...{ kind: 'lead', metalId: 'hard-lead', hook: null },
      composition: { antimonyPercent: 4, tinPercent: 0, brinell: null },
    });
  });
  test('a hardness test outranks what was typed of the antimony', async () => {
    const { sent } = await open(<MaterialForm start={{ kind: 'lead', metalId: 'hard-lead' }} />);
    await fill('Name', 'Tested');
    await fill(/^Antimony/, '1');
    await fill(/or hardness/, '10');
    await add();
    await waitFor(() => expect(sent()).toHaveLength(1));
    expect(sent()[0]!.composition!.brinell).toBe(10);
    expect(sent()[0]!.composition!.antimonyPercent).not.toBe(1);
  });
  test('that is soft has none', async () => {
    const { sent } = await open(<MaterialForm material={lead} />);
    expect(screen.queryByLabelText(/^Antimony/)).toBeNull();
    await add();
    await waitFor(() => expect(sent()).toHaveLength(1));
    expect(sent()[0]).toMatchObject({ metalId: 'soft-lead', composition: null });
  });
});

describe('a powder', () => {
  test('has the lines of its label, the second where there is one', async () => {
    const { sent } = await open(<MaterialForm start={{ kind: 'powder' }} />);
    await fill('Name', 'Chartreuse');
    await fill('Label: metal temperature', '350 F');
    await fill('Label: minutes', '12.5');
    await fill('Second line: temperature', '');
    await add();
    await waitFor(() => expect(sent()).toHaveLength(1));
    // 350 F is 176.7 C.
    expect(sent()[0]!.powder).toMatchObject({ label: [{ metalC: 176.7, seconds: 750 }], dryS: null, form: 'powder' });
  });
  test('that is liquid has no label and a wait before the next coat', async () => {
    const { sent } = await open(<MaterialForm start={{ kind: 'powder' }} />);
    await fill('Name', 'Lacquer');
    await choose('It is', 'liquid paint, to be dried');
    expect(screen.queryByLabelText('Label: minutes')).toBeNull();
    await fill(/^Wait before the next coat/, '1.5');
    await add();
    await waitFor(() => expect(sent()).toHaveLength(1));
    expect(sent()[0]!.powder).toMatchObject({ label: [], dryS: 5400, form: 'liquid' });
  });
  test('comes back with both lines, in Celsius whatever the workshop reads', async () => {
    await open(<MaterialForm material={white} />, {
      'GET /settings': { ...settings, temperatureUnit: 'F' },
    });
    const value = (label: string) => (screen.getByLabelText(label) as HTMLInputElement).value;
    expect([value('Label: metal temperature'), value('Label: minutes')]).toEqual(['177 C', '20']);
    expect([value('Second line: temperature'), value('Second line: minutes')]).toEqual(['200 C', '10']);
  });
});

describe('what cannot be read', () => {
  test.each([
    ['Ten of them weigh, if weighed', 'ten'],
    ['Length, if measured', 'long'],
    ['Its plating stands', 'much'],
  ])('%s: %s is refused, and nothing is made', async (label, wrong) => {
    const { sent } = await open(<MaterialForm />);
    await fill('Name', 'Jig hook');
    await fill(label, wrong);
    await add();
    await waitFor(() => expect(screen.getAllByRole('alert').length).toBeGreaterThan(0));
    expect(sent()).toEqual([]);
  });
  test('a refusal of the server is heard, and what was typed stays', async () => {
    const { sent } = await open(<MaterialForm />, {
      'POST /materials': refuse(409, { title: 'Taken', detail: 'There is a hook of this name.' }),
    });
    await fill('Name', 'Jig hook');
    await add();
    expect((await screen.findByRole('alert')).textContent).toContain('There is a hook of this name.');
    expect(sent()).toHaveLength(1);
    expect((screen.getByLabelText('Name') as HTMLInputElement).value).toBe('Jig hook');
  });
});

describe('with what there is of it', () => {
  const open2 = () => open(<MaterialForm start={{ kind: 'hook' }} stocked />);
  test('is made and received in one go; what was found cost nothing', async () => {
    const { api } = await open2();
    await fill('Name', 'Jig hook');
    const quantity = screen.getByRole('button', { name: 'Add it' }).closest('form')!.elements.namedItem('quantity');
    await userEvent.type(quantity as HTMLInputElement, '50');
    await add();
    await waitFor(() => expect(api.writes()).toHaveLength(2));
    expect(api.writes()[1]).toMatchObject({
      path: '/materials/made/receipts',
      body: { quantity: 50, priceMinor: 0, lot: '' },
    });
  });
  test('whose quantity cannot be read is not made at all', async () => {
    const { sent } = await open2();
    await fill('Name', 'Jig hook');
    const quantity = screen.getByRole('button', { name: 'Add it' }).closest('form')!.elements.namedItem('quantity');
    await userEvent.type(quantity as HTMLInputElement, 'a box');
    await add();
    await waitFor(() => expect(screen.getAllByRole('alert').length).toBeGreaterThan(0));
    expect(sent()).toEqual([]);
  });
});
