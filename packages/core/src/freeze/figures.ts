import { cavitySolid } from '../geometry/solid.ts';
import { sprueOf } from '../geometry/sprue.ts';
import { LEAD_MELTING_C } from '../metal/materials.ts';
import type { Alloy } from '../metal/alloy.ts';
import { figure, fitted, given, type Figure } from '../quantity/figure.ts';
import { range90 } from '../quantity/range.ts';
import { SPREAD } from '../quantity/spreads.ts';
import { freezing, interfaceWPerM2K, OPENING_MARGIN } from './freeze.ts';
import { leavingFigures } from './handling.ts';

/** A cavity whose opening is asked for. */
interface OpenedCavity {
  style: string;
  nominalMassKg: number;
  shotsSinceSmoked: number;
}
interface OpeningHeat {
  metalC: number;
  moldC: number;
  alloy: Alloy;
  moldMetal: 'aluminium' | 'iron';
}

/**
 * When it may be opened, nine times in ten: by what is unsure of metal, mold, soot and the drawn solid.
 * @example openRange({ position: 1, style: 'ball', nominalMassKg: 0.01, pin: null, shotsSinceSmoked: 5 },
 *   { metalC: 371, moldC: 120, alloy: SOFT_LEAD, moldMetal: 'aluminium' }) // { low: 1.368, high: 2.633 }
 */
export function openRange(cavity: OpenedCavity, { metalC, moldC, alloy, moldMetal }: OpeningHeat) {
  const solid = cavitySolid(cavity.style, cavity.nominalMassKg);
  const modulusM = Math.max(solid.modulusM, sprueOf(solid).modulusM);
  const interfaceW = interfaceWPerM2K(cavity.shotsSinceSmoked);
  return range90(
    ([metal, mold, skin, modulus]) =>
      OPENING_MARGIN *
      freezing({
        ...{ alloy, moldMetal, metalC: metal!, moldC: mold! },
        ...{ modulusM: modulusM * modulus!, interfaceWPerM2K: interfaceW * skin! },
      }).seconds,
    [
      { value: metalC, sd: SPREAD.metalK, least: alloy.liquidusC, most: 600 },
      { value: moldC, sd: SPREAD.moldK, least: -20, most: Math.min(300, alloy.solidusC - 10) },
      { value: 1, sd: SPREAD.interfaceShare, least: 0.3 },
      { value: 1, sd: SPREAD.modulusShare },
    ],
  );
}

/**
 * Time to open, with what is last and what rules it.
 * @example openTimeFigure({ position: 1, style: 'ball', nominalMassKg: 0.01, pin: null, shotsSinceSmoked: 5 },
 *   { metalC: 371, moldC: 120, alloy: SOFT_LEAD, moldMetal: 'aluminium' }).value // 1.834
 */
export function openTimeFigure(cavity: OpenedCavity & { position: number }, heat: OpeningHeat): Figure {
  const solid = cavitySolid(cavity.style, cavity.nominalMassKg);
  const interfaceW = interfaceWPerM2K(cavity.shotsSinceSmoked);
  const at = (modulusM: number) => freezing({ ...heat, modulusM, interfaceWPerM2K: interfaceW });
  const [head, sprue] = [at(solid.modulusM), at(sprueOf(solid).modulusM)];
  const last = head.seconds >= sprue.seconds ? head : sprue;
  return figure(
    OPENING_MARGIN * last.seconds,
    's',
    {
      rule: `Its ${last === head ? 'head' : 'sprue'} sets last; ${last.rules === 'interface' ? 'the skin between metal and mold' : 'the mold wall'} decides. ${Math.round(100 * last.superheatShare)} % of the heat is superheat. A moment more, to be safe.`,
      formula: 't = ρ (L + c ΔT) (V/A) / (h (T_m − T_mold))',
      source: 'Interface-limited freezing, Chvorinov where the mold saturates; the margin is common practice',
      inputs: [
        given('Head', head.seconds, 's'),
        given('Sprue', sprue.seconds, 's'),
        given('Metal', heat.metalC, 'C'),
        given('Mold', heat.moldC, 'C'),
        fitted('Shots since smoked', cavity.shotsSinceSmoked, 'count'),
      ],
    },
    openRange(cavity, heat),
  );
}

/** Heads of some 4 oz and more are given so long whatever sets sooner, s. Common practice, no source. */
const BIG_HEAD_KG = 0.1;
const BIG_HEAD_OPEN_S = 20;

/**
 * How hot a cavity's head comes out, and when it can be taken in the hand: opened as is usual for its size.
 * @example leavingOf({ style: 'ball', nominalMassKg: 0.2268, shotsSinceSmoked: 0 }, { metalC: 371, moldC: 110,
 *   roomC: 20, openS: 8 }).leaves.value // 191.8
 */
export function leavingOf(
  cavity: { style: string; nominalMassKg: number; shotsSinceSmoked: number },
  at: { metalC: number; moldC: number; roomC: number; openS: number },
): { leaves: Figure; handling: Figure } {
  const { nominalMassKg: headKg } = cavity;
  const { modulusM, cooledAreaM2: areaM2 } = cavitySolid(cavity.style, headKg);
  const { seconds: freezeS } = freezing({
    ...at,
    modulusM,
    interfaceWPerM2K: interfaceWPerM2K(cavity.shotsSinceSmoked),
  });
  const openS = headKg >= BIG_HEAD_KG ? Math.max(BIG_HEAD_OPEN_S, at.openS) : at.openS;
  return leavingFigures({ headKg, areaM2, freezeS, openS, moldC: at.moldC, solidusC: LEAD_MELTING_C }, at.roomC);
}
