import { workshop, product, cavity } from '../test/workshop.ts';
import { headsFromMetal, ingotsFromScrap } from './from-metal.ts';
import { planOrder } from './plan.ts';

const LB = 0.45359237; // exact, NIST SP 811
const OZ = LB / 16;
const five = (ounces: number, more = {}) =>
  headsFromMetal({
    ...{ metalKg: 5 * LB, style: 'ball', nominalMassKg: ounces * OZ, cavities: 4 },
    ...{ heelKg: 0.05, drossShare: 0.01, yieldShare: 0.92, ...more },
  });

// By arithmetic: 5 lb are 80 oz, 160 heads of half an ounce; in practice 38 to 40 heads of 2 oz (common practice).
test('how many heads a lot of metal gives', () => {
  expect(five(2, { cavities: 1 }).value).toBeGreaterThanOrEqual(37);
  expect(five(2, { cavities: 1 }).value).toBeLessThanOrEqual(40);
  const lossless = { heelKg: 0, drossShare: 0, yieldShare: 1, cavities: 1 };
  expect(five(0.5, lossless).value).toBeGreaterThanOrEqual(159);
  expect(five(0.5, lossless).value).toBeLessThanOrEqual(160);
  const { low, value, high } = five(2);
  expect(low!).toBeLessThanOrEqual(value);
  expect(high!).toBeGreaterThan(value);
  expect(five(0.1).low!).toBeLessThan(five(0.1).value);
});

test('rejects come back: half of them good gives nearly as many', () => {
  expect(five(2, { yieldShare: 0.5 }).value).toBeGreaterThan(0.95 * five(2, { yieldShare: 1 }).value);
});

test('less than the heel gives none; nonsense is refused by name', () => {
  expect(five(2, { heelKg: 4 }).value).toBe(0);
  expect(() => five(2, { metalKg: -1 })).toThrow(/metalKg is -1\u00a0kg/);
});

test('half-pound ingots from scrap: 22 lb that are 87 % clean', () => {
  // 19.14 lb clean.
  expect(ingotsFromScrap({ grossKg: 22 * LB, cleanShare: 0.87 })).toMatchObject({ value: 38, low: 35, high: 40 });
});

describe('an order of forty heads of 2 oz', () => {
  const molds = [
    { id: 'm', name: 'Four', bodyKg: 0.9, shotsSinceSmoked: 0, cavities: [1, 2, 3, 4].map((at) => cavity(at, 56.7)) },
  ];
  const input = workshop();
  const hook = { ...product(20).hook! };
  const heads = product(56.7, { hook });
  const cavities = molds[0]!.cavities.map((each) => ({ ...each, hookSize: hook.size }));
  const plan = planOrder({
    ...input,
    molds: [{ ...molds[0]!, cavities }],
    lines: [{ product: heads, quantity: 40 }],
    ways: { ...input.ways, heelKg: 0.1 },
  });
  const lead = plan.needs.find(({ kind }) => kind === 'lead')!;

  test('charge, need and what is used up are three figures', () => {
    const [charge, need, used] = [plan.charge.value, lead.need.value, plan.leadUsed.value];
    // 40 heads are 2.268 kg; dross comes on top.
    expect(used).toBeGreaterThan(2.268);
    expect(used).toBeLessThan(2.268 * 1.08);
    // With the heel and a round of sprues and rejects that is under way.
    expect(need).toBeGreaterThan(used + 0.1);
    expect(need).toBeLessThan(used + 0.1 + 0.35);
    // Melted at once it is all that is cast, sprues and all.
    expect(charge).toBeGreaterThan(need + 0.3);
  });
});
