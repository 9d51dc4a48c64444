import type { Pour, PourAhead } from '@schmelz/contract';
import type { PourEntry } from '@schmelz/core';
import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { ids, molds, pour, ticket } from '../../test/fixtures.ts';
import { fakeApi, prepareBrowser, renderAt } from '../../test/render.tsx';
import { PourBenchPage } from './PourBench.tsx';
import { PourDesk } from './PourDesk.tsx';

beforeEach(prepareBrowser);

const uuid = (n: number) => `10000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const ago = (seconds: number) => Date.now() - seconds * 1000;
const charged = { id: uuid(1), at: ago(4000), kind: 'charge', massKg: 1.2, potC: 20 } as const;
const blanks = [2, 3].map((n) => ({ id: uuid(n), at: ago(3000 - n * 40), kind: 'blank', moldId: ids.mold }) as const);
const shot = (n: number, seconds: number) =>
  ({ id: uuid(n), at: ago(seconds), kind: 'shot', moldId: ids.mold, positions: [1, 2] }) satisfies PourEntry;

// Every test has a pour of its own: its outbox lives as long as the page.
let pours = 0;
function bench(log: Pour['log']) {
  const id = uuid(900 + (pours += 1));
  const api = fakeApi({ [`GET /pours/${id}`]: pour({ id, log }) });
  renderAt(<PourBenchPage />, `/pour/${id}`, '/pour/:id');
  return api;
}
const said = (api: ReturnType<typeof fakeApi>) => api.writes().map(({ body }) => body as Record<string, unknown>);

describe('at the pot', () => {
  test('cold: the charge is asked for, read in any unit, and nothing else can be said', async () => {
    const api = bench([]);
    const field = await screen.findByLabelText('Weighed into the pot');
    expect((field as HTMLInputElement).value).toBe('1200 g');
    await userEvent.clear(field);
    await userEvent.type(field, 'a lot');
    await userEvent.click(screen.getByRole('button', { name: 'Pot is on' }));
    expect((await screen.findByRole('alert')).textContent).toContain('mass is a lot');
    await userEvent.keyboard(' ');
    expect(api.writes()).toEqual([]);
    await userEvent.clear(field);
    await userEvent.type(field, '1.5 kg');
    await userEvent.click(screen.getByRole('button', { name: 'Pot is on' }));
    await screen.findByText('Melt ready in');
    await waitFor(() => expect(said(api)[0]).toMatchObject({ kind: 'charge', massKg: 1.5 }));
  });

  test('warming: Space is a blank shot until the mold is warm', async () => {
    const api = bench([charged]);
    expect((await screen.findByText('Blank shots to go')).nextSibling!.textContent).toBe('2');
    await userEvent.keyboard(' ');
    expect(await screen.findByText('Open in')).toBeTruthy();
    await userEvent.keyboard(' '); // too early: the mold is still setting
    await waitFor(() => expect(said(api)).toHaveLength(1));
    expect(said(api)[0]).toMatchObject({ kind: 'blank', moldId: ids.mold });
  });

  test('pouring: Space is a shot of the cavities that are wanted, and the plan adjusts', async () => {
    const api = bench([charged, ...blanks, shot(10, 200)]);
    await screen.findByText('Shots to go');
    expect(screen.getByText('Shot 1').parentElement!.textContent).toMatch(/Shot 1 of 7, 2 blank/);
    await userEvent.keyboard(' ');
    await waitFor(() => expect(said(api)[0]).toMatchObject({ kind: 'shot', moldId: ids.mold, positions: [1, 2] }));
    expect(screen.getByText('Shot 2')).toBeTruthy();
  });

  test('a tap beside every button is Space; a tap on a button is that button', async () => {
    const api = bench([charged, ...blanks, shot(10, 200)]);
    await userEvent.click(await screen.findByText('Shots to go'));
    await waitFor(() => expect(said(api)[0]).toMatchObject({ kind: 'shot', positions: [1, 2] }));
    await userEvent.click(screen.getByText('Open in')); // too early: nothing is said
    await userEvent.click(screen.getByRole('button', { name: 'P Pause' }));
    await waitFor(() => expect(said(api).map(({ kind }) => kind)).toEqual(['shot', 'pause']));
  });

  test('a digit marks a bad head, a letter gives the cause, the digit again takes it back', async () => {
    const api = bench([charged, ...blanks, shot(10, 100)]);
    await screen.findByText('Shots to go');
    await userEvent.keyboard('2');
    const cavity = await screen.findByRole('button', { name: 'Cavity 2: 0 good. Last one is bad, short' });
    expect(cavity.getAttribute('aria-pressed')).toBe('true');
    await userEvent.keyboard('v');
    await screen.findByRole('button', { name: 'Cavity 2: 0 good. Last one is bad, void' });
    await userEvent.keyboard('2');
    await screen.findByRole('button', { name: 'Cavity 2: 1 good. Last one was good' });
    await waitFor(() => expect(said(api).map(({ kind }) => kind)).toEqual(['reject', 'undo', 'reject', 'undo']));
    expect(said(api)[2]).toMatchObject({ cause: 'void', shotId: uuid(10), position: 2 });
  });

  test('a cavity that was not filled cannot be bad; an unused one is named so', async () => {
    const api = bench([charged, ...blanks, { ...shot(10, 100), positions: [1] }]);
    await screen.findByText('Shots to go');
    await userEvent.keyboard('2');
    expect((screen.getByRole('button', { name: /^Cavity 2/ }) as HTMLButtonElement).disabled).toBe(true);
    expect(screen.getByText('not used')).toBeTruthy();
    expect(api.writes()).toEqual([]);
  });

  test('undo names what it takes back; pause stops the work', async () => {
    const api = bench([charged, ...blanks, shot(10, 100)]);
    await screen.findByText('Shots to go');
    expect(screen.getByRole('button', { name: 'Z Undo shot' })).toBeTruthy();
    await userEvent.keyboard('z');
    await waitFor(() => expect(said(api)[0]).toMatchObject({ kind: 'undo', target: uuid(10) }));
    await userEvent.keyboard('p');
    expect(await screen.findByText('Paused')).toBeTruthy();
    await userEvent.keyboard(' ');
    await userEvent.keyboard('p');
    await waitFor(() => expect(said(api).map(({ kind }) => kind)).toEqual(['undo', 'pause', 'resume']));
  });

  test('lead that is added is said with its mass', async () => {
    const api = bench([charged, ...blanks, shot(10, 100)]);
    await screen.findByText('Shots to go');
    await userEvent.keyboard('a');
    await userEvent.type(await screen.findByLabelText('How much'), '400 g');
    await userEvent.click(screen.getByRole('button', { name: 'It is in' }));
    await waitFor(() => expect(said(api)[0]).toMatchObject({ kind: 'feed', massKg: expect.closeTo(0.4, 9) }));
  });

  test.each([
    ['f', 'flash'],
    ['v', 'void'],
    ['l', 'loose hook'],
    ['e', 'eye full'],
    ['n', 'no pin'],
    ['q', 'wrong hook'],
    ['o', 'other'],
  ])('%s gives the marked head its cause: %s', async (key, cause) => {
    const api = bench([charged, ...blanks, shot(10, 100)]);
    await screen.findByText('Shots to go');
    await userEvent.keyboard(key);
    expect(api.writes()).toEqual([]); // none is marked yet
    await userEvent.keyboard('1');
    await screen.findByRole('button', { name: 'Cavity 1: 0 good. Last one is bad, short' });
    await userEvent.keyboard(key);
    await screen.findByRole('button', { name: `Cavity 1: 0 good. Last one is bad, ${cause}` });
    await waitFor(() => expect(said(api).map(({ kind }) => kind)).toEqual(['reject', 'undo', 'reject']));
    expect(said(api)[2]).toMatchObject({ cause, shotId: uuid(10), position: 1 });
    // Of the same cause again it is as it was.
    await userEvent.keyboard(key);
    await userEvent.keyboard('p');
    await waitFor(() => expect(said(api).at(-1)).toMatchObject({ kind: 'pause' }));
    expect(said(api)).toHaveLength(4);
  });

  test.each([
    ['m', { kind: 'smoked', moldId: ids.mold }],
    ['j', { kind: 'done', what: 'skimmed' }],
    ['b', { kind: 'blank', moldId: ids.mold }],
  ])('%s is said at once', async (key, entry) => {
    const api = bench([charged, ...blanks, shot(10, 100)]);
    await screen.findByText('Shots to go');
    await userEvent.keyboard(key);
    await waitFor(() => expect(said(api)[0]).toMatchObject(entry));
    expect(said(api)).toHaveLength(1);
  });

  test.each([
    ['a', 'How much'],
    ['i', 'It weighs'],
  ])('%s asks first, and nothing is said until it is answered', async (key, label) => {
    const api = bench([charged, ...blanks, shot(10, 100)]);
    await screen.findByText('Shots to go');
    await userEvent.keyboard(key);
    await screen.findByLabelText(label);
    await userEvent.keyboard('{Escape}');
    await waitFor(() => expect(screen.queryByLabelText(label)).toBeNull());
    expect(api.writes()).toEqual([]);
  });

  test('while it is blank shots that are due, G goes on with hooks and B is no key', async () => {
    const api = bench([charged, blanks[0]!]);
    await screen.findByText('Blank shots to go');
    await userEvent.keyboard('b');
    await userEvent.keyboard('g');
    await waitFor(() => expect(said(api)).toHaveLength(1));
    expect(said(api)[0]).toMatchObject({ kind: 'shot', moldId: ids.mold });
  });

  test('the closing sheet is filled in so that every gram is somewhere, by the counts of the log', async () => {
    const log = [charged, ...blanks, ...[1, 2, 3, 4, 5].map((n) => shot(10 + n, 700 - n * 90))];
    const bad = {
      id: uuid(60),
      at: ago(240),
      kind: 'reject',
      shotId: uuid(15),
      position: 2,
      cause: 'short',
      goes: 'melt',
    } as const;
    bench([...log, bad]);
    await screen.findByText(/Shots? to go/);
    await userEvent.keyboard('w');
    const sheet = within(await screen.findByRole('dialog'));
    const grams = (label: RegExp) => Number.parseFloat((sheet.getByLabelText(label) as HTMLInputElement).value);
    // Nine good heads and a short one of 10 g, ten sprues of 3 g, and two blank shots of two cavities with theirs.
    expect(sheet.getByText('In good heads, by count').nextSibling!.textContent).toBe('90 g');
    expect(grams(/sprue/i)).toBeCloseTo(10 * 3, 1);
    expect(grams(/reject/i)).toBeCloseTo(10, 1);
    // What is skimmed off is a share of what was charged; the rest of the 1200 g is still in the pot.
    const dross = grams(/dross|skimmed/i);
    expect(dross).toBeGreaterThan(0);
    expect(dross).toBeLessThan(1200 * 0.05);
    expect(90 + 30 + 10 + dross + grams(/left in the pot/i)).toBeCloseTo(1200, 0);
    expect(sheet.getAllByText('expected, not weighed').length).toBe(4);
    expect(sheet.getByText('Unexplained').nextSibling!.textContent).toBe('0 g');
    expect(sheet.getByText(/Some tickets still want heads/)).toBeTruthy();
  });

  test('closing: what is expected is filled in, what is weighed replaces it, the rest is shown', async () => {
    const api = bench([charged, ...blanks, ...[1, 2, 3, 4, 5, 6].map((n) => shot(10 + n, 700 - n * 90))]);
    await screen.findByText('All heads are there');
    await userEvent.keyboard(' '); // the pot goes off first
    await screen.findByRole('button', { name: 'Space Weigh back and close' });
    await userEvent.keyboard('z'); // said too early: undone, it is asked for again
    await screen.findByRole('button', { name: 'Space The pot is off' });
    await userEvent.keyboard(' ');
    await screen.findByRole('button', { name: 'Space Weigh back and close' });
    await userEvent.keyboard(' ');
    const sheet = await screen.findByRole('dialog');
    const unexplained = () => within(sheet).getByText('Unexplained').nextSibling!.textContent;
    expect(unexplained()).toBe('0 g');
    const heel = within(sheet).getByLabelText('Left in the pot') as HTMLInputElement;
    const before = Number.parseInt(heel.value);
    await userEvent.clear(heel);
    await userEvent.type(heel, `${before - 20} g`);
    expect(Math.abs(Number.parseFloat(unexplained()!) - 20)).toBeLessThan(1);
    await userEvent.click(within(sheet).getByRole('button', { name: 'Close the pour' }));
    await waitFor(() =>
      expect(said(api)[3]).toMatchObject({ kind: 'close', heelKg: expect.closeTo((before - 20) / 1000, 9) }),
    );
    expect(await screen.findByText(/Pour 3, closed/)).toBeTruthy();
    expect(screen.getByText('What became of the lead')).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: 'Open it again' }));
    expect(await screen.findByText('All heads are there')).toBeTruthy();
  });
});

describe('before the pour', () => {
  const waiting = ticket({ poured: 0, missing: 12, toCast: 12, pourClosed: false, pourId: null, pourCauses: {} });
  const casts = { expected: 34.2, provision: 52, least: 25 };
  const ahead = (more: Partial<PourAhead> = {}): PourAhead => ({
    ...{ casts, tickets: [{ id: ids.ticket, toCast: 25, casts }], bent: [], plannedS: 3000, chargeKg: 2 },
    leftOut: [],
    molds: [{ moldId: ids.mold, blanks: 3, shots: 17 }],
    needs: [{ materialId: ids.hook, name: 'Hook 2/0', kind: 'hook', need: 31, have: 40, missing: 0 }],
    ...more,
  });
  const started = (api: ReturnType<typeof fakeApi>) => api.writes().filter(({ path }) => path === '/pours');

  test('what a pour would take is said before it is begun, what is short of it and what is bent first', async () => {
    const short = { materialId: ids.hook, name: 'Hook 2/0', kind: 'hook', need: 31, have: 25, missing: 6 };
    const bent = {
      materialId: ids.hook,
      name: 'Hook 2/0',
      says: 'open the eye from 45° to 60° in pliers first',
      seconds: 240,
    };
    fakeApi({
      'GET /line': { tickets: [waiting], pours: [], runs: [] },
      'POST /pours/prepare': ahead({ needs: [short], bent: [bent] }),
    });
    renderAt(<PourDesk />);
    expect((await screen.findByText(/about 34 casts, up to 52/)).parentElement!.textContent).toMatch(/17 shots; 50/);
    expect(screen.getByText('Short of Hook 2/0')).toBeTruthy();
    const [row] = screen.getAllByText('Hook 2/0').map((each) => each.closest('li')!);
    expect(row!.textContent).toBe('Hook 2/0316 missing');
    expect(screen.getByText(/open the eye from 45° to 60° in pliers first, 4/)).toBeTruthy();
  });

  test('a ticket goes to the molds that it was planned for, shared as it was planned', async () => {
    const three = molds[0]!;
    const twin = { ...three, id: uuid(60), name: 'Twin', cavities: three.cavities.slice(0, 2) };
    const planned = {
      ...waiting.planned,
      molds: [
        { moldId: twin.id, casts: 10 },
        { moldId: ids.mold, casts: 4 },
      ],
    };
    const api = fakeApi({
      'GET /line': { tickets: [{ ...waiting, planned }], pours: [], runs: [] },
      ...{ 'GET /molds': [three, twin], 'POST /pours': pour(), 'POST /pours/prepare': ahead() },
    });
    renderAt(<PourDesk />);
    await userEvent.click(await screen.findByRole('button', { name: /^To the pot/ }));
    await waitFor(() => expect(started(api)).toHaveLength(1));
    expect(started(api)[0]!.body).toMatchObject({
      moldIds: [twin.id, ids.mold],
      planned: planned.molds.map((mold) => ({ ticketId: ids.ticket, ...mold })),
    });
  });

  test('a ticket that is not cast with the others is named, with what keeps it from it', async () => {
    const why = 'another hook, or a lighter head, goes into its cavities first';
    fakeApi({
      'GET /line': { tickets: [waiting], pours: [], runs: [] },
      'POST /pours/prepare': ahead({ leftOut: [{ id: uuid(99), number: 107, name: 'Heavy', why }] }),
    });
    renderAt(<PourDesk />);
    expect(
      await screen.findByText(new RegExp(`^Ticket 107, Heavy, is left out: ${why}. Pour it afterwards.`)),
    ).toBeTruthy();
  });

  test('tickets are grouped by the mold that casts them; those that are not ticked stay', async () => {
    const second = { ...waiting, id: uuid(50), number: 102 };
    const api = fakeApi({
      'GET /line': { tickets: [waiting, second], pours: [], runs: [] },
      'POST /pours': pour(),
      'POST /pours/prepare': ahead(),
    });
    const { router } = renderAt(<PourDesk />);
    await screen.findByRole('heading', { name: 'Three' });
    expect(screen.getByRole('heading', { level: 1 }).parentElement!.textContent).toContain('24');
    await userEvent.click(screen.getByRole('checkbox', { name: /102/ }));
    await userEvent.click(screen.getByRole('button', { name: 'To the pot' }));
    await waitFor(() => expect(router.state.location.pathname).toBe(`/pour/${ids.pour}`));
    expect(started(api)[0]!.body).toEqual({ moldIds: [ids.mold], atOnce: 1, potId: ids.pot, ticketIds: [ids.ticket] });
  });

  test.each([
    ['on two molds that share it', [], { atOnce: 2, spread: true }, 2],
    ['on another mold than the best', ['Three'], { atOnce: 1 }, 1],
  ])('one head is cast %s, as it is ticked', async (_, off, more, count) => {
    const three = molds[0]!;
    const twin = { ...three, id: uuid(60), name: 'Twin', cavities: three.cavities.slice(0, 2) };
    const api = fakeApi({
      'GET /line': { tickets: [waiting], pours: [], runs: [] },
      'GET /molds': [three, twin],
      'POST /pours': pour(),
      'POST /pours/prepare': ahead(),
    });
    renderAt(<PourDesk />);
    const best = await screen.findByRole('button', { name: 'Three' });
    // The only one cannot be taken away.
    expect((best as HTMLButtonElement).disabled).toBe(true);
    await userEvent.click(screen.getByRole('button', { name: 'Twin' }));
    for (const name of off) await userEvent.click(screen.getByRole('button', { name }));
    await userEvent.click(screen.getByRole('button', { name: /^To the pot/ }));
    await waitFor(() => expect(started(api)).toHaveLength(1));
    expect(started(api)[0]!.body).toEqual({
      ...more,
      ...{ moldIds: count === 2 ? [ids.mold, twin.id] : [twin.id], potId: ids.pot, ticketIds: [ids.ticket] },
    });
  });

  test('a ticket that no mold casts is named, an open pour is led back to', async () => {
    const misfit = { ...waiting, number: 103, productId: ids.bare };
    fakeApi({
      'GET /line': { tickets: [misfit], pours: [pour({ setup: { ...pour().setup, needs: {} } })], runs: [] },
      'GET /molds': [],
    });
    renderAt(<PourDesk />);
    expect(await screen.findByText(/Ticket 103: no mold casts this head/)).toBeTruthy();
    expect(screen.getByRole('link', { name: 'Back to pour 3' })).toBeTruthy();
  });
});

describe('the coach at the bench', () => {
  const MINUTE = 60_000;
  const began = () => Date.now() - 40 * MINUTE;
  const at = (id: string, minutes: number, said: Record<string, unknown>) => ({
    id,
    at: began() + minutes * MINUTE,
    ...said,
  });
  const shots = (from: number) =>
    [0, 1, 2, 3].map((i) => at(`s${i}`, from + i, { kind: 'shot', moldId: ids.mold, positions: [1, 2] }));
  const warm = () =>
    Array.from({ length: 12 }, (_, i) => at(`b${i}`, 26 + i / 2.5, { kind: 'blank', moldId: ids.mold }));
  const open = (log: unknown[]) => {
    const id = uuid(9000 + (pours += 1));
    const api = fakeApi({ [`GET /pours/${id}`]: pour({ id, log: log as never }) });
    renderAt(<PourBenchPage />, `/pour/${id}`, '/pour/:id');
    return api;
  };

  test('shows the mold in its window, and what three shorts in one cavity want first', async () => {
    const shorts = [1, 2, 3].map((i) =>
      at(`r${i}`, 36.1, { kind: 'reject', shotId: `s${i}`, position: 2, cause: 'short' }),
    );
    open([at('c', 0, { kind: 'charge', massKg: 3, potC: 20 }), ...warm(), ...shots(32), ...shorts]);
    const panel = within(await screen.findByRole('region', { name: 'Coach' }));
    expect(panel.getByText(/Cavity 2: 3 shorts in its last 4. Try first:/)).toBeTruthy();
    expect(panel.getByText(/^1\. .*index ×/)).toBeTruthy();
    const stub = within(screen.getByRole('region', { name: 'What to do' }));
    expect(stub.getByText(/^(cold|in its window|too hot)$/)).toBeTruthy();
  });

  test('flash on the whole strip is one key; the coach then asks what holds it open', async () => {
    const api = open([at('c', 0, { kind: 'charge', massKg: 3, potC: 20 }), ...warm(), ...shots(35)]);
    await screen.findByRole('region', { name: 'Coach' });
    await userEvent.keyboard('x');
    await waitFor(() =>
      expect(api.writes().map(({ body }) => (body as { cause: string }).cause)).toEqual(['flash', 'flash']),
    );
    expect((await screen.findAllByText(/a hook or a crumb holds it open/)).length).toBeGreaterThan(0);
  });

  test('the safety list is ticked before the pot is on, and kept with the pour', async () => {
    const api = open([]);
    await userEvent.click(await screen.findByLabelText('Fan on, door open'));
    await userEvent.click(screen.getByRole('button', { name: 'Pot is on' }));
    await waitFor(() =>
      expect(api.writes().map(({ body }) => (body as { kind: string }).kind)).toEqual(['checked', 'charge']),
    );
    expect(api.writes()[0]!.body).toMatchObject({ items: ['Fan on, door open'] });
  });

  test('kept as second grade, short at the nose, re-dipped, hooks left, weighed: two taps each', async () => {
    const api = open([at('c', 0, { kind: 'charge', massKg: 3, potC: 20 }), ...warm(), ...shots(35)]);
    const last = () => api.writes().at(-1)?.body;
    await screen.findByRole('region', { name: 'Coach' });
    await userEvent.keyboard('2');
    await userEvent.click(await screen.findByRole('button', { name: 'nose' }));
    await userEvent.keyboard('d');
    await waitFor(() =>
      expect(last()).toMatchObject({ kind: 'reject', position: 2, where: 'nose', goes: 'second grade' }),
    );
    expect(await screen.findByText('1 second grade')).toBeTruthy();
    await userEvent.keyboard('d');
    await userEvent.keyboard('r');
    await waitFor(() => expect(last()).toMatchObject({ where: 'nose', goes: 'parts back' }));
    expect(await screen.findByText(/Pin out first/)).toBeTruthy();
    await userEvent.keyboard('u');
    await userEvent.click(await screen.findByRole('button', { name: 'None left' }));
    await waitFor(() => expect(last()).toMatchObject({ kind: 'hooks', materialId: ids.hook, left: 0 }));
    expect(await screen.findByText('No hook left')).toBeTruthy();
    await userEvent.keyboard('i');
    await userEvent.type(await screen.findByLabelText('It weighs'), '12 g');
    await userEvent.click(screen.getByRole('button', { name: 'Keep it' }));
    await waitFor(() =>
      expect(last()).toMatchObject({ kind: 'weighed', position: 1, massKg: expect.closeTo(0.012, 9) }),
    );
  });

  test('a lost hook and a cavity that is out are two taps each', async () => {
    const api = open([at('c', 0, { kind: 'charge', massKg: 3, potC: 20 }), ...warm(), ...shots(35)]);
    await screen.findByRole('region', { name: 'Coach' });
    await userEvent.keyboard('1');
    await userEvent.click(await screen.findByRole('button', { name: /hook lost/ }));
    await waitFor(() =>
      expect(api.writes().at(-1)?.body).toMatchObject({ kind: 'reject', position: 1, goes: 'hook lost' }),
    );
    await userEvent.click(screen.getByRole('button', { name: /cavity 1 out tonight/ }));
    await waitFor(() => expect(api.writes().at(-1)?.body).toMatchObject({ kind: 'blocked', position: 1 }));
    expect(await screen.findByText('1 short')).toBeTruthy();
  });
});
