import { randomUUID } from 'node:crypto';
import type { Store } from '../store/store.ts';

/**
 * Even an empty workshop has a pot, an oven and the most common bake program to reckon with; each is a default that the
 * maker corrects in Setup.
 */
export async function makeBasics(store: Store): Promise<void> {
  const { pots, ovens, bakePrograms } = store.models;
  const [pot, oven, program] = await Promise.all([pots.count(), ovens.count(), bakePrograms.count()]);
  if (pot && oven && program) return;
  await store.write(async (transaction) => {
    const make = { transaction };
    if (!pot)
      await pots.create(
        { id: randomUUID(), name: 'Pot', capacityKg: 9, powerW: 700, lossWPerK: 0.41, version: 1 },
        make,
      );
    if (!oven)
      await ovens.create({ id: randomUUID(), name: 'Oven', places: 60, powerW: 1400, lagS: 180, version: 1 }, make);
    if (!program)
      await bakePrograms.create(
        {
          id: randomUUID(),
          name: '177 °C for 28 min, preheated',
          setC: 177,
          seconds: 1680,
          preheated: true,
          version: 1,
        },
        make,
      );
  });
}
