import { product, workshop } from '../test/workshop.ts';
import { planOrder } from '../plan/plan.ts';
import { stackTotal, type PlanInput } from '../plan/types.ts';
import { unitPrice } from './price.ts';

const pack = (quantity: number, ...minor: number[]) => ({
  pack: quantity,
  prices: minor.map((each, at) => ({ fromPacks: at + 1, minor: each })),
});

describe('what a unit costs', () => {
  test('the moving average of what is there', () => {
    expect(unitPrice({ quantity: 40, valueMinor: 640 }, 99, [pack(10, 50)])).toEqual({ priceMinor: 16 });
  });
  test('an empty shelf costs what was paid last, else the cheapest offer, and says so', () => {
    expect(unitPrice({ quantity: 0, valueMinor: 0 }, 18, [pack(10, 50)])).toEqual({
      ...{ priceMinor: 18, priced: 'last price' },
    });
    // A hundred for 1500, from the second pack on for 1400; ten for 200.
    expect(unitPrice({ quantity: 0, valueMinor: 0 }, null, [pack(10, 200), pack(100, 1500, 1400)])).toEqual({
      ...{ priceMinor: 14, priced: 'cheapest offer' },
    });
  });
  test('what was counted in without a price is not free; what was got for nothing is', () => {
    expect(unitPrice({ quantity: 40, valueMinor: 0 }, null, [pack(10, 200)])).toMatchObject({ priceMinor: 20 });
    expect(unitPrice({ quantity: 40, valueMinor: 0 }, 0, [pack(10, 200)])).toEqual({ priceMinor: 0 });
    expect(unitPrice({ quantity: 40, valueMinor: 0 }, null, [])).toEqual({ priceMinor: null });
  });
});

describe('what a head costs', () => {
  const with_ = (materialId: string, more: object): PlanInput => {
    const input = workshop();
    return {
      ...input,
      stock: input.stock.map((each) => (each.materialId === materialId ? { ...each, ...more } : each)),
    };
  };
  test('a hook of which nobody knows a price is told, and not counted as nothing', () => {
    const [line] = planOrder(with_('hook-2/0', { quantity: 0, priceMinor: null })).lines;
    expect(line!.unpriced).toEqual(['hook-2/0']);
    expect(line!.unitCost.why.rule).toMatch(/Without hook-2\/0: no price of it is known/);
    expect(planOrder(workshop()).lines[0]!.unpriced).toEqual([]);
  });
  test('one at its last price costs that, marked', () => {
    const [line] = planOrder(with_('hook-2/0', { quantity: 0, priceMinor: 19, priced: 'last price' })).lines;
    expect(line!.stack.hook).toBe(19);
    expect(line!.priced).toEqual([{ name: 'hook-2/0', priced: 'last price' }]);
  });
  test('bare heads and used jigs carry their price, stand among what is needed, and are short when they are', () => {
    const input = workshop();
    const bare = { materialId: 'bare', name: 'Bare ball', kind: 'bare head', quantity: 20, priceMinor: 45 };
    const shelf = product(10, { source: 'shelf', from: { materialId: 'bare', name: 'Bare ball', kind: 'bare head' } });
    const of = (from: typeof shelf) =>
      planOrder({ ...input, lines: [{ product: from, quantity: 30 }], stock: [...input.stock, bare] });
    const plan = of(shelf);
    expect(plan.needs.find(({ materialId }) => materialId === 'bare')).toMatchObject({
      ...{ need: { value: 30 }, have: 20, missing: 10 },
    });
    const without = of({ ...shelf, from: null }).lines[0]!.stack;
    expect(stackTotal(plan.lines[0]!.stack) - stackTotal(without)).toBeCloseTo(45, 9);
  });
});
