import { blankKey, type TonightAsked, type TonightPlan } from '@schmelz/core';
import { cleanup, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { ids, materials, ovenRun, pour as pourAtPot, settings, ticket } from '../../test/fixtures.ts';
import { fakeApi, prepareBrowser, refuse, renderAt } from '../../test/render.tsx';
import { AtThePot, Needs } from './AtThePot.tsx';
import { Beside, type Compared } from './Beside.tsx';
import { ToWork } from './ToWork.tsx';
import type { Wishes } from './wishes.ts';

// An evening that was written down by hand: two orders and something for the shelf, cast in one pour, trimmed and done.
const START_MS = new Date(2026, 2, 6, 18).getTime();
const cast = (id: string, more: object = {}) => ({
  ...{ id, style: 'ball', nominalMassKg: 0.01, massKg: 0.01, layers: [], parts: [], route: [] },
  hook: { materialId: ids.hook, size: '2/0', eyeAngleDeg: 60, massKg: 0.001 },
  ...more,
});
const wanted = (id: string, orderId: string, product: object, more: object = {}) => ({
  ...{ id, orderId, product, name: `Heads ${id}`, customer: '', orderNumber: 7, ticketNumber: null, dueMs: null },
  ...{ heads: 12, toCast: 12, left: {} },
  ...more,
});
const BLANK = 'ball 0.01 2/0 60';
const asked = (list: object[]) =>
  ({
    wanted: list,
    stock: materials.map((each) => ({ ...each, materialId: each.id })),
    ...{ ways: settings.ways, leadId: ids.lead, molds: [] },
    pot: { capacityKg: 9, powerW: 700, lossWPerK: 0.55 },
    oven: { powerW: 1400, places: 60 },
  }) as unknown as TonightAsked;

const task = (id: string, startS: number, seconds: number, more: object = {}) => ({
  task: { id, name: id, works: ['a'], station: 'trim', step: 'trim', hands: true, holds: [], after: [], ...more },
  startS,
  seconds,
});
/** A plan of tasks in a row, each for the first pair of hands. */
const planned = (tasks: ReturnType<typeof task>[], more: object = {}) => {
  const placed = tasks.map(({ startS, seconds }) => ({ startS, endS: startS + seconds, person: 0, tools: {} }));
  return {
    tasks: tasks.map(({ task: each, seconds }) => ({ ...each, seconds, heads: 12 })),
    schedule: { placed, endS: Math.max(...placed.map(({ endS }) => endS)) },
    startMs: START_MS,
    windows: [{ fromS: 0, toS: 4.5 * 3600 }],
    ...{
      ends: [],
      notMade: [],
      pours: [],
      casts: { blanks: [], molds: [], says: [], optimal: true, seconds: 600, boundS: 600 },
    },
    ...more,
  } as unknown as TonightPlan;
};
const poured = (works: string[], more: object = {}) => ({
  moldIds: [ids.mold],
  ...{ id: 'pour 1', works, meltS: 540, pins: [], round: 0, rounds: 1, seconds: 900 },
  molds: [
    {
      ...{ moldId: ids.mold, name: 'Three', shots: 7, blanks: 2, castKg: 0.5, roundKg: 0.02 },
      uses: [{ blankId: BLANK, name: 'Ball 10 g', positions: [1, 2], casts: 14 }],
    },
  ],
  ...more,
});

beforeEach(() => prepareBrowser());
afterEach(cleanup);

describe('a plan that goes to work', () => {
  const product = cast(ids.product);
  const own = blankKey(product as never);
  const pour = (works: string[]) => {
    const one = poured(works);
    return { ...one, molds: one.molds.map((mold) => ({ ...mold, uses: [{ ...mold.uses[0]!, blankId: own }] })) };
  };
  const trim = task('trim', 900, 600);
  const released = (orderId: string, ticketId: string) => [
    ticket({ id: ticketId, orderId, productId: ids.product, quantity: 12 }),
  ];

  test('orders are released, what is for the shelf gets one of its own, and the pour is set up for all of them', async () => {
    const made = { id: 'shelf order' };
    const api = fakeApi({
      [`POST /orders/${ids.order}/release`]: released(ids.order, 'ticket a'),
      'POST /orders': made,
      'POST /orders/shelf order/release': released('shelf order', 'ticket b'),
      'POST /pours': { id: 'new pour' },
    });
    const all = asked([
      wanted('a', ids.order, product),
      wanted('b', '', product, { heads: 30 }),
      wanted('c', ids.order, product, { ticketNumber: 101 }),
    ]);
    const ends = ['a', 'b', 'c'].map((id) => ({ id, endMs: START_MS, lateS: 0 }));
    const plan = planned([trim], { pours: [pour(['a', 'b', 'c'])], ends });
    const { router } = renderAt(<ToWork asked={all} plan={plan} />, '/tonight');
    const button = screen.getByRole<HTMLButtonElement>('button', { name: 'To the pot: Three' });
    await waitFor(() => expect(button.disabled).toBe(false));
    await userEvent.click(button);
    await waitFor(() => expect(router.state.location.pathname).toBe('/pour/new pour'));
    const [release, order, ofShelf, pot] = api.writes();
    expect(release!.path).toBe(`/orders/${ids.order}/release`);
    expect(order!.body).toEqual({
      ...{ customer: '', dueOn: null, note: '' },
      lines: [{ productId: ids.product, quantity: 30 }],
    });
    expect(ofShelf!.path).toBe('/orders/shelf order/release');
    // Tickets that there were go with those that have just been made, each with what its mold is to cast.
    const ticketIds = ['ticket a', 'ticket b', 'c'];
    expect(pot!.body).toEqual({
      ...{ moldIds: [ids.mold], atOnce: 1, potId: ids.pot, ticketIds },
      planned: ticketIds.map((ticketId) => ({ ticketId, moldId: ids.mold, casts: 14 })),
    });
    // The line follows the plan by the order that the shelf's heads have now.
    const kept = JSON.parse(localStorage.getItem('schmelz.followed')!) as { heads: { orderId: string }[] };
    expect(kept.heads.map(({ orderId }) => orderId)).toEqual([ids.order, 'shelf order', ids.order]);
  });

  test('an order that the plan has no place for is not released; with nothing to pour the line is next', async () => {
    const api = fakeApi({});
    const all = asked([wanted('a', ids.order, product, { ticketNumber: 101 }), wanted('b', 'another', product)]);
    const plan = planned([trim], { ends: [{ id: 'a', endMs: START_MS, lateS: 0 }] });
    const { router } = renderAt(<ToWork asked={all} plan={plan} />, '/tonight');
    const button = screen.getByRole<HTMLButtonElement>('button', { name: 'To work' });
    await waitFor(() => expect(button.disabled).toBe(false));
    await userEvent.click(button);
    await waitFor(() => expect(router.state.location.pathname).toBe('/'));
    expect(api.writes()).toEqual([]);
  });

  test('while something runs, its main key leads there; the plan waits behind it', async () => {
    const plan = planned([trim], { ends: [{ id: 'a', endMs: START_MS, lateS: 0 }] });
    const all = asked([wanted('a', ids.order, product, { ticketNumber: 101 })]);
    const page = async (more: Record<string, unknown>) => {
      cleanup();
      fakeApi({ 'GET /line': { tickets: [], pours: [], runs: [], ...more } });
      renderAt(<ToWork asked={all} plan={plan} />, '/tonight');
      return (await screen.findByRole('link')).getAttribute('href');
    };
    expect(await page({ pours: [pourAtPot()] })).toBe(`/pour/${ids.pour}`);
    expect(screen.getByRole('link').textContent).toBe('Back to the pot');
    const load = ovenRun({ ticketId: ids.ticket, count: 12 }, { id: 'load', at: Date.now() });
    expect(await page({ runs: [load] })).toBe(`/bake/load/${load.id}`);
    expect(screen.getByRole('button', { name: 'To work' })).toBeTruthy();
    // One that has come out runs no more.
    fakeApi({});
    cleanup();
    const out = ovenRun({ ticketId: ids.ticket, count: 12 }, { id: 'load', at: Date.now() }, {
      id: 'out',
      at: Date.now() + 1000,
      kind: 'unload',
      coolS: 60,
    } as never);
    fakeApi({ 'GET /line': { tickets: [], pours: [], runs: [out] } });
    renderAt(<ToWork asked={all} plan={plan} />, '/tonight');
    await waitFor(() => expect(screen.getByRole<HTMLButtonElement>('button').disabled).toBe(false));
    expect(screen.queryByRole('link')).toBeNull();
  });

  test('a refusal is said, nothing more is asked, and the page stays', async () => {
    const problem = refuse(409, { title: 'Not possible', detail: 'Order 7 is closed.' });
    const api = fakeApi({ [`POST /orders/${ids.order}/release`]: problem });
    const plan = planned([trim], {
      pours: [pour(['a'])],
      ends: [{ id: 'a', endMs: START_MS, lateS: 0 }],
    });
    const { router } = renderAt(<ToWork asked={asked([wanted('a', ids.order, product)])} plan={plan} />, '/tonight');
    const button = screen.getByRole<HTMLButtonElement>('button', { name: 'To the pot: Three' });
    await waitFor(() => expect(button.disabled).toBe(false));
    await userEvent.click(button);
    expect(await screen.findByText(/Order 7 is closed/)).toBeTruthy();
    expect(api.writes()).toHaveLength(1);
    expect(router.state.location.pathname).toBe('/tonight');
    expect(localStorage.getItem('schmelz.followed')).toBeNull();
  });
});

describe('at the pot', () => {
  const at = (plan: TonightPlan) => {
    fakeApi({});
    renderAt(<AtThePot plan={plan} />, '/tonight');
  };
  test('each mold with its blank shots, its shots and what goes into which cavity', async () => {
    at(planned([task('trim', 0, 60)], { pours: [poured(['a'])] }));
    const row = (await screen.findAllByRole('listitem'))[0]!;
    expect(row.textContent).toMatch(/Three 2 blank shots first, .* through it/);
    expect(row.textContent).toContain('cavities 1, 2: 14 × Ball 10 g');
    expect(row.textContent).toContain('7shots');
    expect(row.textContent).toContain('melts in 9 min');
    expect(screen.getByText('No choice of molds and cavities takes less time at the pot.')).toBeTruthy();
  });

  test('a round of pins says which round it is and what it waits for', async () => {
    const pins = [0.003175];
    at(planned([task('trim', 0, 60)], { pours: [poured(['a'], { pins, round: 1, rounds: 3 })] }));
    expect((await screen.findAllByRole('listitem'))[0]!.textContent).toMatch(
      /round 2 of 3, melts in 9 min; when the pins of .+ are back from the heads before/,
    );
  });

  // A minute at the pot is no loss; what is more is said as it is.
  test.each([
    [659, 600, 'No choice of molds and cavities takes less time at the pot.'],
    [900, 600, 'At most 5 min more at the pot than the best there can be.'],
  ])('%d s planned where the least is %d', async (seconds, boundS, says) => {
    const casts = { blanks: [], molds: [], says: ['Sprues go back.'], optimal: false, seconds, boundS };
    at(planned([task('trim', 0, 60)], { pours: [poured(['a'])], casts }));
    expect(await screen.findByText(says)).toBeTruthy();
    expect(screen.getByText('Sprues go back.')).toBeTruthy();
  });

  test('without a pour it is said, and no word is lost on molds', async () => {
    at(planned([task('trim', 0, 60)]));
    expect(await screen.findByText('Nothing is poured tonight.')).toBeTruthy();
    expect(screen.queryByText(/choice of molds/)).toBeNull();
  });
});

describe('what it takes off the shelf', () => {
  const none = { wishes: { leftOut: [] } } as unknown as Wishes;
  const blanks = (count: number) => ({
    blanks: [
      {
        ...{ id: BLANK, heads: count, headKg: 0.01, load: 2, missing: 0, works: ['a'] },
        casts: { expected: count + 1, provision: count + 20, least: count },
      },
    ],
    molds: [{ castKg: 0.14, roundKg: 0.02 }],
    ...{ says: [], optimal: true, seconds: 600, boundS: 600 },
  });
  const needs = (count: number) => {
    fakeApi({});
    const pour = task('pour', 3600, 900, { station: 'pour', step: 'pour', leadS: 600 });
    const plan = planned([pour], { casts: blanks(count), pours: [] });
    renderAt(
      <Needs asked={asked([wanted('a', ids.order, cast(ids.product))])} plan={plan} wishes={none} />,
      '/tonight',
    );
  };
  // One in twenty of twenty rejects loses its hook, and two lie in the mold: three more than good heads.
  test('hooks for good heads, the lost and one load, beside what is here', async () => {
    needs(11);
    const row = (await screen.findByText('Hook 2/0')).closest('li')!;
    expect(row.textContent).toBe('Hook 2/01440 here');
  });
  test('what is missing stands first, with the time when the pot wants it', async () => {
    needs(49);
    const [first] = await screen.findAllByRole('listitem');
    // 49 good, 3 more, 40 hooks; the pot is lit ten minutes before the pour at 19:00.
    expect(first!.textContent).toMatch(/^Hook 2\/052.*12 missing, by 18:50$/);
  });
});

describe('two plans side by side', () => {
  const compared = (says: string, tasks: ReturnType<typeof task>[], sure: number, more: object = {}): Compared => ({
    ...{ says, plan: planned(tasks, more), people: ['You'], sure },
  });
  const both = (onTake: (() => void) | null, onClose = () => {}) => {
    const two = [
      compared('As planned', [task('trim', 0, 3600), task('bake', 3600, 1800, { hands: false })], 0.62, {
        ends: [{ id: 'a', endMs: START_MS, lateS: 60 }],
      }),
      compared('A helper', [task('trim', 0, 1800), task('bake', 1800, 1800, { hands: false })], 0.94),
    ] as const;
    fakeApi({});
    renderAt(<Beside {...{ two, onTake, onClose }} asked={asked([])} untilMs={START_MS + 4 * 3600_000} />, '/tonight');
  };
  const row = (name: string) =>
    [...screen.getByText(name).closest('tr')!.cells].slice(1).map((cell) => cell.textContent);

  test('end, hands and their hours, chance and what is late, each of both', async () => {
    both(null);
    expect(await screen.findByRole('columnheader', { name: 'A helper' })).toBeTruthy();
    expect(row('Over at')).toEqual(['19:30', '19:00']);
    // Nobody stands at an oven: an hour of hands, and half of it, at the rate of the settings.
    expect(row('Hands at work')).toEqual(['60 min', '30 min']);
    const [hour, half] = row('Their hours cost').map((cell) => Number(cell!.replace(/[^\d.]/g, '')));
    expect(hour).toBeCloseTo(settings.ways.labourMinorPerHour / 100, 2);
    expect(half).toBeCloseTo(hour! / 2, 2);
    expect(row('Over by 22:00')).toEqual(['62 in a hundred', '94 in a hundred']);
    expect(row('Orders late')).toEqual(['1', 'none']);
    // Both evenings stand on the same hours: the longer one is as wide as its strip.
    const strip = within(screen.getByRole('figure', { name: 'The evening: A helper' }));
    expect(strip.getByTitle(/^trim, 18:00 to 18:30$/).style.width).toContain(`${(100 * 1800) / 5400}%`);
    expect(screen.queryByRole('button', { name: 'Plan so' })).toBeNull();
  });

  test('it is taken, or put away', async () => {
    const did: string[] = [];
    both(
      () => did.push('taken'),
      () => did.push('away'),
    );
    await userEvent.click(await screen.findByRole('button', { name: 'Plan so' }));
    await userEvent.click(screen.getByRole('button', { name: 'Put it away' }));
    expect(did).toEqual(['taken', 'away']);
  });
});
