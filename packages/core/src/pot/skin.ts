import { inRange } from '../quantity/check.ts';

/**
 * The skin that grows on clean lead, as the eye reads it. Bands overlap from maker to maker: common practice, no
 * source.
 */
export const SKINS = [
  { colour: 'silver', fromC: 328, toC: 355, says: 'barely hot: shorts' },
  { colour: 'straw', fromC: 355, toC: 385, says: 'right to pour' },
  { colour: 'gold', fromC: 385, toC: 415, says: 'the upper edge' },
  { colour: 'violet', fromC: 415, toC: 450, says: 'too hot: dross grows fast' },
  { colour: 'blue', fromC: 450, toC: 520, says: 'far too hot: turn down, stand back' },
] as const;
export type SkinColour = (typeof SKINS)[number]['colour'];

/** A colour read off the melt is good to about this, K. */
export const SKIN_SD_K = 15;

/**
 * What the skin should look like at this temperature; null where the metal is not molten.
 * @example skinAt(371) // { colour: 'straw', fromC: 355, toC: 385, says: 'right to pour' }
 */
export function skinAt(metalC: number): (typeof SKINS)[number] | null {
  inRange('metalC', metalC, 'C', -50, 900);
  if (metalC < SKINS[0].fromC) return null;
  return SKINS.find((skin) => metalC < skin.toC) ?? SKINS.at(-1)!;
}

/**
 * The rough temperature that a colour stands for, C.
 * @example skinTemperatureC('straw') // 370
 */
export function skinTemperatureC(colour: SkinColour): number {
  const { fromC, toC } = SKINS.find((skin) => skin.colour === colour)!;
  return (fromC + toC) / 2;
}
