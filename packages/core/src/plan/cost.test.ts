import { product, workshop } from '../test/workshop.ts';
import { serving } from './cost.ts';
import { planOrder } from './plan.ts';
import { stackTotal, type PlanInput } from './types.ts';

const bag = { partId: 'bag', name: 'Bag', kind: 'bag', quantity: 0.25, waste: 0, step: 'finish', limitC: null };
const guard = { ...bag, partId: 'guard', name: 'Guard', kind: 'guard', quantity: 1 };
const shop = workshop();
const stock = [
  ...shop.stock,
  { materialId: 'bag', name: 'Bag', kind: 'bag', quantity: 100, priceMinor: 8 },
  { materialId: 'guard', name: 'Guard', kind: 'guard', quantity: 100, priceMinor: 11 },
];
const bagged = product(10, { id: 'p', parts: [bag, guard] });
const tools = [
  { priceMinor: 6000, lifeHeads: 20_000, productIds: [] },
  { priceMinor: 3000, lifeHeads: 1000, productIds: ['p'] },
  { priceMinor: 9000, lifeHeads: 1000, productIds: ['another'] },
  { priceMinor: 50_000, lifeHeads: null, productIds: [] },
];
const input: PlanInput = { ...shop, lines: [{ product: bagged, quantity: 40 }], stock, tools };

test('bags and the wear of tools stand in the cost of a head, each as a part of its own', () => {
  const { stack } = planOrder(input).lines[0]!;
  // By hand: four heads to a bag of 0.08; a guard of 0.11; 60.00 over 20,000 heads and 30.00 over 1000.
  expect(stack.packaging).toBeCloseTo(2, 9);
  expect(stack.parts).toBeCloseTo(11, 9);
  expect(stack.wear).toBeCloseTo(0.3 + 3, 9);
  const bare = planOrder({ ...input, tools: [] }).lines[0]!;
  expect(bare.stack.wear).toBe(0);
  expect(stackTotal(stack) - stackTotal(bare.stack)).toBeCloseTo(3.3, 9);
});

test('a tool that names no product serves all of them', () => {
  expect(serving('p', tools)).toHaveLength(3);
  expect(serving('q', tools)).toHaveLength(2);
  expect(serving('p')).toEqual([]);
});
