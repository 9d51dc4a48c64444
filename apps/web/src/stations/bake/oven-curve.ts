import type { Oven, Ticket } from '@schmelz/contract';
import {
  bakeTemperaturesC,
  cureLaw,
  cureShare,
  productLagS,
  timeToFullCureS,
  typicalHook,
  type BakeInput,
  type OvenLoad,
} from '@schmelz/core';
import type { Catalogue } from '../../shell/catalogue.ts';

export interface OvenCurve {
  /** Slowest powder of the product, with the bake as the model takes it; null for bare heads. */
  input: BakeInput | null;
  fullS: number | null;
  finishLimitC: number | null;
  points: { minute: number; ovenC: number; metalC: number; cure: number }[];
}

/** The course of one load from the core's models: air, metal and cure, minute by minute, a little past the program. */
export function ovenCurve(
  ticket: Ticket,
  load: Pick<OvenLoad, 'setC' | 'seconds' | 'preheated'>,
  catalogue: Catalogue,
  oven: Oven | undefined,
): OvenCurve {
  const product = catalogue.product(ticket.productId);
  const hook = catalogue.materials.get(product?.hookId ?? '')?.hook;
  const recipe = catalogue.recipes.get(product?.recipeId ?? '');
  if (!product || !hook || !recipe) return { input: null, fullS: null, finishLimitC: null, points: [] };
  const massKg = typicalHook(hook.size, hook.wire).massKg;
  const headLagS = productLagS({ ...product, hook: { materialId: product.hookId, name: '', size: hook.size, eyeAngleDeg: hook.eyeAngleDeg, massKg } }); // prettier-ignore
  const inputs = recipe.layers.map(({ powderId }): BakeInput => ({
    law: cureLaw(catalogue.materials.get(powderId)!.powder!.label),
    headLagS,
    setC: load.setC,
    ovenLagS: load.preheated ? 0 : (oven?.lagS ?? 0),
  }));
  const input = inputs.reduce((a, b) => (cureShare(b, load.seconds) < cureShare(a, load.seconds) ? b : a));
  const endS = load.seconds * 1.25;
  const points = Array.from({ length: 61 }, (_, i) => {
    const seconds = (endS * i) / 60;
    return { minute: seconds / 60, ...bakeTemperaturesC(input, seconds), cure: cureShare(input, seconds) };
  });
  return { input, fullS: timeToFullCureS(input), finishLimitC: hook.finishLimitC, points };
}
