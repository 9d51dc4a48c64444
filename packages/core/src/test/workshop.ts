import { DEFAULT_WAYS } from '../plan/ways.ts';
import type { PlanCavity, PlanInput, PlanProduct, StockOnHand } from '../plan/types.ts';

/** A small invented workshop for tests: one mold, two hooks, one powder. */
export const cavity = (position: number, grams: number, more: Partial<PlanCavity> = {}): PlanCavity => ({
  id: `cavity-${position}`,
  position,
  style: 'ball',
  nominalMassKg: grams / 1000,
  hookSize: grams > 12 ? '3/0' : '2/0',
  eyeAngleDeg: 60,
  condition: 'good',
  good: 0,
  casts: 0,
  ...more,
});

export const product = (grams: number, more: Partial<PlanProduct> = {}): PlanProduct => ({
  id: `ball-${grams}`,
  name: `Ball ${grams} g`,
  style: 'ball',
  nominalMassKg: grams / 1000,
  hook: {
    materialId: grams > 12 ? 'hook-3/0' : 'hook-2/0',
    name: 'Hook',
    size: grams > 12 ? '3/0' : '2/0',
    eyeAngleDeg: 60,
    massKg: 0.0006,
  },
  layers: [
    {
      powder: {
        materialId: 'white',
        name: 'White',
        specificGravity: 1.5,
        label: [
          { metalC: 177, seconds: 1200 },
          { metalC: 200, seconds: 600 },
        ],
      },
      zone: 'whole',
      coats: 1,
    },
  ],
  bake: { name: '177 C, 28 min', setC: 177, seconds: 1680, preheated: true },
  ...more,
});

const onHand = (materialId: string, kind: StockOnHand['kind'], quantity: number, priceMinor: number): StockOnHand => ({
  materialId,
  name: materialId,
  kind,
  quantity,
  priceMinor,
});

export const workshop = (): PlanInput => {
  const lead = onHand('lead', 'lead', 20, 250);
  return {
    lines: [
      { product: product(10), quantity: 60 },
      { product: product(14), quantity: 24 },
    ],
    molds: [
      {
        id: 'mold',
        name: 'Five',
        bodyKg: 0.5,
        shotsSinceSmoked: 0,
        cavities: [cavity(1, 10), cavity(2, 10), cavity(3, 10), cavity(4, 14), cavity(5, 14)],
      },
    ],
    pot: { name: 'pot', capacityKg: 9, powerW: 700, lossWPerK: 0.55 },
    oven: { name: 'oven', places: 60, powerW: 1400, lagS: 180 },
    ways: DEFAULT_WAYS,
    lead,
    stock: [
      lead,
      onHand('hook-2/0', 'hook', 100, 16),
      onHand('hook-3/0', 'hook', 20, 18),
      onHand('white', 'powder', 0.2, 6000),
    ],
  };
};
