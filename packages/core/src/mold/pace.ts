import type { Alloy } from '../metal/alloy.ts';
import { inRange } from '../quantity/check.ts';
import { blockNodes, lossShareAt, meanC, OPEN_LOSS_FACTOR, relax, type MoldBlock } from './block.ts';
import { shotHeatJ } from './session.ts';
import { blankShots, MOLD_READY_C } from './warm-up.ts';

export interface PaceInput {
  block: MoldBlock;
  shotKg: number;
  metalC: number;
  roomC: number;
  /** From the pour until it is opened; the rest of a cycle it stands open: hooks are laid in, heads looked at. */
  closedS: number;
  alloy?: Alloy;
}

/** What goes into the sums is looked at once, so that a bad number is named and none comes out. */
function checked<I extends Pick<PaceInput, 'roomC' | 'shotKg' | 'metalC'>>(input: I): I {
  inRange('roomC', input.roomC, 'C', -20, 50);
  inRange('shotKg', input.shotKg, 'kg', 0.0003, 10);
  inRange('metalC', input.metalC, 'C', 130, 600);
  return input;
}

/**
 * Seconds a shot that hold the mold at this mean temperature: shot heat over what it loses there.
 * @example cycleForMoldC({ block: { bodyKg: 0.5 }, shotKg: 0.08, metalC: 371, roomC: 20, closedS: 3 }, 60) // 147
 */
export function cycleForMoldC(input: PaceInput, moldC: number): number {
  const { block, shotKg, metalC, roomC, alloy } = checked(input);
  const closedS = inRange('closedS', input.closedS, 's', 0, 3600);
  inRange('moldC', moldC, 'C', roomC + 1, 300);
  const { faceJK, backJK, lossWPerK, lossPower } = blockNodes(block);
  const lossW = lossWPerK * lossShareAt(moldC - roomC, lossPower) * (moldC - roomC);
  // So long closed, it would lose what the shot brought; what is left of that it loses open, quicker.
  const closedAllS =
    shotHeatJ({ shotKg, metalC, moldC, capacityJK: faceJK + backJK, alloy, keptShare: block.keptShare }) / lossW;
  return closedAllS <= closedS ? closedAllS : closedS + (closedAllS - closedS) / OPEN_LOSS_FACTOR;
}

/**
 * The steady mean temperature that a pace tends to, C: where the loss over a cycle eats the heat of a shot. By
 * bisection.
 * @example steadyMoldC({ block: { bodyKg: 0.5 }, shotKg: 0.08, metalC: 371, roomC: 20, closedS: 3 }, 170) // 55.78
 */
export function steadyMoldC(input: PaceInput, cycleS: number): number {
  checked(input);
  inRange('cycleS', cycleS, 's', 1, 3600);
  let [low, high] = [input.roomC + 1, 300];
  if (cycleForMoldC(input, high) > cycleS) return high;
  for (let i = 0; i < 60; i++) {
    const middle = (low + high) / 2;
    if (cycleForMoldC(input, middle) > cycleS) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

export interface AfterPause {
  moldC: number;
  /** Blank shots before hooks are loaded again; 0 where it is still warm. */
  blanks: number;
}

/**
 * What a pause does: the mold lies open and cools; how many blank shots bring it back into its window.
 * @example afterPause({ block: { bodyKg: 0.5 }, shotKg: 0.08, metalC: 371, roomC: 20, closedS: 3 }, 90, 600).blanks
 * // 2
 */
export function afterPause(input: PaceInput, moldC: number, seconds: number): AfterPause {
  checked(input);
  inRange('moldC', moldC, 'C', -20, 330);
  inRange('pause', seconds, 's', 0, 86_400);
  const nodes = blockNodes(input.block);
  const { heat } = relax(nodes, { faceC: moldC, backC: moldC }, seconds, input.roomC, OPEN_LOSS_FACTOR);
  const after = meanC(nodes, heat);
  const { shots } = blankShots({
    block: input.block,
    shotKg: input.shotKg,
    metalC: input.metalC,
    roomC: input.roomC,
    fromC: after,
    readyC: MOLD_READY_C,
    alloy: input.alloy,
  });
  return { moldC: after, blanks: shots };
}
