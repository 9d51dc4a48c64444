import type { Oven, Product, Recipe, Ticket } from '@schmelz/contract';
import { cureLaw, productLagS, ticketState, typicalHook, type BakedHead, type PastBake } from '@schmelz/core';
import { realOven } from './oven.ts';
import type { Catalogue } from '../../shell/catalogue.ts';

/** Powders of a recipe that have to cure, those of mixtures too; liquid paint only dries. */
const curedIds = ({ layers }: Recipe, catalogue: Catalogue): string[] =>
  [...new Set(layers.flatMap(({ powderId, mix }) => (mix ? [powderId, mix.powderId] : [powderId])))].filter(
    (id) => catalogue.materials.get(id)?.powder?.form !== 'liquid',
  );

/** A product as the oven sees it; null for bare heads and for paint that only dries. */
export function bakedHead(product: Product, catalogue: Catalogue): BakedHead | null {
  const hook = catalogue.materials.get(product.hookId);
  const recipe = catalogue.recipes.get(product.recipeId ?? '');
  if (!hook?.hook || !recipe) return null;
  const { size, wire, eyeAngleDeg, finishLimitC } = hook.hook;
  const massKg = typicalHook(size, wire).massKg;
  const powders = curedIds(recipe, catalogue);
  if (powders.length === 0) return null;
  return {
    name: product.name,
    headLagS: productLagS({ ...product, hook: { materialId: hook.id, name: hook.name, size, eyeAngleDeg, massKg } }),
    laws: powders.map((id) => {
      const powder = catalogue.materials.get(id)!;
      return { powder: powder.name, law: cureLaw(powder.powder!.label) };
    }),
    hook: hook.name,
    finishLimitC,
  };
}

/** Every load of a ticket that has come out of the oven. */
export function pastBakes(ticket: Ticket, catalogue: Catalogue, oven: Oven | undefined): PastBake[] {
  const product = catalogue.product(ticket.productId);
  const head = product && bakedHead(product, catalogue);
  if (!head) return [];
  const { route, poured, pourClosed } = ticket;
  return ticketState({ route, poured, pourClosed }, ticket.log).loads.flatMap((load) =>
    load.unloadedAt === null
      ? []
      : [
          {
            id: load.id,
            at: load.loadedAt,
            name: `Ticket ${ticket.number}, ${product.name}`,
            heads: load.count,
            setC: load.setC + realOven(oven).offsetK,
            seconds: (load.unloadedAt - load.loadedAt) / 1000,
            ovenLagS: load.preheated ? 0 : realOven(oven).lagS,
            headLagS: head.headLagS,
            laws: head.laws,
            finishLimitC: head.finishLimitC,
          },
        ],
  );
}
