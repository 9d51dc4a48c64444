import { inRange, QuantityError } from '../quantity/check.ts';

const channels = (colour: string): number[] => {
  const parts = /^#([0-9a-f]{2})([0-9a-f]{2})([0-9a-f]{2})$/i.exec(colour);
  if (!parts) throw new QuantityError('colour', colour, '', 'a colour as #a1b2c3');
  return parts.slice(1).map((part) => parseInt(part, 16) / 255);
};
/** Light of an sRGB channel and back (IEC 61966-2-1). */
const toLight = (v: number) => (v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4);
const fromLight = (v: number) => (v <= 0.0031308 ? v * 12.92 : 1.055 * v ** (1 / 2.4) - 0.055);

/**
 * How two powders look from an arm's length when they were shaken together dry: their grains stay what they are and lie
 * side by side, so that their light adds up, not their numbers. Check: half black, half white is #bcbcbc, not #808080.
 * @param share of the second, 0 to 1
 * @example mixedColour('#000000', '#ffffff', 0.5) // '#bcbcbc'
 */
export function mixedColour(first: string, second: string, share: number): string {
  inRange('share', share, '', 0, 1);
  const [a, b] = [channels(first), channels(second)];
  const mixed = a.map((v, i) => fromLight((1 - share) * toLight(v) + share * toLight(b[i]!)));
  return `#${mixed
    .map((v) =>
      Math.round(255 * v)
        .toString(16)
        .padStart(2, '0'),
    )
    .join('')}`;
}
