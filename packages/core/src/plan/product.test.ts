import { cureLaw } from '../bake/cure-law.ts';
import { bakeTemperaturesC, cureShare } from '../bake/cure.ts';
import { coldHeadSolid } from '../geometry/solid.ts';
import { product, workshop } from '../test/workshop.ts';
import { averageMinor } from '../stock/ledger.ts';
import { unitCostStack } from './cost.ts';
import { COST_PARTS } from '../job/part-kinds.ts';
import { handsOf } from './minutes.ts';
import { shotSeconds } from '../mold/shot-seconds.ts';
import { planOrder } from './plan.ts';
import { powdersPerHead, productBake, productLagS } from './product.ts';
import { stackTotal } from './types.ts';
import { DEFAULT_WAYS } from './ways.ts';

const white = product(10).layers[0]!.powder;
const orange = { ...white, materialId: 'orange', name: 'Orange', label: [{ metalC: 190, seconds: 1500 }] };

describe('paint of a product', () => {
  test('one coat on the whole head is area times film times density over what stays on', () => {
    const [only] = powdersPerHead(product(10), DEFAULT_WAYS);
    const area = coldHeadSolid('ball', 0.01).paintedAreaM2;
    expect(only!.kgPerHead).toBeCloseTo((area * 1e-4 * 1500) / 0.7, 12);
  });

  test('the same powder in two layers is added up; a back takes half of a whole', () => {
    const layers = [
      { powder: white, zone: 'whole' as const, coats: 2 },
      { powder: orange, zone: 'back' as const, coats: 1 },
      { powder: white, zone: 'speckle' as const, coats: 1 },
    ];
    const powders = powdersPerHead(product(10, { layers }), DEFAULT_WAYS);
    expect(powders.map(({ materialId }) => materialId)).toEqual(['white', 'orange']);
    const [whites, oranges] = powders.map(({ kgPerHead }) => kgPerHead) as [number, number];
    expect(whites / oranges).toBeCloseTo((2 + 0.12) / 0.5, 9);
  });

  test('dipped whole, the collar takes powder too; a product outranks the house', () => {
    const kg = (house: object, own: object | null = null) =>
      powdersPerHead(product(14.2, { ways: own as never }), { ...DEFAULT_WAYS, schools: house })[0]!.kgPerHead;
    const shoulder = kg({ collar: 'shoulder' });
    // A collar is a third to a half as much surface again as the ball that it is on.
    expect(kg({ collar: 'whole' }) / shoulder).toBeGreaterThan(1.15);
    expect(kg({ collar: 'whole' }) / shoulder).toBeLessThan(1.7);
    expect(kg({ collar: 'whole' }, { collar: 'shoulder' })).toBe(shoulder);
    expect(kg({})).toBe(shoulder);
  });
  test('bare lead takes none', () => expect(powdersPerHead(product(10, { layers: [] }), DEFAULT_WAYS)).toEqual([]));
});

describe('cure of a product', () => {
  const oven = { lagS: 180 };
  test('is that of the powder that cures slowest, and is a range where the label prints one line only', () => {
    const both = product(10, {
      layers: [
        { powder: white, zone: 'whole', coats: 1 },
        { powder: orange, zone: 'back', coats: 1 },
      ],
    });
    const cure = productBake(both, oven)!.cure;
    expect(cure.value).toBeLessThan(productBake(product(10), oven)!.cure.value);
    expect(cure.why.inputs.find((input) => input.label === 'Powder')!.value).toBe('Orange');
    expect(cure.low!).toBeLessThan(cure.value);
    expect(cure.high!).toBeGreaterThan(cure.value);
  });

  // What the common schedules give for a powder of 20 min at 177 C and 10 min at 200 C: about a half and a tenth.
  test.each([
    [149, 25, 0.35, 0.55],
    [114, 20, 0.05, 0.15],
    [177, 20, 0.6, 1],
  ])('%d C for %d min', (setC, minutes, least, most) => {
    const bake = { name: 'school', setC, seconds: minutes * 60, preheated: true };
    const { value } = productBake(product(14, { bake }), oven)!.cure;
    expect(value).toBeGreaterThan(least);
    expect(value).toBeLessThan(most);
  });

  test('from cold it is less than preheated, a heavy head less than a light one', () => {
    const from = (preheated: boolean, grams: number) =>
      productBake(product(grams, { bake: { name: 'b', setC: 177, seconds: 1200, preheated } }), oven)!.cure.value;
    expect(from(false, 14)).toBeLessThan(from(true, 14));
    expect(from(true, 14)).toBeLessThan(from(true, 10));
    expect(productLagS(product(14))).toBeGreaterThan(productLagS(product(10)));
  });

  test('without a bake or without paint there is nothing to cure', () => {
    expect(productBake(product(10, { bake: null }), oven)).toBeNull();
    expect(productBake(product(10, { layers: [] }), oven)).toBeNull();
  });

  test('metal never runs ahead of the air, and cure never goes back', () => {
    const input = { law: cureLaw(white.label), headLagS: 150, airC: 177, ovenLagS: 200 };
    let before = -1;
    const atS = Array.from({ length: 41 }, (_, i) => 60 * i);
    for (const { atS: seconds, ovenC, metalC } of bakeTemperaturesC(input, atS)) {
      expect(metalC).toBeLessThanOrEqual(ovenC + 1e-9);
      const cure = cureShare(input, seconds);
      expect(cure).toBeGreaterThanOrEqual(before);
      before = cure;
    }
  });
});

describe('time and money', () => {
  test('a shot is hands for every cavity and the wait once', () => {
    const ways = { loadS: 10, inspectS: 5 };
    expect(shotSeconds(ways, 4, 6)).toBe(4 * (10 + 3 + 5) + 6 + 5);
    expect(shotSeconds(ways, 5, 6) - shotSeconds(ways, 4, 6)).toBe(18);
  });

  test('coats count, unbaked heads are not hung', () => {
    const layers = [{ powder: white, zone: 'whole' as const, coats: 2 }];
    const lines = [
      { product: product(10, { layers }), quantity: 10 },
      { product: product(14, { bake: null }), quantity: 5 },
    ];
    // The maker's own seconds, where there are any, outrank those of the ways.
    const seconds: Record<string, number> = {};
    for (const { step, seconds: s } of handsOf({ ...DEFAULT_WAYS, trimS: 9, coatS: 25 }, lines)) {
      seconds[step.key] = (seconds[step.key] ?? 0) + s;
    }
    expect(seconds).toEqual({
      trim: 15 * 9,
      paint: (20 + 5) * 25,
      bake: 10 * DEFAULT_WAYS.hangS,
      finish: 15 * DEFAULT_WAYS.finishS,
    });
  });

  // A worked example: 10 g of lead at 2.50 a kg, a hook of 0.16, 60 s at 12.00 an hour, 5 Wh at 0.32.
  test('what one head costs', () => {
    const stack = unitCostStack({
      leadKg: 0.01,
      leadMinorPerKg: 250,
      drossKg: 0.0002,
      hookMinor: 16,
      powderMinor: 0.9,
      energyKWh: 0.005,
      energyMinorPerKWh: 32,
      workS: 60,
      labourMinorPerHour: 1200,
    });
    expect(stack).toEqual({
      lead: 2.5,
      hook: 16,
      powder: 0.9,
      parts: 0,
      packaging: 0,
      dross: 0.05,
      energy: 0.16,
      work: 20,
      wear: 0,
    });
    expect(stackTotal(stack)).toBeCloseTo(39.61, 9);
    expect(Object.keys(stack)).toEqual([...COST_PARTS]);
  });

  test('hands-on time is told also where it is not paid for', () => {
    const input = workshop();
    const unpaid = planOrder({ ...input, ways: { ...DEFAULT_WAYS, labourMinorPerHour: 0 } });
    const heads = unpaid.lines.reduce((sum, line) => sum + line.workS * line.quantity, 0);
    expect(heads).toBeCloseTo(unpaid.handsTotal.value, 6);
  });

  test('a bigger order costs no more a head: warming and melting are shared', () => {
    const input = workshop();
    const cost = (quantity: number) =>
      planOrder({ ...input, lines: [{ product: product(10), quantity }] }).unitCost.value;
    expect(cost(120)).toBeLessThan(cost(12));
    expect(averageMinor({ quantity: input.lead.quantity, valueMinor: 5000 })).toBe(input.lead.priceMinor);
  });

  test('a material without a price costs nothing yet, and the plan still stands', () => {
    const input = workshop();
    const stock = input.stock.map((each) => ({ ...each, priceMinor: null }));
    const plan = planOrder({ ...input, stock });
    expect(plan.lines[0]!.stack).toMatchObject({ lead: 0, hook: 0, powder: 0, dross: 0 });
    expect(plan.lines[0]!.stack.work).toBeGreaterThan(0);
  });

  test('more than the pot holds is charged full and fed', () => {
    const input = workshop();
    const plan = planOrder({ ...input, pot: { ...input.pot, capacityKg: 1.2 } });
    expect(plan.charge.why.rule).toMatch(/feed sprues and ingots back in small lots/);
    expect(plan.melt.why.inputs[0]!.value).toBe(1.2);
  });
});
