import { PRODUCT_TEMPLATES } from '@schmelz/core';
import { createResource } from '../services/resources.ts';
import { receive } from '../services/stock.ts';
import type { Store } from '../store/store.ts';
import type { Things } from './make-things.ts';

/** What lies on the finishing bench of this shed: pieces or ml, and what was paid for them. */
const SHELF: Record<string, { name: string; quantity: number; priceMinor: number }> = {
  guard: { name: 'Brush guards, black', quantity: 200, priceMinor: 1900 },
  glue: { name: 'Quick epoxy', quantity: 50, priceMinor: 890 },
  'banded skirt': { name: 'Skirts, moss and rust', quantity: 60, priceMinor: 3300 },
};

/** A product that is finished with guard and skirt, and its parts. Gives its id. */
export async function makeGuardJig(store: Store, things: Things, on: string): Promise<string> {
  const { steps, parts } = PRODUCT_TEMPLATES.find(({ id }) => id === 'guard jig')!;
  const [like] = await store.select<{ recipeId: string; bakeProgramId: string }>(
    `SELECT recipeId, bakeProgramId FROM products WHERE id = :id`,
    { id: things.productIds[8]! },
  );
  const bill = [];
  for (const { kind, details, limitC, quantity, waste, step } of parts) {
    const { name, quantity: bought, priceMinor } = SHELF[kind]!;
    const plain = { note: '', metalId: null, hook: null, powder: null };
    const part = await createResource(store, 'materials', {
      ...{ ...plain, kind, name, details: details ?? null, limitC: limitC ?? null },
    });
    const partId = part['id'] as string;
    await receive(store, partId, { quantity: bought, priceMinor, on, lot: '' });
    bill.push({ partId, quantity, waste, step });
  }
  const product = await createResource(store, 'products', {
    ...{ name: 'Rocker 21 g, guarded, mussel with frost', style: 'football', nominalMassKg: 0.021 },
    ...{ hookId: things.hookIds.get('4/0')!, ...like!, route: steps, parts: bill, priceMinor: 540 },
    ways: { hole: 'pulled one by one' },
  });
  return product['id'] as string;
}
