import { mixedColour } from '@schmelz/core';
import type { Material, Recipe } from '@schmelz/contract';

type Details = NonNullable<Material['powder']>;

/** One powder or mixture where it lies: how it looks from an arm's length, and what its surface does with light. */
export interface Coat {
  colour: string;
  gloss: Details['gloss'];
  /** In a mixture: the grains of both powders, and the share of the second. */
  grains?: { first: string; second: string; share: number };
}

/** What lies where on a head; all null is bare lead. */
export interface Paint {
  base: Coat | null;
  back: Coat | null;
  nose: Coat | null;
  speckle: Coat | null;
  flake: Coat | null;
  /** A clear coat over all of it. */
  clear: boolean;
  eye: string | null;
}
export const BARE: Paint = { base: null, back: null, nose: null, speckle: null, flake: null, clear: false, eye: null };

/** A recipe's layers as they come to lie: the last on a zone is what is seen; clear over all hides nothing. */
export function paintOf(
  { layers, eyeColour }: Pick<Recipe, 'layers' | 'eyeColour'>,
  powderOf: (id: string) => Details | null | undefined,
): Paint {
  const paint: Paint = { ...BARE, eye: eyeColour };
  for (const { powderId, zone, mix } of layers) {
    const powder = powderOf(powderId);
    if (!powder) continue;
    if (powder.gloss === 'clear') {
      paint.clear ||= zone === 'whole';
      continue;
    }
    const second = mix ? powderOf(mix.powderId) : null;
    const coat: Coat = second
      ? {
          colour: mixedColour(powder.colour, second.colour, mix!.share),
          gloss: powder.gloss,
          grains: { first: powder.colour, second: second.colour, share: mix!.share },
        }
      : { colour: powder.colour, gloss: powder.gloss };
    if (zone === 'whole') paint.base = coat;
    else paint[zone] = coat;
    // A new colour over the whole head hides what lay there before.
    if (zone === 'whole') paint.back = paint.nose = paint.speckle = paint.flake = null;
  }
  return paint;
}

/** Whether there is anything on the lead at all. */
export const isPainted = (paint: Paint): boolean =>
  paint.clear || [paint.base, paint.back, paint.nose, paint.speckle, paint.flake].some(Boolean);
