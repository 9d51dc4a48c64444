import { SOFT_LEAD, type Alloy } from '../metal/alloy.ts';
import { figure, fitted, given, type Basis, type Figure } from '../quantity/figure.ts';
import { range90 } from '../quantity/range.ts';
import { SPREAD } from '../quantity/spreads.ts';
import { LOSS_POWER, moldLossWPerK, type MoldBlock } from './block.ts';
import { moldSession, type MoldPoint, type MoldStep } from './session.ts';
import {
  BAR_KG,
  BLANK_CYCLE_S,
  blankShots,
  MOST_BLANKS,
  shotRiseK,
  MOLD_READY_C,
  shotStep,
  type BlankShots,
} from './warm-up.ts';
import { quantityText } from '../quantity/said.ts';

export const WARM_SCHOOLS = ['blank shots', 'pot top', 'both'] as const;
export type WarmSchool = (typeof WARM_SCHOOLS)[number];

/**
 * A mold on the pot while it melts: the usual stay, and what the pot is at on average meanwhile. Common practice, no
 * source.
 */
export const POT_TOP_S = 12 * 60;
const POT_TOP_C = 240;

export interface WarmPlanInput {
  block: MoldBlock;
  /** Loss and capacity are fitted to this mold's readings, or the defaults. */
  basis: Basis;
  shotKg: number;
  /** Metal over the gates of a blank shot, weighed; left out: as usual. */
  barKg?: number;
  metalC: number;
  roomC: number;
  school: WarmSchool;
  potTopS?: number;
  /** A cavity is open below: a blank shot would run out. */
  openBelow: boolean;
  alloy?: Alloy;
}

export interface WarmPlan {
  blanks: Figure;
  seconds: number;
  readyC: number;
  /** Null where this mold can be warmed so; else why not. */
  impossible: string | null;
  points: MoldPoint[];
}

/** Shots until it is ready with the last of them as a part: what is unsure moves them by parts of one. */
function partOfShots({ shots, temperaturesC, ready }: BlankShots, fromC: number, readyC: number): number {
  if (!ready || shots === 0) return shots;
  const before = temperaturesC[shots - 2] ?? fromC;
  return shots - 1 + (readyC - before) / (temperaturesC[shots - 1]! - before);
}

/** Blank shots nine times in ten, whole ones, by what is unsure of the mold, the shot, the bar and the heat. */
function blanksRange(input: WarmPlanInput, warmedC: number) {
  const { block, barKg = BAR_KG, alloy = SOFT_LEAD } = input;
  if (input.school === 'pot top') return { low: 0, high: 0 };
  // What was fitted to this mold is known better than what goes by its weight, and a bar that was weighed is weighed.
  const learned = input.basis === 'fitted' ? 0.3 : 1;
  const bar = input.barKg === undefined ? SPREAD.barShare : SPREAD.shotShare;
  const lossWPerK = block.lossWPerK ?? moldLossWPerK(block.bodyKg);
  const { low, high } = range90(
    ([metalC, roomC, shot, barShare, loss, capacity, readyC]) => {
      const warmed = blankShots({
        ...{ alloy, fromC: warmedC },
        ...{ metalC: metalC!, roomC: roomC!, readyC: readyC! },
        ...{ shotKg: input.shotKg * shot!, barKg: barKg * barShare! },
        block: { ...block, lossWPerK: lossWPerK * loss!, capacityShare: (block.capacityShare ?? 1) * capacity! },
      });
      return partOfShots(warmed, warmedC, readyC!);
    },
    [
      { value: input.metalC, sd: SPREAD.metalK, least: alloy.liquidusC },
      { value: input.roomC, sd: SPREAD.roomK },
      { value: 1, sd: SPREAD.shotShare },
      { value: 1, sd: bar, least: 0 },
      { value: 1, sd: learned * SPREAD.lossShare, least: 0.2 },
      { value: 1, sd: learned * SPREAD.capacityShare, least: 0.3 },
      { value: MOLD_READY_C, sd: SPREAD.readyK },
    ],
  );
  // Nobody pours a part of a shot: the next whole one does it.
  return { low: Math.ceil(low - 1e-9), high: Math.ceil(high - 1e-9) };
}

/** Where warming begins, what each shot brings, and how many it takes. */
function warming({ school, potTopS = POT_TOP_S, barKg = BAR_KG, alloy = SOFT_LEAD, ...input }: WarmPlanInput) {
  const { block, shotKg, metalC, roomC } = input;
  const onPotS = school === 'blank shots' ? 0 : potTopS;
  const onPot: MoldStep[] = onPotS > 0 ? [{ kind: 'pot top', seconds: onPotS, potC: POT_TOP_C }] : [];
  const warmedC = moldSession({ block, roomC, steps: onPot, alloy }).points.at(-1)!.meanC;
  const { shots, ready } = blankShots({ block, shotKg, barKg, metalC, roomC, fromC: warmedC, alloy });
  return { onPotS, onPot, warmedC, blanks: school === 'pot top' ? 0 : shots, ready, barKg, alloy };
}

/**
 * How many blank shots, as {@link warmPlan} says, and nothing else: for a plan that weighs many molds.
 * @example blanksToWarm({ block: smallBlock, basis: 'given', shotKg: 0.08, metalC: 371, roomC: 20,
 *   school: 'blank shots', openBelow: false }) // 4
 */
export const blanksToWarm = (input: WarmPlanInput): number => warming(input).blanks;

/**
 * How many blank shots, by the school chosen, as a curve into the window.
 * @example warmPlan({ block: smallBlock, basis: 'given', shotKg: 0.08, metalC: 371, roomC: 20,
 *   school: 'blank shots', openBelow: false }).blanks.value // 4
 */
export function warmPlan(input: WarmPlanInput): WarmPlan {
  const { block, shotKg, metalC, roomC, school } = input;
  const { onPotS: potTopS, onPot, warmedC, blanks, ready, barKg, alloy } = warming(input);
  const rise = shotRiseK(block, { shotKg: shotKg + barKg, metalC, roomC, alloy });
  const steps = [
    ...onPot,
    ...Array.from({ length: blanks }, () => shotStep({ kg: shotKg + barKg, metalC, cycleS: BLANK_CYCLE_S })),
  ];
  const { points } = moldSession({ block, roomC, steps, alloy });
  let impossible: string | null = null;
  if (input.openBelow && school !== 'pot top')
    impossible = 'A cavity is open below: blank shots would run out. Warm it on the pot.';
  else if (school === 'pot top' && warmedC < MOLD_READY_C)
    impossible = `The pot alone brings it to ${quantityText(Math.round(warmedC), '°C')} in ${Math.round(potTopS / 60)} minutes: leave it longer, or add blank shots.`;
  else if (!ready) impossible = 'Shots this light never warm it: it loses to the room what they bring.';
  const mark = input.basis === 'given' ? given : fitted;
  return {
    blanks: figure(
      blanks,
      'count',
      {
        rule: `Shots without hooks until the block is at ${quantityText(MOLD_READY_C, '°C')}. One law: heat of a shot over what the block takes up a degree, here ${quantityText(rise.toFixed(1), 'K')} a shot.${ready || school === 'pot top' ? '' : ` Counted no further than ${MOST_BLANKS}: they never do it.`}`,
        formula: 'each shot adds m·[h(T_pour) − h(T_out)]; between shots it loses UA·ΔT·(ΔT/60 K)^n',
        source: 'Two-node heat balance; checked against practice of 3, 5 and 10 blank shots',
        inputs: [
          given('Mold', block.bodyKg, 'kg'),
          given('One shot, every cavity', shotKg, 'kg'),
          given('The bar over the gates', barKg, 'kg'),
          given('Metal', metalC, 'C'),
          given('Room', roomC, 'C'),
          given('Warmed on the pot to', warmedC, 'C', potTopS ? `${Math.round(potTopS / 60)} min` : 'not on the pot'),
          mark('Loss', block.lossWPerK ?? moldLossWPerK(block.bodyKg), 'W/K'),
          mark('n, how that grows', (block.lossPower ?? LOSS_POWER).toFixed(2), 'text'),
        ],
      },
      ready ? blanksRange(input, warmedC) : { low: blanks, beyond: true },
    ),
    seconds: potTopS + blanks * BLANK_CYCLE_S,
    readyC: (points.findLast((point) => point.after === 'shot') ?? points.at(-1)!).meanC,
    impossible,
    points,
  };
}
