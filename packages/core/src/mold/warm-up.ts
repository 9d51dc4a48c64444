import { SOFT_LEAD, type Alloy } from '../metal/alloy.ts';
import { inRange } from '../quantity/check.ts';
import { MOLD_LOSS_W_K, type MoldMetal } from './block.ts';
import { moldSession, type MoldStep } from './session.ts';

export interface MoldHeatInput {
  moldKg: number;
  /** Heads and sprues of one shot. */
  shotKg: number;
  metalC: number;
  roomC?: number;
  fromC?: number;
  /** Seconds between shots while warming. */
  cycleS?: number;
  lossWPerK?: number;
  capacityShare?: number;
  moldMetal?: MoldMetal;
  readyC?: number;
  alloy?: Alloy;
}

/**
 * Window of the block's mean temperature: colder gives shorts, hotter gives frosted heads and a slow pace. Practice,
 * by hand at the back.
 */
export const MOLD_READY_C = 85;
export const MOLD_TOO_HOT_C = 160;
/** Blank shots follow each other as fast as they freeze and are knocked out. Common practice, no source. */
export const BLANK_CYCLE_S = 25;
/** Of that, the mold stands open this long. */
const BLANK_OPEN_S = 8;

/** One shot of a cycle, as the mold lives through it. */
export const shotStep = (
  kg: number,
  metalC: number,
  cycleS: number,
  openS = Math.min(BLANK_OPEN_S, cycleS / 3),
): MoldStep => ({
  kind: 'shot',
  kg,
  metalC,
  closedS: cycleS - openS,
  openS,
});

/** Mean temperature of the mold just after each of `shots` shots, C. */
export function moldTemperaturesC(input: MoldHeatInput, shots: number): number[] {
  const cycleS = inRange('cycleS', input.cycleS ?? BLANK_CYCLE_S, 's', 1, 3600);
  const { points } = moldSession({
    block: {
      bodyKg: input.moldKg,
      metal: input.moldMetal,
      lossWPerK: input.lossWPerK ?? MOLD_LOSS_W_K,
      capacityShare: input.capacityShare,
    },
    fromC: input.fromC,
    roomC: input.roomC,
    alloy: input.alloy ?? SOFT_LEAD,
    steps: Array.from({ length: shots }, () => shotStep(input.shotKg, input.metalC, cycleS)),
  });
  return points.filter((point) => point.after === 'shot').map((point) => point.meanC);
}

/** Blank shots beyond this do not warm the mold any further: it has found its balance with the room. */
const MOST_BLANKS = 40;

/**
 * Blank shots until the mold is ready, and its temperature after each; `ready` is false where it never gets there.
 * The schools of 3, 5 and 10 blank shots are one law: shot mass over mold mass.
 * Checks (practice): 0.55 kg with 60 g about 10; 0.6 kg with 200 g 4 to 5; 0.9 kg with 350 g 3.
 */
export function blankShots(input: MoldHeatInput): { shots: number; temperaturesC: number[]; ready: boolean } {
  const readyC = inRange('readyC', input.readyC ?? MOLD_READY_C, 'C', 20, 250);
  if ((input.fromC ?? input.roomC ?? 20) >= readyC) return { shots: 0, temperaturesC: [], ready: true };
  const all = moldTemperaturesC(input, MOST_BLANKS);
  const at = all.findIndex((moldC) => moldC >= readyC);
  const shots = at < 0 ? MOST_BLANKS : at + 1;
  return { shots, temperaturesC: all.slice(0, shots), ready: at >= 0 };
}
