import { lightnessOf, type CupColour } from './colour-order.ts';
import { mixedColour } from './mix-colour.ts';

/** A powder as it stands in a cup. */
interface CupPowder {
  materialId: string;
  name: string;
  /** Six hexadecimal digits; left out: neither light nor dark. */
  colour?: string;
  gloss?: CupColour['gloss'];
  form?: 'powder' | 'liquid';
}
/** A cup with what is in it, and its colour as six hexadecimal digits. */
type Cup = CupColour & { colour: string };

const MIDDLE_GREY = '#777777';

/**
 * The cups that layers are dipped from, each once: a mixture has a cup of its own, liquid paint has none.
 * @throws QuantityError for a colour that is none
 * @example cupsOf([{ powder: { materialId: 'w', name: 'White', colour: '#ffffff' } }])[0].lightness // 1
 */
export function cupsOf(
  layers: readonly { powder: CupPowder; mix?: { powder: CupPowder; share: number } | null }[],
): Cup[] {
  const cups = layers.flatMap(({ powder, mix }): Cup[] => {
    if (powder.form === 'liquid') return [];
    const { materialId, name, colour: own = MIDDLE_GREY, gloss = 'gloss' } = powder;
    const colour = mix ? mixedColour(own, mix.powder.colour ?? MIDDLE_GREY, mix.share) : own;
    return [
      {
        id: mix ? `${materialId}+${mix.powder.materialId}` : materialId,
        name: mix ? `${name} with ${mix.powder.name}` : name,
        ...{ lightness: lightnessOf(colour), gloss, colour },
      },
    ];
  });
  return [...new Map(cups.map((cup) => [cup.id, cup])).values()];
}
