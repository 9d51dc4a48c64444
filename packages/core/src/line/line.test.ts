import type { TicketEntry } from '../job/ticket-log.ts';
import { ticketState, type TicketState } from '../job/ticket.ts';
import type { PlanProduct, PlanStep } from '../plan/types.ts';
import { product } from '../test/workshop.ts';
import { dipsTogether, paintKey } from './dips.ts';
import { bakeAt, fitsIn, loadsFor, programKey, roomFor, waitingForOven } from './oven.ts';
import { finishSchool } from '../ways/finish.ts';
import { STEPS } from '../ways/school.ts';
import { mixesFor } from './mixes.ts';
import { headsToCome, waitingWork, type TicketOnLine } from './waiting.ts';
import { productAtRelease, productChanges, productRefusal, routeOf, type TicketProduct } from './ticket-product.ts';

const ten = productAtRelease(product(10), {});
type Said = {
  [Kind in TicketEntry['kind']]: Omit<Extract<TicketEntry, { kind: Kind }>, 'id' | 'at'>;
}[TicketEntry['kind']];
/** A ticket of so many heads that are cast, with what was said of it. */
const stateOf = (of: TicketProduct, poured: number, ...said: Said[]): TicketState =>
  ticketState(
    { route: routeOf(of), source: 'pour', poured, pourClosed: true },
    said.map((entry, at) => ({ ...entry, id: `e${at}`, at: 1000 * at }) as TicketEntry),
  );
const good = (step: string, count: number): Said => ({ kind: 'good', step, count });
const changed = (
  more: Omit<Partial<PlanProduct>, 'ways'>,
  step?: string,
  ofStep: Partial<PlanStep> = {},
): TicketProduct => ({
  ...ten,
  ...more,
  steps: ten.steps.map((each) => (each.key === step ? { ...each, ...ofStep } : each)),
});
const wayName = STEPS.find(({ id }) => id === 'sprue')!.name;
const baked = ten.steps.find(({ bake }) => bake)!;

describe('what a product has become since a ticket took it on', () => {
  test('nothing, where all of it is as it was', () => {
    expect(productChanges(ten, productAtRelease(product(10), {}))).toEqual([]);
  });
  test.each<[string, TicketProduct, string[]]>([
    ['its name', changed({ name: 'Other' }), ['its name']],
    ['no hook', changed({ hook: null }), ['its hook']],
    ['its weight', changed({ nominalMassKg: 0.014 }), ['its head']],
    ['a program', changed({}, 'bake', { bake: { ...baked.bake!, setC: 200 } }), ['Bake']],
    ['nothing painted', changed({}, 'paint', { layers: [], recipe: null }), ['Paint']],
    ['a step more', { ...ten, steps: [...ten.steps, { ...baked, key: 'again', does: 'Again' }] }, ['its way']],
    ['a way at the trim', { ...ten, ways: { ...ten.ways, sprue: 'wiggle' } }, [wayName]],
  ])('%s', (_, now, what) => {
    expect(productChanges(ten, now).map((change) => change.what)).toEqual(what);
  });
  test('a powder that is mixed anew under its own name is told by its colours', () => {
    const layers = ten.steps
      .find(({ key }) => key === 'paint')!
      .layers.map((layer) => ({ ...layer, powder: { ...layer.powder, colour: '#000000' } }));
    expect(productChanges(ten, changed({}, 'paint', { layers }))).toEqual([
      { what: 'Paint, its colours', was: expect.any(String), is: '#000000' },
    ]);
  });
});

describe('what is done stays as it was done', () => {
  const hotter = changed({}, 'bake', { bake: { ...baked.bake!, setC: 200 } });
  test('before anything is cast all of it may be another', () => {
    const now = changed({ hook: null, nominalMassKg: 0.014 });
    expect(productRefusal(ten, now, stateOf(ten, 0), false)).toBeNull();
    expect(productRefusal(ten, now, stateOf(ten, 6), true)).toMatch(/head and hook stay/);
  });
  test('a step that has begun, and all before it', () => {
    expect(productRefusal(ten, hotter, stateOf(ten, 6, good('trim', 6), good('paint', 6)), true)).toBeNull();
    const loaded: Said = {
      ...{ kind: 'load', step: 'bake', count: 4, setC: 177, seconds: 1200, preheated: true },
    } as Said;
    const inOven = stateOf(ten, 6, good('trim', 6), good('paint', 6), loaded);
    expect(productRefusal(ten, hotter, inOven, true)).toMatch(/“Bake” has begun/);
    const bare = changed({}, 'paint', { layers: [] });
    expect(productRefusal(ten, bare, stateOf(ten, 6, good('trim', 6)), true)).toBeNull();
    expect(productRefusal(ten, bare, stateOf(ten, 6, good('trim', 6), good('paint', 1)), true)).toMatch(/“Paint”/);
  });
  test('heads that come from the pot do not come from the shelf, and a closed ticket is closed', () => {
    expect(productRefusal(ten, changed({ source: 'shelf' }), stateOf(ten, 0), false)).toMatch(/from elsewhere/);
    const steps = ten.steps.map(({ key }) => good(key, 6));
    const closed = stateOf(ten, 6, ...steps, { kind: 'close' } as Said);
    expect(productRefusal(ten, ten, closed, true)).toMatch(/closed/);
  });
});

describe('what can be made of what waits', () => {
  const at = (id: string, of: TicketProduct, ...said: Said[]) => ({ id, product: of, state: stateOf(of, 6, ...said) });
  const painted = [good('trim', 6), good('paint', 6)];
  const load = (count: number): Said =>
    ({ kind: 'load', step: 'bake', count, setC: 177, seconds: 1200, preheated: true }) as Said;

  test('heads that hang in the oven, or have just come out of it, do not wait for it', () => {
    const heads = (...said: Said[]) =>
      waitingForOven([at('a', ten, ...painted, ...said)], false).map((each) => each.heads);
    expect(heads()).toEqual([6]);
    expect(heads(load(4))).toEqual([2]);
    // Out, and not looked at yet: baked once is baked.
    expect(heads(load(4), { kind: 'unload', step: 'bake', coolS: 60 } as Said)).toEqual([2]);
    expect(heads(load(6), { kind: 'unload', step: 'bake', coolS: 60 } as Said)).toEqual([]);
  });
  test('what is still being painted comes too, where that is asked', () => {
    const tickets = [at('a', ten, good('trim', 6), good('paint', 2))];
    expect(waitingForOven(tickets, false).map(({ heads }) => heads)).toEqual([2]);
    expect(waitingForOven(tickets, true).map(({ heads }) => heads)).toEqual([6]);
  });
  test('without a program nothing waits for the oven: none is guessed', () => {
    const none = changed({}, 'bake', { bake: null });
    expect(bakeAt(none, 'bake')).toBeNull();
    expect(waitingForOven([at('a', none, ...painted)], true)).toEqual([]);
  });
  test('two programs of the same heat and time hang together, whatever they are called', () => {
    const called = changed({}, 'bake', { bake: { ...baked.bake!, name: 'Evening' } });
    const racks = [{ name: 'Bars', way: 'hanging' as const, bars: 4, barM: 0.36, clearM: 0.09 }];
    const { loads } = loadsFor(waitingForOven([at('a', ten, ...painted), at('b', called, ...painted)], false), racks);
    expect(loads.map(({ program }) => program)).toEqual([programKey(baked.bake!)]);
    expect(loads[0]!.bars.flat().reduce((sum, { heads }) => sum + heads, 0)).toBe(12);
  });
  test('an oven takes what its best rack takes; without a rack that has room, its plain count', () => {
    const { pitchM } = roomFor(ten);
    const rack = (bars: number, clearM: number) => ({ name: 'B', way: 'hanging' as const, bars, barM: 0.3, clearM });
    const perBar = Math.floor(0.3 / pitchM + 1e-9);
    expect(fitsIn({ places: 7, racks: [rack(2, 0.2), rack(3, 0.2)] }, ten)).toBe(3 * perBar);
    expect(fitsIn({ places: 7, racks: [rack(2, 0.001)] }, ten)).toBe(7);
    expect(fitsIn(undefined, ten)).toBe(Infinity);
  });
  test('heads that wait for the same paint are dipped in one go, whatever its recipe is called', () => {
    const recipe = { id: 'r2', name: 'The same', eyeColour: null };
    const called = changed({}, 'paint', { recipe });
    const [dip, ...others] = dipsTogether([
      at('a', ten, good('trim', 6)),
      at('b', called, good('trim', 4)),
      at('c', ten),
    ]);
    expect(others).toEqual([]);
    expect(dip!.heads).toEqual([
      { ticketId: 'a', step: 'paint', count: 6 },
      { ticketId: 'b', step: 'paint', count: 4 },
    ]);
    const step = ten.steps.find(({ key }) => key === 'paint')!;
    expect(paintKey({ layers: step.layers.map((layer) => ({ ...layer, coats: 2 })) })).not.toBe(paintKey(step));
  });
});

describe('what waits where', () => {
  const MINUTE = 60_000;
  const waits = (id: string, number: number, dueOn: string | null, state: TicketState): TicketOnLine => ({
    ...{ id, number, dueOn, quantity: 6, poured: 6, toCast: 0, state },
  });
  const load = (count: number): Said =>
    ({ kind: 'load', step: 'bake', count, setC: 177, seconds: 1200, preheated: true }) as Said;
  const at = (tickets: TicketOnLine[], now = 0) =>
    waitingWork(tickets, now).map(({ ticketId, step, free }) => `${ticketId} ${step.key} ${free}`);

  test('what is due first is first, not what was written last; without a day it is last', () => {
    const trim = stateOf(ten, 6);
    expect(
      at([waits('new', 9, null, trim), waits('soon', 7, '2026-03-04', trim), waits('later', 3, '2026-03-09', trim)]),
    ).toEqual(['soon trim 6', 'later trim 6', 'new trim 6']);
  });
  test('what dries or hangs in the oven is behind what can be worked on', () => {
    const wet = {
      ...ten,
      steps: ten.steps.map((step) => (step.key === 'trim' ? { ...step, wait: { name: 'dry', seconds: 600 } } : step)),
    };
    const drying = waits('dries', 1, '2026-03-01', stateOf(wet, 6, good('trim', 6)));
    const hangs = waits('hangs', 2, '2026-03-02', stateOf(ten, 6, good('trim', 6), good('paint', 6), load(6)));
    const ready = waits('ready', 3, null, stateOf(ten, 6, good('trim', 2)));
    expect(at([drying, hangs, ready], MINUTE)).toEqual([
      'ready trim 4',
      'ready paint 2',
      'dries paint 6',
      'hangs bake 0',
    ]);
    // Once it is dry, it goes by its day.
    expect(at([drying, hangs, ready], 20 * MINUTE)[0]).toBe('dries paint 6');
  });
  test('heads on the shelf wait at their first step, those that are taken do not', () => {
    const shelf = (taken: number) =>
      ticketState({ route: routeOf(ten), source: 'shelf', poured: 0, pourClosed: false }, [
        ...(taken ? [{ id: 't', at: 1, kind: 'take', count: taken } as TicketEntry] : []),
      ]);
    expect(waitingWork([waits('a', 1, null, shelf(0))], 0)).toMatchObject([{ heads: 6, takes: true }]);
    expect(waitingWork([waits('a', 1, null, shelf(6))], 0)).toMatchObject([{ heads: 6, takes: false }]);
    expect(headsToCome(shelf(0), 6)).toEqual({ trim: 6 });
    // Four are taken, two lie there still: all six come.
    expect(headsToCome(shelf(4), 2)).toEqual({ trim: 6 });
  });
  test('heads that are baked still come through what follows, and not through the bake again', () => {
    const painted = [good('trim', 6), good('paint', 6)];
    const [, , bake, last] = ten.steps.map(({ key }) => key) as [string, string, string, string];
    expect(headsToCome(stateOf(ten, 6, ...painted), 0)).toEqual({ [bake]: 6 });
    expect(headsToCome(stateOf(ten, 6, ...painted, load(4)), 0)).toEqual({ [bake]: 2, [last]: 4 });
    const out = { kind: 'unload', step: 'bake', coolS: 60 } as Said;
    expect(headsToCome(stateOf(ten, 6, ...painted, load(4), out), 0)).toEqual({ [bake]: 2, [last]: 4 });
    expect(headsToCome(stateOf(ten, 6, ...painted, load(4), out, good('bake', 3)), 0)).toEqual({
      [bake]: 2,
      [last]: 4,
    });
  });
});

describe('glue for what waits', () => {
  const guard = { key: 'guard', station: 'finish', does: 'Guard in', task: 'guard', school: null };
  const glued: TicketProduct = {
    ...ten,
    steps: [ten.steps[0]!, { ...guard, layers: [], bake: null }, ten.steps.at(-1)!],
  };
  const bill = [{ partId: 'epoxy', name: 'Epoxy', kind: 'glue', quantity: 0.1, waste: 0, step: 'guard' }];
  const at = (id: string, heads: number, more: object = {}) => {
    const log = [{ id: `${id} trimmed`, at: 0, kind: 'good', step: 'trim', count: heads }] as TicketEntry[];
    const state = ticketState({ route: routeOf(glued), source: 'pour', poured: heads, pourClosed: true }, log);
    return { id, product: glued, state, log, bill, ...more };
  };
  const school = finishSchool('guard');

  test('tickets that wait for the same glue share its mixes; the bottle outranks the school', () => {
    const [mix, ...others] = mixesFor([at('a', 6), at('b', 4)], () => null, 0);
    expect(others).toEqual([]);
    expect(mix!.heads.map(({ ticketId, count }) => [ticketId, count])).toEqual([
      ['a', 6],
      ['b', 4],
    ]);
    expect(mix!.potLifeS).toBe(school.potLifeS);
    const [bottle] = mixesFor([at('a', 6)], () => ({ potLifeS: 111, setS: 222 }), 0);
    expect([bottle!.potLifeS, bottle!.setS]).toEqual([111, 222]);
  });
  test('where no glue is on the bill, or nothing has come to the step, nothing is mixed', () => {
    expect(mixesFor([at('a', 6, { bill: [] })], () => null, 0)).toEqual([]);
    expect(mixesFor([at('a', 0)], () => null, 0)).toEqual([]);
  });
});
