import { castMassKg } from '../cast/cast-mass.ts';
import { cavitySolid } from '../geometry/solid.ts';
import { sprueOf } from '../geometry/sprue.ts';
import type { Alloy } from '../metal/alloy.ts';
import { countInRange, inRange } from '../quantity/check.ts';
import { figure, given, type Figure } from '../quantity/figure.ts';
import { aboveZero, range90 } from '../quantity/range.ts';
import { SPREAD } from '../quantity/spreads.ts';

interface FromMetal {
  metalKg: number;
  /** Of the cavity. */
  style: string;
  nominalMassKg: number;
  /** How many are poured at once: their sprues are in the last shot. */
  cavities: number;
  heelKg: number;
  /** Of all that is cast. */
  drossShare: number;
  /** Good ones of all casts. */
  yieldShare: number;
  alloy?: Alloy;
}

/**
 * How many good heads a lot of metal gives. Sprues and rejects come back into the pot; only heads and dross are used
 * up, and at the end the heel and the sprues of a last shot are left over. Dross is skimmed off all that is cast, what
 * comes back and is cast again too. Check (practice): 5 lb give 38 to 40 heads of 2 oz with a small heel; 160 of half
 * an ounce without any loss.
 * @example headsFromMetal({ metalKg: 2.268, style: 'ball', nominalMassKg: 0.0567, cavities: 1, heelKg: 0.05,
 * drossShare: 0.01, yieldShare: 0.92 }).value // 38
 */
export function headsFromMetal(input: FromMetal): Figure {
  const { style, nominalMassKg, alloy } = input;
  const metalKg = inRange('metalKg', input.metalKg, 'kg', 0.01, 10_000);
  const heelKg = inRange('heelKg', input.heelKg, 'kg', 0, 50);
  const drossShare = inRange('drossShare', input.drossShare, 'share', 0, 0.5);
  const yieldShare = inRange('yieldShare', input.yieldShare, 'share', 0.05, 1);
  const cavities = countInRange('cavities', input.cavities, 1, 12);
  const headKg = castMassKg({ nominalMassKg, alloy });
  const sprueKg = sprueOf(cavitySolid(style, nominalMassKg)).massKg * (headKg / castMassKg({ nominalMassKg }));
  const count = (dross: number, good: number) => {
    const castKg = (headKg + sprueKg) / good;
    return Math.max(0, Math.floor((metalKg - heelKg - cavities * sprueKg) / (headKg + dross * castKg) + 1e-9));
  };
  return figure(
    count(drossShare, yieldShare),
    'count',
    {
      rule: 'Sprues and rejects go back; heads and dross are used up. The heel and the sprues of the last shot are left.',
      formula: 'n = (metal − heel − last sprues) / (head + dross share · cast metal)',
      source: 'Mass balance; dross share and heel are house ways',
      inputs: [
        given('Metal', metalKg, 'kg'),
        given('Heel', heelKg, 'kg'),
        given('A head', headKg, 'head-kg'),
        given('Its sprue', sprueKg, 'head-kg'),
        given('Turns to dross', drossShare, 'ratio'),
        given('Good of all casts', yieldShare, 'ratio'),
      ],
    },
    range90(
      ([dross, good]) => count(dross!, good!),
      [aboveZero(drossShare, SPREAD.drossShare), { value: yieldShare, sd: SPREAD.goodPart, least: 0.05, most: 1 }],
    ),
  );
}

/** Of scrap and tyre weights so much is left clean. Common practice, no source: 80 to 95 %. */
export const USUALLY_CLEAN = 0.87;

/** Half a pound, as most ingot molds cast it. */
export const INGOT_KG = 0.45359237 / 2;

/**
 * How many half-pound ingots a lot of scrap gives, once it is melted down and skimmed.
 * @example ingotsFromScrap({ grossKg: 10, cleanShare: 0.87 }).value // 38
 */
export function ingotsFromScrap(of: { grossKg: number; cleanShare: number; ingotKg?: number }): Figure {
  const grossKg = inRange('grossKg', of.grossKg, 'kg', 0.05, 10_000);
  const cleanShare = inRange('cleanShare', of.cleanShare, 'share', 0.1, 1);
  const ingotKg = inRange('ingotKg', of.ingotKg ?? INGOT_KG, 'kg', 0.05, 10);
  const count = (share: number) => Math.floor((grossKg * Math.min(1, share)) / ingotKg + 1e-9);
  return figure(
    count(cleanShare),
    'count',
    {
      rule: 'What is left of it clean, poured into half-pound molds; what does not fill one is left over.',
      formula: 'n = gross · clean share / ingot',
      source: 'Clean share by your own lots, or common practice: 80 to 95 %',
      inputs: [given('Gross', grossKg, 'kg'), given('Clean', cleanShare, 'ratio'), given('An ingot', ingotKg, 'kg')],
    },
    range90(([clean]) => count(clean!), [{ value: cleanShare, sd: SPREAD.cleanPart, least: 0, most: 1 }]),
  );
}
