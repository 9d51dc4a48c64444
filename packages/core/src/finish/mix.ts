import { countInRange, inRange, QuantityError } from '../quantity/check.ts';

/** A glue or a resin of two parts, and the hands that use it. */
interface MixInput {
  heads: number;
  /** What a head takes, ml. */
  mlPerHead: number;
  /** So long it can be worked, s. */
  potLifeS: number;
  /** A maker's own pace, s a head. */
  secondsPerHead: number;
  /** Mixing itself, s: its pot life runs meanwhile. */
  mixingS?: number;
  /** Hardener to one of resin, by volume; or by weight with both densities. */
  ratio?: number;
  by?: 'volume' | 'weight';
  resinKgL?: number;
  hardenerKgL?: number;
}

export interface Mix {
  heads: number;
  ml: number;
  /** Of each part, ml by volume or g by weight. */
  resin: number;
  hardener: number;
  /** Seconds after the first one is begun. */
  startsS: number;
  endsS: number;
}

export interface MixPlan {
  mixes: Mix[];
  /** Heads that one mix serves before it is stiff. */
  headsPerMix: number;
  /** In unit of the parts. */
  unit: 'ml' | 'g';
  usedMl: number;
  wastedMl: number;
}

/** Stays on card and toothpick, ml a mix, and the least that can be mixed true. Common practice, no source. */
export const CARD_ML = 0.3;
export const LEAST_ML = 0.6;
/** So long a mix takes to be one. */
export const MIXING_S = 45;

/**
 * How much to mix, how often, and when: no more heads a mix than hands do within its pot life, all mixes alike. Range:
 * 1 to 10,000 heads, pot life 10 s to a day, 1 to 3600 s a head, 0.001 to 20 ml a head, ratio 0.01 to 10.
 * @throws QuantityError where not even one head is done before a mix is stiff
 * @example mixPlan({ heads: 60, mlPerHead: 0.06, potLifeS: 240, secondsPerHead: 28 }).headsPerMix // 6
 */
export function mixPlan(input: MixInput): MixPlan {
  const { mixingS = MIXING_S, ratio = 1, by = 'volume', resinKgL = 1.15, hardenerKgL = 1 } = input;
  const heads = countInRange('heads', input.heads, 1, 10_000);
  const mlPerHead = inRange('glue a head', input.mlPerHead, 'ml', 0.001, 20);
  const potLifeS = inRange('pot life', input.potLifeS, 's', 10, 86_400);
  inRange('ratio', ratio, '', 0.01, 10);
  const workableS = potLifeS - inRange('mixing', mixingS, 's', 0, 600);
  if (workableS < 1) throw new QuantityError('pot life', potLifeS, 's', `more than the ${mixingS} s that mixing takes`);
  const secondsPerHead = inRange('seconds a head', input.secondsPerHead, 's', 1, workableS + 1e-9);
  const headsPerMix = Math.floor(workableS / secondsPerHead + 1e-9);
  const count = Math.ceil(heads / headsPerMix);
  const mixes: Mix[] = [];
  let [done, at] = [0, 0];
  for (let nth = 0; nth < count; nth++) {
    // Alike: 62 heads in mixes of 30 at most are 21, 21 and 20.
    const own = Math.ceil((heads - done) / (count - nth));
    const ml = Math.max(LEAST_ML, own * mlPerHead + CARD_ML);
    const endsS = at + mixingS + own * secondsPerHead;
    mixes.push({ heads: own, ml, ...partsOf(ml, { ratio, by, resinKgL, hardenerKgL }), startsS: at, endsS });
    done += own;
    at = endsS;
  }
  const usedMl = heads * mlPerHead;
  const mixedMl = mixes.reduce((sum, { ml }) => sum + ml, 0);
  return { mixes, headsPerMix, unit: by === 'volume' ? 'ml' : 'g', usedMl, wastedMl: mixedMl - usedMl };
}

type Ratio = Required<Pick<MixInput, 'ratio' | 'by' | 'resinKgL' | 'hardenerKgL'>>;

/** A volume of mix in its two parts: by volume at once; by weight so that their volumes come to it. */
function partsOf(ml: number, { ratio, by, resinKgL, hardenerKgL }: Ratio): { resin: number; hardener: number } {
  if (by === 'volume') return { resin: ml / (1 + ratio), hardener: (ml * ratio) / (1 + ratio) };
  // r g of resin are r / ρ ml, and ratio · r g of hardener beside it.
  const resin = ml / (1 / inRange('density of the resin', resinKgL, 'kg/l', 0.5, 3) + ratio / hardenerKgL);
  return { resin, hardener: ratio * resin };
}
