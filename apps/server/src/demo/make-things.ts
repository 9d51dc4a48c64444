import { randomUUID } from 'node:crypto';
import { fullShotKg } from '@schmelz/core';
import { createResource } from '../services/resources.ts';
import { writeSettings } from '../services/settings.ts';
import type { Store } from '../store/store.ts';
import * as catalogue from './catalogue.ts';
import type { TrueMold } from './evening.ts';

export interface Things {
  leadId: string;
  hookIds: Map<string, string>;
  wrongHookId: string;
  powderIds: Map<string, string>;
  productIds: string[];
  molds: { id: string; name: string }[];
  /** By their ids, as they really are. */
  trueMolds: Map<string, TrueMold>;
  potId: string;
}

const idOf = (doc: Record<string, unknown>) => doc['id'] as string;

/** Puts the catalogue into an empty store. */
export async function makeThings(store: Store): Promise<Things> {
  await writeSettings(store, 0, catalogue.DEMO_SETTINGS);
  const potId = randomUUID();
  await store.write(async (transaction) => {
    const { pots, ovens, bakePrograms } = store.models;
    const make = { transaction };
    await pots.create(
      { id: potId, name: 'Bottom-pour pot, 20 lb', capacityKg: 9, powerW: 700, lossWPerK: 0.41, version: 1 },
      make,
    );
    await ovens.create(
      {
        id: randomUUID(),
        name: 'Large toaster oven',
        places: 88,
        powerW: 1500,
        lagS: 200,
        racks: catalogue.RACKS.map((rack) => ({ ...rack })),
        version: 1,
      },
      make,
    );
    for (const program of catalogue.PROGRAMS) {
      await bakePrograms.create({ ...program, id: randomUUID(), version: 1 }, make);
    }
  });
  const material = async (input: Record<string, unknown>) => idOf(await createResource(store, 'materials', input));
  const leadId = await material(catalogue.LEAD);
  const hookIds = new Map<string, string>();
  for (const hook of catalogue.HOOKS) hookIds.set(hook.hook!.size, await material(hook));
  const wrongHookId = await material(catalogue.WRONG_HOOK);
  const powderIds = new Map<string, string>();
  for (const powder of catalogue.POWDERS) powderIds.set(powder.name, await material(powder));
  const recipeIds = new Map<string, string>();
  for (const { name, eyeColour, layers } of catalogue.RECIPES) {
    const rows = layers.map(({ powder, zone, coats, mix }) => ({
      powderId: powderIds.get(powder)!,
      zone,
      coats,
      mix: mix ? { powderId: powderIds.get(mix.powder)!, share: mix.share } : null,
    }));
    recipeIds.set(name, idOf(await createResource(store, 'recipes', { name, eyeColour, layers: rows })));
  }
  const molds: Things['molds'] = [];
  const trueMolds = new Map<string, TrueMold>();
  for (const [at, mold] of catalogue.MOLDS.entries()) {
    const id = idOf(await createResource(store, 'molds', { ...mold }));
    const { name, bodyKg, cavities } = mold;
    const positions = cavities.filter(({ condition }) => condition === 'good').map(({ position }) => position);
    molds.push({ id, name });
    const quirk = catalogue.MOLD_QUIRKS[at % catalogue.MOLD_QUIRKS.length]!;
    trueMolds.set(id, { name, bodyKg, quirk, fullShotKg: fullShotKg(cavities), positions });
  }
  const programs = await store.models.bakePrograms.findAll();
  const productIds: string[] = [];
  for (const { name, style, grams, hookSize, recipe, priceMinor, program } of catalogue.PRODUCTS) {
    const input = {
      name,
      style,
      nominalMassKg: grams / 1000,
      hookId: hookIds.get(hookSize)!,
      recipeId: recipeIds.get(recipe)!,
      bakeProgramId: program === null ? null : (programs[program]!.get('id') as string),
      priceMinor,
      // Footballs carry a guard: their pin stays in through the paint. One is always there for who comes by.
      keepHeads: productIds.length === 0 ? 40 : null,
      ways: style === 'football' ? { hole: 'pulled one by one' } : null,
    };
    productIds.push(idOf(await createResource(store, 'products', input)));
  }
  return { leadId, hookIds, wrongHookId, powderIds, productIds, molds, trueMolds, potId };
}
