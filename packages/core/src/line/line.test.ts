import type { TicketEntry } from '../job/ticket-log.ts';
import { ticketState, type TicketState } from '../job/ticket.ts';
import type { PlanProduct, PlanStep } from '../plan/types.ts';
import { product } from '../test/workshop.ts';
import { dipsTogether, paintKey } from './dips.ts';
import { bakeAt, fitsIn, loadsFor, programKey, roomFor, waitingForOven } from './oven.ts';
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
    ['a way at the trim', { ...ten, ways: { ...ten.ways, sprue: 'wiggle' } }, ['its ways']],
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
    expect(heads(load(4), { kind: 'unload', coolS: 60 } as Said)).toEqual([2]);
    expect(heads(load(6), { kind: 'unload', coolS: 60 } as Said)).toEqual([]);
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
