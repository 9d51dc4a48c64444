import type { ToolInput, SupplierInput, RuleInput } from '@schmelz/contract';
import { createResource } from '../services/resources.ts';
import { rowsOf, type Store } from '../store/store.ts';
import type { Things } from './make-things.ts';

/** Two that sell, what was bought to work with, and what the maker has written down of two waters: all invented. */
export async function makeShop(store: Store, things: Things): Promise<void> {
  const hooks = [...things.hookIds.values()];
  const powders = [...things.powderIds.values()];
  const pack = (materialId: string, size: number, ...minor: [first: number, from?: number, then?: number]) => {
    const [first, from, then] = minor;
    const later = from === undefined || then === undefined ? [] : [{ fromPacks: from, minor: then }];
    return { materialId, pack: size, prices: [{ fromPacks: 1, minor: first }, ...later] };
  };
  const suppliers: SupplierInput[] = [
    {
      ...{ name: 'Quay shed', freightMinor: 490, freeAboveMinor: 6000, days: 2, note: 'opens on Saturdays too' },
      offers: [
        ...hooks.flatMap((id) => [pack(id, 25, 560), pack(id, 100, 1790, 5, 1610)]),
        ...powders.map((id) => pack(id, 0.06, 690)),
        pack(things.leadId, 5, 1690),
      ],
    },
    {
      ...{ name: 'The long order', freightMinor: 890, freeAboveMinor: 12000, days: 9, note: '' },
      offers: [
        ...hooks.map((id) => pack(id, 1000, 12900)),
        ...powders.map((id) => pack(id, 0.225, 1490, 4, 1340)),
        pack(things.leadId, 25, 6300),
      ],
    },
  ];
  for (const supplier of suppliers) await createResource(store, 'suppliers', { ...supplier });
  // A mold serves what it casts.
  const cavities = await rowsOf(store.models.cavities);
  const products = await rowsOf(store.models.products);
  const castIn = (moldId: string) =>
    products
      .filter(({ style, nominalMassKg }) =>
        cavities.some((each) => each.moldId === moldId && each.style === style && each.nominalMassKg === nominalMassKg),
      )
      .map(({ id }) => id);
  const tools: ToolInput[] = [
    ...things.molds.map(({ id, name }, at) => ({
      ...{ name: `Mold ${name}`, priceMinor: 5900 + 700 * at, boughtOn: '2025-10-04' },
      ...{ lifeHeads: 20_000, productIds: castIn(id), note: '' },
    })),
    { name: 'Pot', priceMinor: 9900, boughtOn: '2025-10-04', lifeHeads: null, productIds: [], note: '' },
    { name: 'Toaster oven', priceMinor: 7400, boughtOn: '2025-10-11', lifeHeads: null, productIds: [], note: '' },
    { name: 'Heat gun', priceMinor: 4500, boughtOn: '2025-10-11', lifeHeads: 15_000, productIds: [], note: '' },
  ];
  for (const tool of tools) await createResource(store, 'tools', { ...tool });
  const rules: RuleInput[] = [
    {
      where: 'The upper lake',
      fromKg: null,
      belowKg: 0.02835,
      noLead: false,
      note: 'read on the board at the landing',
    },
    { where: 'Mill ponds', fromKg: null, belowKg: null, noLead: true, note: 'asked the warden' },
  ];
  for (const rule of rules) await createResource(store, 'rules', { ...rule });
}
