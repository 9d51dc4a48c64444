import type { LotQuality } from '@schmelz/contract';
import { act, cleanup, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { clearRefused, setAside } from '../api/did-not-count.ts';
import { ids } from '../test/fixtures.ts';
import { fakeApi, prepareBrowser, refuse, renderAt } from '../test/render.tsx';
import { Findings } from './Findings.tsx';
import { BakeDesk } from '../stations/bake/BakeDesk.tsx';
import { useCatalogue } from './catalogue.ts';
import { DidNotCount } from './DidNotCount.tsx';
import { GiveIt, TakeGift } from './Gift.tsx';
import { ToastPlace } from './ToastPlace.tsx';

beforeEach(prepareBrowser);
afterEach(cleanup);

describe('what another maker has given', () => {
  const gift = { schmelz: 'recipe', name: 'Roe on gull' };
  const says = ['A recipe, Roe on gull.', 'Two powders that are not on the shelf yet.'];
  const made = [
    { path: 'materials', id: 'm1' },
    { path: 'materials', id: 'm2' },
    { path: 'recipes', id: 'r1' },
  ];
  const file = (text: string, name = 'roe.schmelz.json') => {
    const own = new File([text], name, { type: 'application/json' });
    // jsdom's files have no text of their own.
    return Object.assign(own, { text: async () => text });
  };
  const open = (more: Record<string, unknown> = {}) => {
    const api = fakeApi({
      'POST /take': (sent: { path: string }) => (sent.path.includes('look=true') ? { says, made: [] } : { says, made }),
      ...more,
    });
    renderAt(
      <>
        <TakeGift />
        <ToastPlace isBench={false} />
      </>,
    );
    return api;
  };
  const choose = (one: File) => userEvent.upload(screen.getByLabelText(/From another maker/), one);

  test('is shown before anything is made, and can be left', async () => {
    const api = open();
    await choose(file(JSON.stringify(gift)));
    for (const line of says) expect(await screen.findByText(line)).toBeTruthy();
    expect(api.writes().map(({ path, body }) => [path, body])).toEqual([['/take?look=true', gift]]);
    await userEvent.click(screen.getByRole('button', { name: 'Leave it' }));
    expect(screen.queryByText(says[0]!)).toBeNull();
    expect(api.writes()).toHaveLength(1);
  });

  test('is taken whole, and taken back whole: what was made last goes first', async () => {
    const api = open();
    await choose(file(JSON.stringify(gift)));
    await userEvent.click(await screen.findByRole('button', { name: 'Take it' }));
    await userEvent.click(await screen.findByRole('button', { name: 'Take it back' }));
    await waitFor(() => expect(api.writes().filter(({ method }) => method === 'DELETE')).toHaveLength(3));
    const gone = api.writes().flatMap(({ method, path }) => (method === 'DELETE' ? [path] : []));
    expect(gone).toEqual(['/recipes/r1', '/materials/m2', '/materials/m1']);
  });

  test('that is no JSON is told by the name of its file; one that is refused, by what is wrong', async () => {
    const api = open();
    await choose(file('<xml>', 'photo.json'));
    expect((await screen.findByRole('alert')).textContent).toContain('photo.json is no file that a maker gives');
    expect(api.writes()).toEqual([]);
    cleanup();
    open({ 'POST /take': refuse(422, { title: 'Not allowed', detail: 'style is "cube".' }) });
    await choose(file(JSON.stringify(gift)));
    expect((await screen.findByRole('alert')).textContent).toContain('style is "cube".');
    expect(screen.queryByRole('button', { name: 'Take it' })).toBeNull();
  });

  test('is given as a file by its name', () => {
    renderAt(<GiveIt kind="recipe" id="r1" name="Roe on gull" />);
    const link = screen.getByRole('link', { name: 'As a file for another maker' });
    expect([link.getAttribute('href'), link.getAttribute('download')]).toEqual([
      '/api/give/recipe/r1',
      'Roe on gull.schmelz.json',
    ]);
  });
});

test('taps that did not count stand where something else stood, one or more, until they were seen', async () => {
  fakeApi();
  const tap = (id: string) => ({
    path: '/tickets/x',
    entry: { id, at: new Date(2026, 2, 6, 19, 48).getTime(), kind: 'good' as const, step: 'trim', count: 1 },
    why: `Of ${id} only none wait.`,
  });
  renderAt(<DidNotCount>a clock</DidNotCount>);
  expect(screen.getByText('a clock')).toBeTruthy();
  await act(() => setAside(tap('one') as never));
  expect(await screen.findByRole('button', { name: '1 tap did not count' })).toBeTruthy();
  expect(screen.queryByText('a clock')).toBeNull();
  await act(() => setAside(tap('two') as never));
  await userEvent.click(await screen.findByRole('button', { name: '2 taps did not count' }));
  expect(await screen.findByText(/Of one only none wait/)).toBeTruthy();
  // The same one that is refused again is still one.
  await act(() => setAside(tap('two') as never));
  expect(screen.getAllByRole('button', { name: 'Seen, clear it' })).toHaveLength(2);
  await act(() => clearRefused('one'));
  await act(() => clearRefused('two'));
  await waitFor(() => expect(screen.getByText('a clock')).toBeTruthy());
});

describe('lots that stand out', () => {
  const lot = (more: Partial<LotQuality>): LotQuality => ({
    ...{ lotId: 31, materialId: ids.hook, kind: 'hook', lot: 'spring box', at: new Date(2026, 2, 1).getTime() },
    ...{ tickets: 3, heads: 60, bad: 12, causes: { 'eye full': 3, 'loose hook': 9 }, rest: { heads: 600, bad: 12 } },
    ...{ chance: 0.0001, standsOut: true },
    ...more,
  });
  function With({ lots }: { lots: LotQuality[] }) {
    const catalogue = useCatalogue();
    return catalogue && <Findings key={lots.length} catalogue={catalogue} />;
  }
  const open = (lots: LotQuality[]) => {
    fakeApi({ 'GET /trace/lots': lots });
    renderAt(<With lots={lots} />);
  };
  test('are named with their rejects against those of all others, the cause that came most, and who has them', async () => {
    open([lot({}), lot({ lotId: 32, standsOut: false })]);
    const says = await screen.findByText(/12 of 60 heads thrown back, most as “loose hook”; of other lots 12 of 600/);
    // A fifth against a fiftieth: ten times.
    expect(says.textContent).toMatch(/10|ten/);
    expect(screen.getByText(/Hook 2\/0, spring box, 1 Mar 2026/)).toBeTruthy();
    expect(screen.getByRole('link', { name: /Who has them/ }).getAttribute('href')).toBe('/trace/lot/31');
    expect(screen.getByText('2 lots of hooks and powder compared')).toBeTruthy();
  });
  test('or none does, and it is said what would be compared', async () => {
    open([lot({ standsOut: false })]);
    await screen.findByText(/^None does\./);
  });
});

test('programs of the oven are said with their heat, their time, and what they are counted from', async () => {
  const program = { id: 'p', version: 1, name: 'Slow', setC: 150, seconds: 2400, preheated: false, from: 'metal' };
  fakeApi({
    'GET /bake-programs': [{ ...program }, { ...program, id: 'q', name: 'Hot', preheated: true, from: 'door' }],
  });
  renderAt(<BakeDesk />, '/bake');
  const item = (name: string) => screen.getByText(name).closest('li')!.textContent!;
  await screen.findByText('Slow');
  expect(item('Slow')).toMatch(/150 °C, 40 min, from cold, from warm metal/);
  expect(item('Hot')).toMatch(/oven hot first, from the door/);
});
