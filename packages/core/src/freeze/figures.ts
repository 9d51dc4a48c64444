import { cavitySolid } from '../geometry/solid.ts';
import { SOFT_LEAD } from '../metal/alloy.ts';
import { figure, fitted, given, type Figure } from '../quantity/figure.ts';
import { range90 } from '../quantity/range.ts';
import { quantityText } from '../quantity/said.ts';
import { SPREAD } from '../quantity/spreads.ts';
import { interfaceWPerM2K } from './freeze.ts';
import { HANDLE_BELOW_C, handlingTimeS, STILL_AIR_W_M2K } from './handling.ts';
import { GAP_W_M2K, headOpening, type HeadOpening, type OpeningHeat } from './opening.ts';

/** A cavity whose opening is asked for. */
interface OpenedCavity {
  style: string;
  nominalMassKg: number;
  shotsSinceSmoked: number;
}
type CavityHeat = Omit<OpeningHeat, 'interfaceWPerM2K'> & { roomC: number };

/** How a drawn cavity may differ from what is known of it, for its ranges. */
interface Moved {
  metalC: number;
  moldC: number;
  skin: number;
  modulus: number;
  gap: number;
  air: number;
}
const AS_KNOWN = { skin: 1, modulus: 1, gap: 1, air: 1 };

/** A cavity opened with the metal, mold, skin and solid that are believed of it, or as these may be. */
function openedAs(cavity: OpenedCavity, heat: CavityHeat, moved: Moved): HeadOpening & { handlingS: number } {
  const drawn = cavitySolid(cavity.style, cavity.nominalMassKg);
  // A fuller solid of the same mass has so much less surface.
  const solid = {
    ...drawn,
    modulusM: drawn.modulusM * moved.modulus,
    cooledAreaM2: drawn.cooledAreaM2 / moved.modulus,
  };
  const opening = headOpening(solid, cavity.nominalMassKg, {
    ...heat,
    ...{ metalC: moved.metalC, moldC: moved.moldC, gapWPerM2K: GAP_W_M2K.usual * moved.gap },
    interfaceWPerM2K: interfaceWPerM2K(cavity.shotsSinceSmoked) * moved.skin,
  });
  const handlingS = handlingTimeS({
    ...{ headKg: cavity.nominalMassKg, areaM2: solid.cooledAreaM2, roomC: heat.roomC },
    ...{ fromC: Math.min(330, Math.max(20, opening.leavesC)), airWPerM2K: STILL_AIR_W_M2K.usual * moved.air },
  });
  return { ...opening, handlingS };
}

/** What of a cavity's opening is asked, nine times in ten, by all that is unsure of it. */
function rangeOf(cavity: OpenedCavity, heat: CavityHeat, asked: (opening: ReturnType<typeof openedAs>) => number) {
  const { metalC, moldC, alloy = SOFT_LEAD } = heat;
  return range90(
    ([metal, mold, skin, modulus, gap, air]) =>
      asked(
        openedAs(cavity, heat, {
          ...{ metalC: metal!, moldC: mold! },
          ...{ skin: skin!, modulus: modulus!, gap: gap!, air: air! },
        }),
      ),
    [
      { value: metalC, sd: SPREAD.metalK, least: alloy.liquidusC, most: 600 },
      { value: moldC, sd: SPREAD.moldK, least: -20, most: Math.min(300, alloy.solidusC - 10) },
      { value: 1, sd: SPREAD.interfaceShare, least: 0.3 },
      { value: 1, sd: SPREAD.modulusShare },
      { value: 1, sd: SPREAD.gapShare, least: 0.3 },
      { value: 1, sd: SPREAD.stillAirShare, least: 0.3 },
    ],
  );
}

/**
 * When it may be opened, nine times in ten: by what is unsure of metal, mold, soot and the drawn solid. A count of the
 * maker's own is as it is.
 * @example openRange({ position: 1, style: 'ball', nominalMassKg: 0.01, pin: null, shotsSinceSmoked: 5 },
 *   { metalC: 371, moldC: 120, roomC: 20 }) // { low: 1.376, high: 2.626 }
 */
export const openRange = (cavity: OpenedCavity, heat: CavityHeat) => rangeOf(cavity, heat, ({ openS }) => openS);

/** What a cavity's opening says: when, how hot its head is then and comes out, and when it can be taken in the hand. */
export interface OpeningFigures {
  opens: Figure;
  leaves: Figure;
  handling: Figure;
  opening: HeadOpening;
}

/**
 * When a mold is opened on a cavity, how hot its head comes out, and how long it then lies before it can be handled.
 * @example openingFigures({ style: 'ball', nominalMassKg: 0.2268, shotsSinceSmoked: 0 }, { metalC: 371, moldC: 110,
 *   roomC: 20 }).leaves.value // 170.1
 */
export function openingFigures(cavity: OpenedCavity, heat: CavityHeat): OpeningFigures {
  const opening = openedAs(cavity, heat, { metalC: heat.metalC, moldC: heat.moldC, ...AS_KNOWN });
  const { head, sprue, openS, leavesC, handlingS } = opening;
  const set = opening[opening.last];
  const inputs = [
    given('Head', head.seconds, 's'),
    given('Sprue', sprue.seconds, 's'),
    given('Metal', heat.metalC, 'C'),
    given('Mold', heat.moldC, 'C'),
    fitted('Shots since smoked', cavity.shotsSinceSmoked, 'count'),
  ];
  const wall = set.rules === 'interface' ? 'the skin between metal and mold' : 'the mold wall';
  return {
    opening,
    opens: figure(
      openS,
      's',
      {
        rule:
          (heat.ownOpenS ?? null) !== null
            ? 'Your own count for this mold. It is solid before that.'
            : `Its ${opening.last} sets last; ${wall} decides. ${Math.round(100 * set.superheatShare)} % of the heat is superheat. A moment more, to be safe; a heavy head lies longer, so that it can be lifted out.`,
        formula: 't = ρ (L + c ΔT) (V/A) / (h (T_m − T_mold))',
        source: 'Interface-limited freezing, Chvorinov where the mold saturates; the margin is common practice',
        inputs,
      },
      openRange(cavity, heat),
    ),
    leaves: figure(
      leavesC,
      'C',
      {
        rule: 'Solid is not cool: from where it sets toward the mold, through the gap that its shrinking leaves, then in the half that it lies in until it is lifted out.',
        formula: 'T = T_mold + (T_solidus − T_mold) e^(−t / τ)',
        source: 'The gap is common practice: 8 oz leave at 190 to 220 °C',
        inputs: [...inputs, given('Opened after', openS, 's'), given('At opening', opening.opensC, 'C')],
      },
      rangeOf(cavity, heat, (each) => each.leavesC),
    ),
    handling: figure(
      handlingS,
      's',
      {
        rule: `From there until bare fingers can hold it, below ${quantityText(HANDLE_BELOW_C, '°C')}, lying in still air.`,
        formula: 't = m c / (h A) · ln((T − T_room) / (48 − T_room))',
        source: 'One lump; still air 15 to 20 W/m²K, from memory',
        inputs: [given('Leaves the mold at', leavesC, 'C'), given('Room', heat.roomC, 'C')],
      },
      rangeOf(cavity, heat, (each) => each.handlingS),
    ),
  };
}
