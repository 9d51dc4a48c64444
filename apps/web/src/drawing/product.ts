import type { PlanProduct } from '@schmelz/core';
import type { HeadSpec } from './head-parts.ts';
import { BARE, paintOf, type Paint } from './paint.ts';

/** How a product's head is drawn. */
export const specOf = ({
  style,
  nominalMassKg,
  hook,
}: Pick<PlanProduct, 'style' | 'nominalMassKg' | 'hook'>): HeadSpec => ({
  ...{ style, massKg: nominalMassKg, hookSize: hook?.size ?? null, eyeAngleDeg: hook?.eyeAngleDeg ?? 60 },
  ...(hook?.wire ? { wire: hook.wire } : {}),
});

/** What lies on a product's head once all of its steps are done. */
export function paintOn({ steps = [], layers }: Pick<PlanProduct, 'steps' | 'layers'>): Paint {
  if (layers.length === 0) return BARE;
  const eye = steps.findLast(({ recipe }) => recipe?.eyeColour)?.recipe?.eyeColour ?? null;
  return paintOf(layers, eye);
}
