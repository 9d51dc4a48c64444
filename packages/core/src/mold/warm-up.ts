import { SOFT_LEAD, type Alloy } from '../metal/alloy.ts';
import { inRange } from '../quantity/check.ts';
import { blockNodes, type MoldBlock } from './block.ts';
import { moldSession, shotHeatJ, type MoldStep } from './session.ts';

interface MoldHeatInput {
  block: MoldBlock;
  /** Heads and sprues of one shot. */
  shotKg: number;
  metalC: number;
  roomC?: number;
  fromC?: number;
  /** Seconds between shots while warming. */
  cycleS?: number;
  readyC?: number;
  alloy?: Alloy;
}

/**
 * Window of the block's mean temperature. Ready is just touchable at the back, 50 to 65 C; hotter than the window gives
 * frosted heads and a slow pace. Common practice, no source. What is too cold for a cavity its fill index says.
 */
export const MOLD_READY_C = 60;
export const MOLD_TOO_HOT_C = 160;
/** Blank shots follow each other as fast as they freeze and are knocked out. Common practice, no source. */
export const BLANK_CYCLE_S = 25;
/** Blank shots are run into a bar over the gates: so much more than heads and sprues. Common practice, no source. */
export const BAR_KG = 0.025;
/** Of that, the mold stands open this long. */
const BLANK_OPEN_S = 8;

/**
 * One blank shot of a cycle, as the mold lives through it.
 * @example shotStep({ kg: 0.07, metalC: 371, cycleS: 25 }) // { kind: 'shot', kg: 0.07, metalC: 371, closedS: 17,
 *   openS: 8, blank: true }
 */
export function shotStep(of: { kg: number; metalC: number; cycleS: number; openS?: number }): MoldStep {
  const { kg, metalC, cycleS, openS = Math.min(BLANK_OPEN_S, cycleS / 3) } = of;
  return { kind: 'shot', kg, metalC, closedS: cycleS - openS, openS, blank: true };
}

/**
 * Mean temperature of the mold just after each of `shots` shots, C.
 * @example moldTemperaturesC({ block: { bodyKg: 0.6 }, shotKg: 0.1, metalC: 371 }, 2) // [31.02, 41.65]
 */
export function moldTemperaturesC(input: MoldHeatInput, shots: number): number[] {
  const cycleS = inRange('cycleS', input.cycleS ?? BLANK_CYCLE_S, 's', 1, 3600);
  const { points } = moldSession({
    block: input.block,
    fromC: input.fromC,
    roomC: input.roomC,
    alloy: input.alloy ?? SOFT_LEAD,
    steps: Array.from({ length: shots }, () => shotStep({ kg: input.shotKg, metalC: input.metalC, cycleS })),
  });
  return points.filter((point) => point.after === 'shot').map((point) => point.meanC);
}

export interface BlankShots {
  shots: number;
  /** Mean of the block just after each. */
  temperaturesC: number[];
  /** False where it never gets there: the count stopped at {@link MOST_BLANKS}. */
  ready: boolean;
}

/** Blank shots beyond this do not warm the mold any further: it has found its balance with the room. */
export const MOST_BLANKS = 40;

/**
 * Blank shots until the mold is ready, and its temperature after each; `ready` is false where it never gets there. The
 * schools of 3, 5 and 10 blank shots are one law: heat of a shot over heat capacity of the mold.
 * @param input.shotKg heads and sprues; `barKg` stands over the gates beside them
 * Checks (practice): 0.55 kg with 12 g 10 to 12; 0.6 kg with 80 g 4 to 5; 0.9 kg with 250 g 2 to 3.
 * @example blankShots({ block: { bodyKg: 0.55 }, shotKg: 0.012, metalC: 371 }).shots // 11
 */
export function blankShots(input: MoldHeatInput & { barKg?: number }): BlankShots {
  const readyC = inRange('readyC', input.readyC ?? MOLD_READY_C, 'C', 20, 250);
  if ((input.fromC ?? input.roomC ?? 20) >= readyC) return { shots: 0, temperaturesC: [], ready: true };
  const barKg = inRange('barKg', input.barKg ?? BAR_KG, 'kg', 0, 0.5);
  // Few are enough mostly: more are followed only where these do not do.
  for (let most = MOST_BLANKS / 8; ; most *= 2) {
    const temperaturesC = moldTemperaturesC({ ...input, shotKg: input.shotKg + barKg }, most);
    const at = temperaturesC.findIndex((moldC) => moldC >= readyC);
    if (at >= 0) return { shots: at + 1, temperaturesC: temperaturesC.slice(0, at + 1), ready: true };
    if (most >= MOST_BLANKS) return { shots: most, temperaturesC, ready: false };
  }
}

/**
 * The one law behind all schools of blank shots: what a first shot heats a mold by, K. Heat of a shot over heat
 * capacity.
 * @example Math.round(shotRiseK({ bodyKg: 0.55 }, { shotKg: 0.037, metalC: 371, roomC: 20 })) // 4
 */
export function shotRiseK(
  block: MoldBlock,
  { shotKg, metalC, roomC, alloy }: { shotKg: number; metalC: number; roomC: number; alloy?: Alloy },
): number {
  const { faceJK, backJK } = blockNodes(block);
  const capacityJK = faceJK + backJK;
  return shotHeatJ({ shotKg, metalC, moldC: roomC, capacityJK, alloy }) / capacityJK;
}
