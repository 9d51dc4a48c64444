import { mixedColour, type CupColour, type PlanLayer } from '@schmelz/core';

/** One powder or mixture where it lies: how it looks from an arm's length, and what its surface does with light. */
export interface Coat {
  colour: string;
  gloss: CupColour['gloss'];
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

/** Layers as they come to lie: the last on a zone is what is seen; clear over all hides nothing. */
export function paintOf(layers: readonly PlanLayer[], eyeColour: string | null): Paint {
  const paint: Paint = { ...BARE, eye: eyeColour };
  for (const { powder, zone, mix } of layers) {
    const { colour, gloss = 'gloss' } = powder;
    if (colour === undefined) continue;
    if (gloss === 'clear') {
      paint.clear ||= zone === 'whole';
      continue;
    }
    const second = mix?.powder.colour;
    const coat: Coat =
      mix && second !== undefined
        ? {
            ...{ colour: mixedColour(colour, second, mix.share), gloss },
            grains: { first: colour, second, share: mix.share },
          }
        : { colour, gloss };
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
