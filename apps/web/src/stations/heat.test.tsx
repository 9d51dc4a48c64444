import { expose } from 'comlink';
import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { ids, molds } from '../test/fixtures.ts';
import { fakeApi, prepareBrowser, reads, renderAt } from '../test/render.tsx';
import { tasks } from '../workers/tasks.ts';
import { CastPage } from './lead/CastPage.tsx';
import { DialPage } from './lead/DialPage.tsx';
import { LeadPage } from './lead/LeadPage.tsx';
import { MeltPage } from './lead/MeltPage.tsx';
import { CarePage } from './molds/CarePage.tsx';
import { FillPage } from './molds/FillPage.tsx';
import { HooksPage } from './molds/HooksPage.tsx';
import { MoldPage } from './molds/MoldPage.tsx';
import { PartsPage } from './molds/PartsPage.tsx';
import { WarmPage } from './molds/WarmPage.tsx';
import { ReadingsPage } from './lead/ReadingsPage.tsx';

// The worker of the browser, as a message port of this process.
jest.mock('../workers/start.ts', () => ({
  startFitWorker: () => {
    const { port1, port2 } = new MessageChannel();
    expose(tasks, port1 as never);
    return Object.assign(port2, { terminate: () => port2.close() });
  },
}));

beforeEach(prepareBrowser);

const cavityId = molds[0]!.cavities[0]!.id;
const mold = (room = '') => [`/molds/${ids.mold}${room}`, `/molds/:id${room}`] as const;
const number = async () => (await screen.findByRole('heading', { level: 1 })).parentElement!.textContent;

describe('Lead', () => {
  test('lots say what is left and where it went; scrap is melted down and skimmed', async () => {
    const api = fakeApi();
    renderAt(<LeadPage />);
    expect(await screen.findByText(/went to: heads 5.10 kg; 100 g came back/)).toBeTruthy();
    expect(screen.getByText(reads(/85 % clean · €1.18\/kg · 18 ingots/))).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: 'Melted down, skimmed' }));
    const clean = await screen.findByLabelText(/Clean metal/);
    await userEvent.clear(clean);
    await userEvent.type(clean, '8,2');
    await userEvent.click(screen.getByRole('button', { name: 'It is clean' }));
    await waitFor(() => expect(api.writes()).toHaveLength(1));
    expect(api.writes()[0]).toMatchObject({
      path: expect.stringMatching(/clean$/),
      body: { cleanKg: 8.2, version: 1 },
    });
  });

  test('a new lot is checked before it is sent, field by field', async () => {
    const api = fakeApi();
    renderAt(<LeadPage />);
    await userEvent.click(await screen.findByRole('button', { name: 'Metal came in' }));
    await userEvent.type(await screen.findByLabelText('Its name'), 'Roof lead');
    await userEvent.type(screen.getByLabelText(/As it came, dirty/), '-3');
    await userEvent.type(screen.getByLabelText(/Hardness, if tested/), '10.5');
    expect(screen.getByText(/about 3.0 % antimony, 2.[23] to/)).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: 'Book this lot' }));
    expect((await screen.findByRole('alert')).textContent).toMatch(/grossKg is -3.00 kg; allowed: a number from 50 g/);
    expect(api.writes()).toHaveLength(0);
    await userEvent.clear(screen.getByLabelText(/As it came, dirty/));
    await userEvent.type(screen.getByLabelText(/As it came, dirty/), '12.5');
    await userEvent.click(screen.getByRole('button', { name: 'Book this lot' }));
    await waitFor(() =>
      expect(api.writes()[0]?.body).toMatchObject({
        label: 'Roof lead',
        grossKg: 12.5,
        brinell: 10.5,
        source: 'scrap',
      }),
    );
  });

  test('melting: minutes to ready, with the moments and the dial mark; feeding says how much', async () => {
    fakeApi();
    renderAt(<MeltPage />);
    expect(await number()).toMatch(/^22minfrom 20 °C to 371 °C/);
    expect(await screen.findByText('turn down to 6.9 at')).toBeTruthy();
    expect(screen.getByText(/Add up to/).textContent).toMatch(/Add up to .*g.*, then wait/);
    expect(screen.getByText(/it clears nobody/)).toBeTruthy();
    await userEvent.click(screen.getByRole('radio', { name: 'Left at the mark' }));
    expect(screen.queryByText(/turn down to/)).toBeNull();
    const kg = screen.getAllByRole('slider', { name: 'In the pot' })[1]!;
    kg.focus();
    await userEvent.keyboard('{Home}');
    expect(screen.getByText(/Nearly dry/)).toBeTruthy();
  });

  test('the dial: mark for the pouring heat, a new pair, one struck out', async () => {
    const api = fakeApi();
    renderAt(<DialPage />);
    await screen.findByText(/on the dial for 371/);
    expect(await number()).toMatch(/^6.9on the dial/);
    await userEvent.type(screen.getByLabelText('The dial stands at'), '8');
    await userEvent.selectOptions(screen.getByLabelText('The settled metal read by'), 'straw');
    expect(screen.getByText(/taken as 370 °C/)).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: 'Keep this pair' }));
    await waitFor(() =>
      expect(api.writes()[0]?.body).toMatchObject({ kind: 'dial', dial: 8, temperatureC: 370, how: 'colour' }),
    );
    await userEvent.click(screen.getAllByRole('button', { name: 'Strike out' })[0]!);
    await waitFor(() => expect(api.writes()[1]?.path).toMatch(/records\/.*\/strike/));
  });

  test('what it casts: share of the stamp by metal', async () => {
    fakeApi();
    renderAt(<CastPage />);
    expect(await number()).toMatch(/^98.3%/);
    await userEvent.click(screen.getByRole('radio', { name: 'Bismuth-tin' }));
    expect(await number()).toMatch(/^77.1%/);
    expect(screen.getByRole('button', { name: 'Begins to freeze at: 139 °C. Why?' })).toBeTruthy();
    expect(screen.getAllByRole('button', { name: /Cavity 1: 7.7 g/ }).length).toBeGreaterThan(0);
    // Poured to the bottom, the same metal gives more heads: by the kilograms that would be left, over one of them.
    const heads = () =>
      Number(/: (\d+)/.exec(screen.getAllByRole('button', { name: /^Heads of cavity 1/ })[0]!.ariaLabel ?? '')?.[1]);
    const before = heads();
    screen.getByRole('slider', { name: 'of it left in the pot' }).focus();
    await userEvent.keyboard('{Home}');
    expect(heads()).toBeGreaterThan(before);
  });

  test('probes: a log is mapped by its headings and sent as it is', async () => {
    const api = fakeApi({
      'GET /readings?channel=1&from=0&to=3600000&points=400': { points: [], count: 0 },
      'POST /readings/import': { rows: 2, empty: 0, gaps: [], channels: [] },
    });
    renderAt(<ReadingsPage />);
    await userEvent.click(await screen.findByRole('button', { name: 'Import a log' }));
    const csv = 'Elapsed min,Oven F,Fan\n0,70,on\n1,120,on\n';
    const file = new File([csv], 'oven.csv', { type: 'text/csv' });
    Object.assign(file, { text: async () => csv });
    await userEvent.upload(await screen.findByLabelText('File'), file);
    expect(await screen.findByLabelText('Oven F is')).toHaveProperty('value', 'oven');
    expect(screen.getByLabelText('Oven F is in')).toHaveProperty('value', 'F');
    expect(screen.getByLabelText('and is')).toHaveProperty('value', 'minutes');
    await userEvent.click(screen.getByRole('button', { name: 'Take it in' }));
    await waitFor(() => expect(api.writes()).toHaveLength(1));
    const [sent] = api.writes();
    expect(sent!.body).toBe(csv);
    const mapping = JSON.parse(new URLSearchParams(sent!.path.split('?')[1]).get('mapping')!);
    expect(mapping).toMatchObject({ name: 'oven.csv', columns: [{ column: 'Oven F', place: 'oven', unit: 'F' }] });
  });
});

describe('Molds', () => {
  test('a cavity shows what it gave and what can be cast in it; a variant is added', async () => {
    const api = fakeApi();
    renderAt(<MoldPage />, ...mold());
    expect(await number()).toMatch(/83%of 200 casts/);
    expect(screen.getByText(reads(/Cavity 2 is the weak one: 70 % good/))).toBeTruthy();
    expect(screen.getByText(reads(/^\s*30 short$/))).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: 'Cavity 1: good' }));
    await userEvent.click(screen.getByRole('button', { name: 'Another way to cast it' }));
    await userEvent.type(await screen.findByLabelText('Its name'), 'Two guards');
    await userEvent.selectOptions(screen.getByLabelText('Wire guards cast in'), '2');
    await userEvent.click(screen.getByRole('button', { name: 'Add it' }));
    await waitFor(() => expect(api.writes()).toHaveLength(1));
    const body = api.writes()[0]!.body as { version: number; cavities: { variants?: unknown[]; id?: string }[] };
    expect(body.version).toBe(1);
    expect(body.cavities[0]!.variants).toEqual([expect.objectContaining({ name: 'Two guards', wireGuards: 2 })]);
    // By its id its record stays with it.
    expect(body.cavities[0]!.id).toBe('00000000-0000-4000-8000-000000000101');
  });

  test('fit finder: an estimate can be asked, and what was tried is written down', async () => {
    const api = fakeApi();
    renderAt(<HooksPage />, ...mold('/hooks'));
    expect(await number()).toMatch(/3of 3 cavities have a hook/);
    await userEvent.click(screen.getAllByRole('button', { name: /in cavity 1: seats, as cut. Why\?/ })[0]!);
    const sheet = within(await screen.findByRole('dialog'));
    expect(sheet.getByText(/It seats: cut for 2\/0, 60°/)).toBeTruthy();
    await userEvent.selectOptions(sheet.getByLabelText('Closing it'), 'thud');
    await userEvent.click(sheet.getByRole('button', { name: 'Keep what was tried' }));
    await waitFor(() =>
      expect(api.writes()[0]?.body).toMatchObject({
        kind: 'trial',
        cavityId,
        hookId: ids.hook,
        sound: 'thud',
        seamFlush: true,
      }),
    );
  });

  test('warming: blank shots by school; the maker keeps a way', async () => {
    const api = fakeApi();
    renderAt(<WarmPage />, ...mold('/warm'));
    const blanks = Number((await screen.findByRole('button', { name: /Blank shots: \d+. Why/ })).textContent);
    expect(blanks).toBeGreaterThan(4);
    await userEvent.click(screen.getByRole('radio', { name: 'both' }));
    const both = Number((await screen.findByRole('button', { name: /Blank shots: \d+. Why/ })).textContent);
    expect(both).toBeLessThan(blanks);
    await userEvent.click(screen.getByRole('button', { name: 'This is how I warm it' }));
    await waitFor(() => expect(api.writes()[0]?.body).toMatchObject({ warmSchool: 'both' }));
  });

  test('fill: levers in order for the worst cavity; settings move it; own shorts are fitted beside', async () => {
    fakeApi();
    renderAt(<FillPage />, ...mold('/fill'));
    expect(await number()).toMatch(/is the index of the worst cavity/);
    const index = () =>
      Number(
        /\d+\.\d+/.exec(
          within(screen.getByRole('list', { name: 'Fill index by cavity' })).getByRole('button', {
            name: /^Cavity 1: [\d.]+. Why/,
          }).textContent!,
        )![0],
      );
    const before = index();
    const first = screen.getAllByRole('listitem').find((each) => each.textContent!.startsWith('1Press the gate'));
    expect(first).toBeTruthy();
    await userEvent.click(screen.getByRole('radio', { name: 'gate to spout' }));
    expect(index()).toBeGreaterThan(2 * before);
    expect(await screen.findByText(/Every second cast is short at an index of/)).toBeTruthy();
    expect(screen.getByText(/From \d+ shorts in \d+ casts/)).toBeTruthy();
  });

  test('care: what is due by the school, and smoking is one tap', async () => {
    const api = fakeApi();
    renderAt(<CarePage />, ...mold('/care'));
    expect(await number()).toMatch(/0cavities want the candle/);
    expect(screen.getAllByText(reads(/^in 38 shots$/))).toHaveLength(3);
    await userEvent.click(screen.getAllByRole('button', { name: 'Smoked now' })[1]!);
    await waitFor(() => expect(api.writes()[0]?.body).toMatchObject({ kind: 'care', what: 'smoked', positions: [2] }));
    await userEvent.selectOptions(screen.getByLabelText('Smoked'), 'five');
    await waitFor(() => expect(api.writes()[1]?.body).toMatchObject({ sootSchool: 'five' }));
  });

  test('parts that go round: how many, and where they are', async () => {
    const api = fakeApi();
    renderAt(<PartsPage />);
    expect(await number()).toMatch(/^7base-hole pins in the drawer/);
    await userEvent.click(screen.getByRole('button', { name: 'Change' }));
    await userEvent.clear(await screen.findByLabelText('Pieces'));
    await userEvent.type(screen.getByLabelText('Pieces'), '40');
    await userEvent.click(screen.getByRole('button', { name: 'Keep it' }));
    expect((await screen.findByRole('alert')).textContent).toMatch(/more pieces in its places than are owned/);
    expect(api.writes()).toHaveLength(0);
  });
});
