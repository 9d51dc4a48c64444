import { cavity, product, workshop } from '../test/workshop.ts';
import { averageCost } from './line.ts';
import { planOrder } from './plan.ts';
import { bakedHead, powdersPerHead } from './product.ts';
import { powderPerHeadFigure } from './paint-figures.ts';
import { ingotsFromScrap } from './from-metal.ts';

const known = { good: 9e5, casts: 1e6 };
const input = {
  ...workshop(),
  molds: [{ ...workshop().molds[0]!, eveningSpread: 0, cavities: [cavity(1, 10, known), cavity(2, 14, known)] }],
};
const plan = planOrder(input);
const part = (label: string) => plan.chargeParts.find((each) => each.label === label)!.kg;

test('what is used up is heads and dross; skimming may take less than half of what is reckoned, or twice as much', () => {
  const headsKg = (60 * 10 + 24 * 14) / 1000;
  expect(part('dross')).toBeCloseTo(input.ways.drossShare * (part('heads, rejects too') + part('sprues')), 12);
  expect(plan.leadUsed.value).toBeCloseTo(headsKg + part('dross'), 6);
  // Common practice, no source: dross is known to a factor of two or so.
  expect(plan.leadUsed.low).toBeLessThan(headsKg + 0.6 * part('dross'));
  expect(plan.leadUsed.high).toBeGreaterThan(headsKg + 1.4 * part('dross'));
  const need = plan.needs.find((each) => each.kind === 'lead')!.need;
  // A round of sprues and rejects is as unsure as what they are cast in.
  expect(need.value - need.low!).toBeGreaterThanOrEqual(plan.leadUsed.value - plan.leadUsed.low!);
  expect(need.high! - need.value).toBeLessThan(1.5 * (plan.leadUsed.high! - plan.leadUsed.value));
});

test('the mean cost of a head is that of its lines by heads, and so is its range', () => {
  const [a, b] = plan.lines as [(typeof plan.lines)[0], (typeof plan.lines)[0]];
  for (const end of ['value', 'low', 'high'] as const) {
    expect(plan.unitCost[end]).toBeCloseTo((60 * a.unitCost[end]! + 24 * b.unitCost[end]!) / 84, 9);
  }
  expect(a.unitCost.low).toBeLessThan(a.unitCost.value);
  expect(a.unitCost.high).toBeGreaterThan(a.unitCost.value);
  expect(averageCost([])).toMatchObject({ value: 0, low: 0, high: 0 });
});

test('one powder on two lines is wanted once, for all their heads', () => {
  const white = plan.needs.find((each) => each.materialId === 'white')!;
  const kg = [product(10), product(14)].map((each) => powdersPerHead(each, input.ways)[0]!.kgPerHead);
  expect(white.need.value).toBeCloseTo(60 * kg[0]! + 24 * kg[1]!, 9);
  expect(white.need.why.inputs.find(({ label }) => label === 'Heads')!.value).toBe(84);
});

test('powder that stays on is never reckoned as more than all of it', () => {
  const share = (transferEfficiency: number) => {
    const { value, low, high } = powderPerHeadFigure(product(10), { ...input.ways, transferEfficiency });
    return { low: low! / value, high: high! / value };
  };
  // A quarter more or less of what stays on, and the film; where all of it stays on the film alone can save any.
  expect(share(0.6).low).toBeGreaterThan(0.65);
  expect(share(0.6).low).toBeLessThan(0.8);
  expect(share(0.6).high).toBeGreaterThan(4 / 3);
  expect(share(0.6).high).toBeLessThan(1.5);
  expect(1 - share(1).low).toBeLessThan(0.75 * (1 - share(0.6).low));
});

test('heads off the shelf want no pot: no shots, no charge, and nothing is missing for it', () => {
  const shelf = { ...product(10), hook: null, source: 'shelf' as const };
  const bare = planOrder({ ...input, lines: [{ product: shelf, quantity: 5 }] });
  expect(bare.molds).toEqual([]);
  expect(bare.chargeParts).toEqual([]);
  expect(bare.charge.value).toBe(0);
  expect(bare.problems).toEqual([]);
  expect(bare.lines[0]!.casts.value).toBe(0);
});

test('the part that stands the least heat is named; where two stand the same, the first that is put on', () => {
  const on = (limits: (number | null)[]) =>
    bakedHead(
      product(10, {
        hook: { ...product(10).hook!, name: 'Hook', limitC: limits[0]! },
        parts: limits.slice(1).map((limitC, i) => {
          return { partId: `${i}`, name: `Part ${i}`, kind: 'ring', quantity: 1, waste: 0, step: 'pour', limitC };
        }),
      }),
    )!;
  expect(on([175, 150, 160])).toMatchObject({ hook: 'Part 0', limitC: 150 });
  expect(on([150, 150])).toMatchObject({ hook: 'Hook', limitC: 150 });
  expect(on([null, 0.5])).toMatchObject({ hook: 'Part 0', limitC: 0.5 });
  expect(on([null, null])).toMatchObject({ limitC: null });
});

test('shots say of each blank how many casts it needs, and from how many cavities', () => {
  const said = plan.molds[0]!.shots.why.inputs.map(({ label }) => label);
  expect(said).toContain('Ball 10 g: casts');
  expect(said).toContain('Ball 14 g: cavities');
});

test('ingots: whole ones only, and the last is not lost to a rounding', () => {
  expect(ingotsFromScrap({ grossKg: 10, cleanShare: 0.9, ingotKg: 0.5 }).value).toBe(18);
  expect(ingotsFromScrap({ grossKg: 0.3, cleanShare: 1, ingotKg: 0.1 }).value).toBe(3);
  const { low, high } = ingotsFromScrap({ grossKg: 100, cleanShare: 0.9, ingotKg: 1 });
  // Clean shares of lots differ by some hundredths: common practice, no source.
  expect(90 - low!).toBeGreaterThanOrEqual(4);
  expect(high).toBeLessThanOrEqual(100);
});
