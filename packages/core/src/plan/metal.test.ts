import { product, workshop } from '../test/workshop.ts';
import { solver } from '../test/solve.ts';
import { castsOfTonight, planTonight, type TonightAsked, type Wanted } from '../tonight/tonight.ts';
import { needsTonight } from '../tonight/needs.ts';
import { blankKey, castingProblem, moldsCasting } from './allocate.ts';
import { withMetal } from './metal.ts';
import { planOrder } from './plan.ts';

const stock = workshop();
const lead = (id: string, metalId: string, quantity: number) => ({ id, name: id, kind: 'lead', metalId, quantity });
const SOFT = lead('lead', 'soft-lead', 5);
const TYRES = lead('tyres', 'tyre-weight', 20);
const FREE = lead('free', 'bismuth-tin', 4);
const leads = [SOFT, TYRES, FREE];
const [mold] = stock.molds;
const wants = (wantsMetal: 'soft' | 'hard' | 'lead-free' | 'any' | null, molds = stock.molds, from = leads) =>
  withMetal({ ...product(10), wantsMetal }, molds, from);

describe('what a product is cast in', () => {
  test.each([
    [null, 'lead'],
    ['soft', 'lead'],
    ['hard', 'tyres'],
    ['lead-free', 'free'],
    // Any lead: the one there is most of, and never what was bought to be free of it.
    ['any', 'tyres'],
  ] as const)('%s: %s', (asked, taken) => {
    expect(wants(asked).metal?.materialId).toBe(taken);
  });
  test('a mold that is kept for a metal says so where the product does not, and sees no other', () => {
    const kept = [{ ...mold!, keptFor: 'hard' as const }];
    expect(wants(null, kept).metal?.materialId).toBe('tyres');
    expect(wants('any', kept).metal?.materialId).toBe('tyres');
    expect(moldsCasting(wants(null, kept), kept)).toHaveLength(1);
    expect(moldsCasting(wants('soft', kept), kept)).toEqual([]);
    expect(castingProblem(wants('soft', kept), kept)).toBe(
      'The molds that cast it are kept for another metal than soft lead.',
    );
  });
  test('of which there is none on record is said, and is no blank like another', () => {
    expect(castingProblem(wants('lead-free', stock.molds, [SOFT]), stock.molds)).toBe(
      'It is cast in lead-free metal, and none is on record: add some in Stock.',
    );
    expect(blankKey(wants('hard'))).not.toBe(blankKey(wants('soft')));
    // Whoever asked for nothing, before there was anything to ask for, was cast in soft lead.
    expect(blankKey(product(10))).toBe(blankKey(wants('soft')));
  });
});

/** An order of two products in two metals on the one mold. */
const both = {
  ...stock,
  stock: [
    ...stock.stock,
    { materialId: 'tyres', name: 'Tyre weights', kind: 'lead', quantity: 20, priceMinor: 100 },
    { materialId: 'free', name: 'Bismuth-tin', kind: 'lead', quantity: 0.2, priceMinor: 3000 },
  ],
  lines: [
    { product: { ...wants('soft'), id: 'a' }, quantity: 30 },
    { product: { ...wants('lead-free'), id: 'b' }, quantity: 30 },
  ],
};

describe('an order in two metals', () => {
  const plan = planOrder(both);
  const [soft, free] = plan.lines as [(typeof plan.lines)[number], (typeof plan.lines)[number]];
  test('warms the mold twice, and empties the pot between, which costs its minutes', () => {
    expect(plan.molds.map(({ moldId }) => moldId)).toEqual(['mold', 'mold']);
    const apart = both.lines.map((line) => planOrder({ ...both, lines: [line] }));
    const pots = (of: typeof plan) =>
      of.minutes.reduce((sum, { station, handsS }) => sum + (station === 'pour' ? handsS.value : 0), 0);
    // A quarter of an hour: common practice, no source.
    expect(pots(plan) - pots(apart[0]!) - pots(apart[1]!)).toBeCloseTo(900, 6);
    expect(plan.melt.value).toBeCloseTo(apart[0]!.melt.value + apart[1]!.melt.value, 6);
    expect(plan.minutes.map(({ does }) => does)).toContain('Change the metal');
  });
  test('costs what each metal costs, by the mass that it casts', () => {
    // Densities at 20 C, from memory: lead 11,340 kg/m3, bismuth-tin 58/42 8,560: 0.755 of the stamp, and a little
    // more, because lead sets hotter and shrinks further.
    expect(free.leadKgPerHead.value / soft.leadKgPerHead.value).toBeGreaterThan(0.74);
    expect(free.leadKgPerHead.value / soft.leadKgPerHead.value).toBeLessThan(0.79);
    expect(free.stack.lead).toBeCloseTo(3000 * free.leadKgPerHead.value, 9);
    const softPrice = both.stock.find(({ materialId }) => materialId === 'lead')!.priceMinor!;
    expect(soft.stack.lead).toBeCloseTo(softPrice * soft.leadKgPerHead.value, 9);
  });
  test('says what is short of each', () => {
    const needs = plan.needs.filter(({ kind }) => kind === 'lead');
    expect(needs.map(({ materialId }) => materialId)).toEqual(['lead', 'free']);
    const [, short] = needs;
    // 30 good heads and the heel at least; 0.2 kg are there.
    expect(short!.need.value).toBeGreaterThan(30 * free.leadKgPerHead.value + both.ways.heelKg);
    expect(short!.missing).toBeCloseTo(short!.need.value - 0.2, 9);
  });
});

test('Tonight pours one metal after another and empties the pot between', async () => {
  const solve = await solver();
  const wanted = both.lines.map(({ product: own, quantity }, at): Wanted => ({
    ...{ id: own.id, name: own.id, customer: '', orderNumber: at, ticketNumber: null, orderId: own.id, dueMs: null },
    ...{ product: own, heads: quantity, toCast: quantity, left: {} },
  }));
  const plenty = both.stock.map((each) => ({ ...each, quantity: 1000 }));
  const asked: TonightAsked = {
    ...{ wanted, molds: both.molds, pot: both.pot, oven: both.oven, ways: both.ways, stock: plenty },
    ...{ hooksHere: {}, leadHereKg: 1000, leadId: 'lead' },
  };
  const wishes = {
    ...{ evenings: [{ fromMs: 0, toMs: 8 * 3_600_000 }], people: [{ name: 'me', stations: null }] },
    ...{ guns: 1, atOnce: 2, leftOut: [], pinned: {} },
  } as never;
  const casts = castsOfTonight(asked, wishes, solve);
  const plan = planTonight(asked, wishes, casts, { tries: 5 });
  const pot = plan.tasks.flatMap(({ station, name, seconds }, at) =>
    station === 'pour' ? [{ name, seconds, ...plan.schedule.placed[at]! }] : [],
  );
  pot.sort((a, b) => a.startS - b.startS);
  expect(pot.map(({ name }) => name.split(' ')[0])).toEqual(['Pour', 'Change', 'Pour']);
  expect(pot[1]!.name).toBe('Change the metal to free');
  // The next metal is melted when the pot is empty.
  expect(pot[2]!.startS).toBeGreaterThanOrEqual(pot[1]!.startS + 900 + plan.pours[1]!.meltS - 1e-6);
  const needs = needsTonight(asked, wishes, casts).filter(({ kind }) => kind === 'lead');
  expect(needs.map(({ materialId }) => materialId)).toEqual(['lead', 'free']);
  const paper = planOrder({ ...both, afterPour: undefined }, solve).needs.filter(({ kind }) => kind === 'lead');
  for (const [at, { need }] of needs.entries()) expect(Math.abs(need / paper[at]!.need.value - 1)).toBeLessThan(0.01);
});
