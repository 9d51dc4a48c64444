import type { TonightAsked, TonightPlan, TonightWishes } from '@schmelz/core';
import { act, cleanup, renderHook, screen, waitFor, within } from '@testing-library/react';
import { materials, settings } from '../../test/fixtures.ts';
import { fakeApi, prepareBrowser, renderAt } from '../../test/render.tsx';
import { RunSheet } from './RunSheet.tsx';
import { eveningOf, useWishes, wishesOf, type EveningForm } from './wishes.ts';

beforeEach(prepareBrowser);
afterEach(() => {
  cleanup();
  jest.useRealTimers();
});

const local = (text: string) => new Date(text).getTime();
const form = (more: Partial<EveningForm> = {}): EveningForm => ({
  ...{ day: '2026-03-06', from: '18:00', to: '22:30', people: 1, guns: 1, atOnce: 1 },
  ...more,
});

describe('an evening as it is wished', () => {
  test('ends on its own day, or past midnight where its end is before its beginning', () => {
    expect(eveningOf(form())).toEqual({ fromMs: local('2026-03-06T18:00'), toMs: local('2026-03-06T22:30') });
    expect(eveningOf(form({ from: '21:00', to: '01:30' }))).toEqual({
      fromMs: local('2026-03-06T21:00'),
      toMs: local('2026-03-07T01:30'),
    });
    // From noon to noon is a day and not nothing.
    const { fromMs, toMs } = eveningOf(form({ from: '12:00', to: '12:00' }));
    expect(toMs - fromMs).toBe(24 * 3_600_000);
  });

  test('that has begun goes on from now, on the next five minutes; a usual one begins when it does', () => {
    jest.useFakeTimers({ now: local('2026-03-06T19:02:10') });
    const { evenings, usual } = wishesOf(form(), [], {});
    expect(evenings).toEqual([{ fromMs: local('2026-03-06T19:05'), toMs: local('2026-03-06T22:30') }]);
    expect(usual).toEqual({ fromMs: local('2026-03-06T18:00'), toMs: local('2026-03-06T22:30') });
  });

  test('past midnight one that began the day before still goes on', () => {
    jest.useFakeTimers({ now: local('2026-03-07T00:31') });
    const { evenings } = wishesOf(form({ from: '21:00', to: '01:30' }), [], {});
    expect(evenings).toEqual([{ fromMs: local('2026-03-07T00:35'), toMs: local('2026-03-07T01:30') }]);
  });

  test('to come, or over, is as it was asked', () => {
    for (const now of ['2026-03-06T09:00', '2026-03-06T23:00']) {
      jest.useFakeTimers({ now: local(now) });
      expect(wishesOf(form(), [], {}).evenings[0]!.fromMs).toBe(local('2026-03-06T18:00'));
    }
  });

  test('people have their names and what they do not do; as many as there are hands', () => {
    const { people } = wishesOf(form({ people: 2, cannot: [[], ['paint', 'bake']] }), [], {}, [
      'Runa',
      'Tevo',
      'Third',
    ]);
    expect(people).toEqual([
      { name: 'Runa', can: null },
      { name: 'Tevo', can: ['pour', 'trim', 'finish'] },
    ]);
  });

  test('is today until its end, then tomorrow; what was said is kept for the next, what was pinned is not', () => {
    jest.useFakeTimers({ now: local('2026-03-06T22:00') });
    const first = renderHook(() => useWishes(['Runa']));
    expect(first.result.current.form).toMatchObject({ day: '2026-03-06', from: '18:00', to: '22:30', people: 1 });
    expect(first.result.current.names).toEqual(['Runa', 'Second', 'Third', 'Fourth']);
    act(() => first.result.current.pin('task', 600));
    act(() => first.result.current.leave('order 1'));
    expect(first.result.current.wishes).toMatchObject({ pinned: { task: 600 }, leftOut: ['order 1'] });
    act(() => first.result.current.leave('order 1'));
    expect(first.result.current.leftOut).toEqual([]);
    // A beginning is counted from the evening's own: with another evening it is let go.
    act(() => first.result.current.change({ from: '19:00', people: 2 }));
    expect(first.result.current.pinned).toEqual({});
    first.unmount();
    jest.setSystemTime(local('2026-03-06T22:31'));
    const second = renderHook(() => useWishes());
    expect(second.result.current.form).toMatchObject({ day: '2026-03-07', from: '19:00', people: 2 });
  });

  test('what something else has left in the browser is nothing', () => {
    localStorage.setItem('schmelz.evening', '{"from":');
    const { result } = renderHook(() => useWishes());
    expect(result.current.form).toMatchObject({ from: '18:00', to: '22:30' });
  });
});

describe('the run sheet', () => {
  const [lead, hook, white] = materials;
  const startMs = local('2026-03-06T21:00');
  const task = (id: string, station: string, more: object = {}) => ({
    ...{ id, name: id, station, seconds: 600, hands: true, holds: [], after: [], works: ['w'], heads: 12 },
    ...more,
  });
  const placed = (taskId: string, startS: number, more: object = {}) => ({
    ...{ taskId, startS, endS: startS + 600, changeS: 0, person: 0, tools: {} },
    ...more,
  });
  const plan = {
    startMs,
    notMade: [],
    tasks: [
      task('Paint Gull white', 'paint'),
      task('Pour Three', 'pour', { leadS: 900, heads: 14 }),
      task('Bake at 177', 'bake', { hands: false, seconds: 1680 }),
      task('Nothing to do', 'trim', { seconds: 0 }),
    ],
    schedule: {
      placed: [
        placed('Paint Gull white', 7200, { changeS: 120, person: 1 }),
        placed('Pour Three', 900),
        placed('Bake at 177', 12_600, { person: null }),
        placed('Nothing to do', 1500),
      ],
    },
    casts: {
      molds: [
        {
          ...{ moldId: 'm', name: 'Three', shots: 7, blanks: 2, castKg: 0.2, roundKg: 0.016 },
          uses: [{ positions: [1, 2], casts: 14, name: 'Pebble 10 g' }],
        },
      ],
      blanks: [
        {
          ...{ id: 'b', name: 'Pebble 10 g', heads: 12, headKg: 0.01, load: 2, missing: 0, works: ['w'] },
          casts: { expected: 13.2, provision: 14, least: 12 },
        },
      ],
    },
  } as unknown as TonightPlan;
  const product = {
    ...{ id: 'p', style: 'ball', nominalMassKg: 0.01, layers: [], source: 'pour', route: [] },
    hook: { materialId: hook!.id, size: '2/0' },
  };
  const asked = {
    wanted: [{ id: 'w', name: 'Pebble', heads: 12, toCast: 12, left: {}, product }],
    ways: { ...settings.ways, drossShare: 0.015, heelKg: 0.8 },
    leadId: lead!.id,
    stock: [lead, { ...hook!, quantity: 10 }, white].map((each) => ({ ...each!, materialId: each!.id })),
  } as unknown as TonightAsked;
  const wishes = { leftOut: [] } as unknown as TonightWishes;
  async function sheet(people: string[]) {
    fakeApi();
    renderAt(<RunSheet {...{ asked, plan, wishes, people }} />);
    await waitFor(() => expect(screen.getByText('Test shed')).toBeTruthy());
    return screen.getByRole('article', { name: 'Run sheet', hidden: true });
  }
  const rows = (within_: HTMLElement) =>
    [...within_.querySelectorAll('section:not(.break-inside-avoid) li')].map((row) =>
      [...row.children].slice(1).map((cell) => cell.textContent),
    );

  test('is in the order of the clock, each evening past midnight under its own day, who does it beside it', async () => {
    const paper = await sheet(['Runa', 'Tevo']);
    expect(rows(paper)).toEqual([
      ['21:00', 'Pot on', '', '15 min', 'by itself'],
      ['21:15', 'Pour Three', '14', '10 min', 'Runa'],
      ['23:00', 'Paint Gull white (cups 2 min)', '12', '10 min', 'Tevo'],
      ['00:30', 'Bake at 177', '12', '28 min', 'by itself'],
    ]);
    const days = [...paper.querySelectorAll('h2.stamp')].map(({ textContent }) => textContent);
    expect(days.slice(0, 2)).toEqual(['6 Mar 2026', '7 Mar 2026']);
    expect(paper.textContent).toContain('Fri 6 Mar 2026, from 21:00');
  });

  test('of one alone names nobody; what works by itself is said all the same', async () => {
    expect(rows(await sheet(['Runa'])).map((row) => row.at(-1))).toEqual(['by itself', '', '', 'by itself']);
  });

  test('says what goes into which cavity, and what of it is missing on the shelf', async () => {
    const paper = await sheet(['Runa']);
    const pot = within(paper).getByText(/^Three: 2 blank shots, then about 7 shots/);
    expect(pot.textContent).toContain('cavities 1, 2 14 × Pebble 10 g');
    // Hooks for twelve good heads and a load of two, ten here; 120 g in heads, 3 g skimmed off 200 g, 800 g that stay
    // in the pot and 16 g in the mold.
    const out = [...paper.querySelectorAll('ul.columns-2 li')].map(({ textContent }) => textContent);
    expect(out.find((each) => each!.includes('Hook 2/0'))).toMatch(/^14 Hook 2\/0, 4 missing$/);
    expect(out.find((each) => each!.includes('Keel lead'))).toMatch(/^939 g Keel lead$/);
  });

  test('has the cautions of the stations that are worked at, those of lead with those of the pot', async () => {
    const paper = await sheet(['Runa']);
    const cautions = [...paper.querySelectorAll(':scope > ul li')].map(({ textContent }) => textContent!);
    expect(cautions.length).toBeGreaterThan(2);
    expect(cautions.some((each) => /water/i.test(each))).toBe(true);
    expect(new Set(cautions).size).toBe(cautions.length);
  });
});
