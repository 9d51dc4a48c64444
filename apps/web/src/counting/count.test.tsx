import type { Ticket } from '@schmelz/contract';
import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { ids, ovenRun, ovens, ticket } from '../test/fixtures.ts';
import { BENCHES } from '../test/benches.ts';
import { fakeApi, prepareBrowser, renderAt } from '../test/render.tsx';
import {
  bakeCourse,
  bakeCurve,
  bakeNow,
  goesAsDrawn,
  headsInLoad,
  lastFull,
  ovenState,
  ROUTE_TEMPLATES,
  usualRoute,
  type OvenLog,
} from '@schmelz/core';
import { keptProduct } from '../test/fixtures.ts';
import { CountBenchPage } from './CountBench.tsx';
import { BakeBench } from '../stations/bake/BakeBench.tsx';
import { PaintBench } from '../stations/paint/PaintBench.tsx';
import { TrimBench } from '../stations/trim/TrimBench.tsx';
import { CountDesk } from './CountDesk.tsx';

beforeEach(prepareBrowser);

const uuid = (n: number) => `20000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const ago = (seconds: number) => Date.now() - seconds * 1000;
const good = (n: number, step: string, count: number, seconds = 500) => ({
  id: uuid(n),
  at: ago(seconds),
  kind: 'good' as const,
  step,
  count,
});

// Every test has a ticket of its own: its outbox lives as long as the page.
let id = '';
let tickets = 0;
beforeEach(() => {
  id = uuid(900 + (tickets += 1));
});
function bench(station: string, log: Ticket['log'], more: Record<string, unknown> = {}) {
  const api = fakeApi({ [`GET /tickets/${id}`]: ticket({ id, log }), ...more });
  renderAt(<CountBenchPage station={station} Bench={BENCHES[station]} />, `/${station}/${id}`, `/${station}/:id`);
  return api;
}
const said = (api: ReturnType<typeof fakeApi>) => api.writes().map(({ body }) => body as Record<string, unknown>);
const left = (heading: string) => screen.getByText(heading).nextSibling!.textContent;

describe('counting', () => {
  test('Space is one good head, a digit a bad one with its cause, G all the rest', async () => {
    const api = bench('trim', []);
    await screen.findByText('Left to trim');
    await waitFor(() => expect(left('Left to trim')).toBe('12'));
    await userEvent.keyboard(' ');
    await userEvent.keyboard('2');
    await waitFor(() => expect(left('Left to trim')).toBe('10'));
    expect(screen.getAllByText('1 void')[0]).toBeTruthy();
    await userEvent.keyboard('g');
    expect(await screen.findByText('All seen here')).toBeTruthy();
    expect(screen.getByRole('link', { name: 'On to paint' }).getAttribute('href')).toBe(`/paint/${id}`);
    await waitFor(() => expect(said(api)).toHaveLength(3));
    expect(said(api).map(({ kind, count, cause }) => [kind, count, cause])).toEqual([
      ['good', 1, undefined],
      ['reject', 1, 'void'],
      ['good', 10, undefined],
    ]);
  });

  test('a lost hook is said of the last reject, and can be undone', async () => {
    const api = bench('trim', []);
    await screen.findByText('Left to trim');
    expect(screen.queryByRole('button', { name: /hook lost/ })).toBeNull();
    await userEvent.keyboard('3');
    expect(await screen.findByText(/melted down: lead and hook come back/)).toBeTruthy();
    await userEvent.keyboard('h');
    await waitFor(() =>
      expect(said(api).at(-1)).toMatchObject({ kind: 'reject', cause: 'loose hook', goes: 'hook lost' }),
    );
    // Said twice, it goes the usual way again.
    await userEvent.keyboard('h');
    await waitFor(() => expect(said(api).at(-1)).toMatchObject({ kind: 'reject', goes: 'melt' }));
    await userEvent.keyboard('z');
    await waitFor(() => expect(left('Left to trim')).toBe('12'));
  });

  test('a dull head is done again: it comes to the step once more, and what was spent is spent', async () => {
    const api = bench('paint', [good(1, 'trim', 12)]);
    await screen.findByText('Left to paint');
    await userEvent.keyboard('4');
    await waitFor(() =>
      expect(said(api)).toMatchObject([{ kind: 'reject', step: 'paint', cause: 'dull', goes: 'back to step' }]),
    );
    expect(left('Left to paint')).toBe('12');
    await userEvent.keyboard('x');
    await waitFor(() => expect(said(api).at(-1)).toMatchObject({ kind: 'reject', goes: 'scrap' }));
    await waitFor(() => expect(left('Left to paint')).toBe('11'));
  });

  test('what cannot be is said at the bench, and not sent', async () => {
    const api = bench('trim', [good(1, 'trim', 11)]);
    await screen.findByText('Left to trim');
    await userEvent.keyboard('  ');
    await screen.findByText('All seen here');
    await waitFor(() => expect(said(api)).toHaveLength(1));
  });

  test('heads off the shelf are counted out first, as many as lie there', async () => {
    const fromId = ids.hook;
    const log: Ticket['log'] = [];
    const api = fakeApi({
      [`GET /tickets/${id}`]: ticket({ id, log, source: 'shelf', fromId, poured: 0, pourClosed: false }),
    });
    renderAt(<CountBenchPage station="trim" Bench={TrimBench} />, `/trim/${id}`, '/trim/:id');
    await screen.findByText('Take off the shelf');
    await userEvent.keyboard(' ');
    await waitFor(() => expect(said(api)).toMatchObject([{ kind: 'take', count: 12 }]));
    expect(await screen.findByText('Left to trim')).toBeTruthy();
  });

  test('a station that stands twice in a route has a bench a step', async () => {
    const route = ROUTE_TEMPLATES.find((each) => each.id === 'two coats')!.steps.map((step) => ({ ...step }));
    const log = [good(1, 'trim', 12), good(2, 'paint', 12), good(3, 'bake', 12)];
    const api = fakeApi({ [`GET /tickets/${id}`]: ticket({ id, log, route }) });
    renderAt(<CountBenchPage station="paint" Bench={PaintBench} />, `/paint/${id}/paint-2`, '/paint/:id/:step');
    expect(await screen.findByText('Second coat')).toBeTruthy();
    await userEvent.keyboard(' ');
    await waitFor(() => expect(said(api)).toMatchObject([{ kind: 'good', step: 'paint-2', count: 1 }]));
  });

  test('what was said at another station is not undone here', async () => {
    bench('paint', [good(1, 'trim', 12)]);
    await screen.findByText('Left to paint');
    expect((screen.getByRole('button', { name: /^Z Undo/ }) as HTMLButtonElement).disabled).toBe(true);
  });

  test('paused, nothing counts', async () => {
    const api = bench('trim', []);
    await screen.findByText('Left to trim');
    await userEvent.keyboard('p');
    await screen.findByText('Paused');
    await userEvent.keyboard(' ');
    await waitFor(() => expect(said(api).map(({ kind }) => kind)).toEqual(['pause']));
  });

  test('a station that is not on the way of a product says so', async () => {
    fakeApi({ [`GET /tickets/${ids.ticket}`]: ticket({ route: usualRoute({ painted: false, baked: false }) }) });
    renderAt(<CountBenchPage station="paint" Bench={PaintBench} />, `/paint/${ids.ticket}`, '/paint/:id');
    expect(await screen.findByText('This ticket does not go through paint.')).toBeTruthy();
  });
});

describe('at the oven', () => {
  const painted = [good(1, 'trim', 12), good(2, 'paint', 12)];
  test('in, with the program of the product; the clock runs; out, and looked at', async () => {
    const api = bench('bake', painted);
    await screen.findByText('Hang up and load');
    expect(await screen.findByText(/177 °C for 28 min, oven hot first; 60 places/)).toBeTruthy();
    await userEvent.keyboard(' ');
    await screen.findByText('Take out in');
    expect(left('Take out in')).toMatch(/^2[78]:\d\d|28:00$/);
    // Nothing is cured yet: the first tap asks, and says nothing.
    await userEvent.keyboard(' ');
    await screen.findByText('Taken out all the same, at 0 %');
    expect(said(api).map(({ kind }) => kind)).toEqual(['load']);
    await userEvent.keyboard(' ');
    await screen.findByText('Out, to look at');
    await userEvent.keyboard('g');
    await screen.findByText('All seen here');
    await waitFor(() => expect(said(api).map(({ kind }) => kind)).toEqual(['load', 'unload', 'good']));
    expect(said(api)[0]).toMatchObject({ setC: 177, seconds: 1680, preheated: true });
    // The load is a run with a log of its own; the heads are counted in their ticket.
    const paths = api.writes().map(({ path }) => path.split('/')[1]);
    expect(paths).toEqual(['runs', 'runs', 'tickets']);
  });

  test('more heads than places: the rest waits for the next load', async () => {
    const api = bench('bake', painted, { 'GET /ovens': [{ ...ovens[0], places: 8 }] });
    await screen.findByText('8 heads');
    await userEvent.keyboard(' ');
    await waitFor(() => expect(said(api)[0]).toMatchObject({ heads: [{ ticketId: id, step: 'bake', count: 8 }] }));
  });

  test('too short and too hot are said plainly while it bakes', async () => {
    const runs = [ovenRun({ ticketId: id, count: 12 }, { id: uuid(3), at: ago(120), setC: 190, seconds: 420 })];
    fakeApi({ [`GET /tickets/${id}`]: ticket({ id, log: painted, runs }) });
    renderAt(<CountBenchPage station="bake" Bench={BakeBench} />, `/bake/${id}`, '/bake/:id');
    expect((await screen.findByText(/At the end of this program \d+ % of a full cure/)).textContent).toMatch(
      / [1-7]?\d %/,
    );
    expect(
      screen.getByText(/stands 175 °C; the oven is set to 190 °C: by the end it (will have browned|may have coloured)/),
    ).toBeTruthy();
  });

  test('now moves over the curve, and the curve stays as it was drawn', async () => {
    const run = ovenRun({ ticketId: id, count: 12 }, { id: uuid(3), at: ago(120), setC: 177, seconds: 1200 });
    fakeApi({ [`GET /tickets/${id}`]: ticket({ id, log: painted, runs: [run] }) });
    renderAt(<CountBenchPage station="bake" Bench={BakeBench} />, `/bake/${id}`, '/bake/:id');
    const curve = await screen.findByRole('img', { name: /^Oven air and metal/ });
    const line = () => Number(curve.querySelector<HTMLElement>('[data-now]')!.dataset['now']);
    const drawn = curve.firstElementChild!;
    const before = line();
    // Two of the twenty-five minutes that are drawn.
    expect(before).toBeGreaterThan(0.06);
    expect(before).toBeLessThan(0.12);
    await waitFor(() => expect(line()).toBeGreaterThan(before), { timeout: 4000 });
    expect(curve.firstElementChild).toBe(drawn);
  });

  test('the curve is the slowest powder, from cold slower than preheated', () => {
    const at = Date.now();
    const loaded = (more: object) =>
      ovenState(ovenRun({ ticketId: ids.ticket, count: 12 }, { id: uuid(4), at, ...more }).log as OvenLog);
    const route = usualRoute({ painted: true, baked: true });
    const heads = (productId: string) => headsInLoad(loaded({}).heads, () => keptProduct(productId, route));
    const course = (more: object, now = at) => bakeCourse(loaded(more), heads(ids.product), ovens[0], [], now);
    const hot = course({})!;
    const cold = course({ preheated: false })!;
    expect(cold.state.fullAt!).toBeGreaterThan(hot.state.fullAt!);
    expect(hot.points[0]).toMatchObject({ at, metalC: 20, share: 0 });
    for (const [i, point] of hot.points.slice(1).entries())
      expect(point.share).toBeGreaterThanOrEqual(hot.points[i]!.share);
    expect(bakeCourse(loaded({}), heads(ids.bare), ovens[0], [], at)).toBeNull();
    // A count from warm metal waits for it, however long that takes.
    const slow = { from: 'metal', warmS: 300, preheated: false };
    expect(course(slow, at + 100_000)!.endsAt).toBe(at + 300_000 + 1_680_000);
    expect(course(slow, at + 310_000)!.state.warmAt).toBeNull();
    expect(course(slow, at + 310_000)!.endsAt).toBe(at + 310_000 + 1_680_000);
    // Drawn once at the door, a bake that goes as it was drawn stands later where one stands that is drawn then.
    const load = loaded({});
    const of = lastFull(load, heads(ids.product), ovens[0], [], at)!;
    const curve = bakeCurve(load, of, at);
    for (const minutes of [1, 7, 19]) {
      const later = at + 60_000 * minutes;
      const [kept, anew] = [bakeNow(load, of, curve, later), course({}, later)!];
      expect(goesAsDrawn(load, later)).toBe(true);
      expect(kept.points).toBe(curve.points);
      expect(kept.state).toEqual(anew.state);
      expect(kept.atEnd).toBeCloseTo(anew.atEnd, 2);
      // Where the curve says it is, it is.
      const there = curve.points.findLast((point) => point.at <= later)!;
      expect(Math.abs(there.metalC - kept.state.metalC)).toBeLessThan(2);
    }
    // An open door, a count that waits for warm metal and a bake that is over go on with the clock.
    const door = { ...load, doors: [{ fromAt: at + 1, toAt: null }] };
    expect(goesAsDrawn(door, at + 2)).toBe(false);
    expect(goesAsDrawn(loaded(slow), at + 2)).toBe(false);
    expect(goesAsDrawn(load, load.endsAt)).toBe(false);
  });
});

describe('the desk of a station', () => {
  test('lists what waits and what is on its way', async () => {
    const coming = ticket({ id: uuid(90), number: 102, poured: 0, pourClosed: false });
    fakeApi({ 'GET /line': { tickets: [ticket(), coming], pours: [], runs: [] } });
    renderAt(<CountDesk station="trim" />);
    expect(await screen.findByRole('link', { name: 'Begin with ticket 101' })).toBeTruthy();
    expect(screen.getByText(/On the way: ticket 102 \(12\)/)).toBeTruthy();
    expect(screen.getByText(/Lead is on your hands/)).toBeTruthy();
  });
  test('says when nothing waits', async () => {
    fakeApi({ 'GET /line': { tickets: [], pours: [], runs: [] } });
    renderAt(<CountDesk station="finish" />);
    expect(await screen.findByText('Nothing waits here.')).toBeTruthy();
  });
});
