import { SOFT_LEAD, type Alloy } from '../metal/alloy.ts';
import { enthalpyJKg } from '../metal/enthalpy.ts';
import { inRange } from '../quantity/check.ts';
import {
  blockNodes,
  meanC,
  OPEN_LOSS_FACTOR,
  relax,
  surfaceShare,
  takeIn,
  type MoldBlock,
  type MoldHeat,
} from './block.ts';

/**
 * Of what it is above the mold when it sets, the bar of a blank shot keeps so much until it is knocked out; heads of
 * some 10 to 14 g keep as much, see freeze/opening.ts. Common practice, no source: by it molds take as many as they do.
 */
const BLANK_KEEPS = 0.29;

/** A shot as its heat goes into a mold. */
interface ShotIntoMold {
  shotKg: number;
  metalC: number;
  /** Mean of the mold. */
  moldC: number;
  /** Heat capacity of the mold, J/K. */
  capacityJK: number;
  alloy?: Alloy;
  /** Of what it was above the mold when it set, so much is left in the head when it is lifted out. */
  keptShare?: number;
}

/**
 * Heat that one shot leaves in the mold, J: m [h(T_pour) - h(T_out)], T_out as far above the mold as its heads have
 * kept of what they set at; and never more than brings the two to one temperature: no mold gets hotter than its metal.
 * @example shotHeatJ({ shotKg: 0.1, metalC: 371, moldC: 100, capacityJK: 500 }) // 5173
 */
export function shotHeatJ(shot: ShotIntoMold): number {
  const { shotKg, metalC, moldC, capacityJK, alloy = SOFT_LEAD, keptShare = BLANK_KEEPS } = shot;
  if (moldC >= metalC) return 0;
  const outC = moldC + keptShare * Math.max(0, alloy.solidusC - moldC);
  const pouredJKg = enthalpyJKg(alloy, metalC);
  const leftAt = (headC: number) => shotKg * (pouredJKg - enthalpyJKg(alloy, headC));
  if (moldC + leftAt(outC) / capacityJK <= outC) return Math.max(0, leftAt(outC));
  let [low, high] = [moldC, metalC];
  for (let i = 0; i < 50; i++) {
    const middle = (low + high) / 2;
    if (moldC + leftAt(middle) / capacityJK > middle) low = middle;
    else high = middle;
  }
  return capacityJK * (low - moldC);
}

/**
 * The usual mold on the rim of the pot takes this from it, W/K; others by their surface. Common practice, no source.
 */
const POT_TOP_W_K = 0.36;

/** One thing after another that a mold lives through. */
export type MoldStep =
  | { kind: 'shot'; kg: number; metalC: number; closedS: number; openS: number; blank?: boolean }
  | { kind: 'wait'; seconds: number; open?: boolean }
  | { kind: 'pot top'; seconds: number; potC: number };

export interface MoldPoint {
  atS: number;
  meanC: number;
  faceC: number;
  backC: number;
  /** What has just happened. */
  after: MoldStep['kind'] | 'start';
}
export interface MoldTrace {
  points: MoldPoint[];
  gainedJ: number;
  lostJ: number;
  storedJ: number;
}

interface MoldSession {
  block: MoldBlock;
  fromC?: number;
  roomC?: number;
  steps: readonly MoldStep[];
  alloy?: Alloy;
}

const POT_TOP_STEP_S = 5;
const LONG_WAIT_S = 120;
/** By then a shot's heat has spread from the face: a point of the trace, so that the leap is seen for what it is. */
const SPREAD_S = 4;

/**
 * A mold shot by shot: a shot's heat enters the face, spreads to the back, and leaks to the room, faster while the mold
 * is open. The trace has a point at each pour, just after it, and at each end of a step. Range: metal up to 600 C, mold
 * -20 to 600 C. Energy closes: stored = gained - lost.
 * @example moldSession({ block: { bodyKg: 0.5 }, roomC: 20, steps: [] }).points.length // 1
 */
export function moldSession({ block, fromC, roomC = 20, steps, alloy = SOFT_LEAD }: MoldSession): MoldTrace {
  inRange('roomC', roomC, 'C', -20, 50);
  const nodes = blockNodes(block);
  const capacityJK = nodes.faceJK + nodes.backJK;
  const rimWPerK = POT_TOP_W_K * surfaceShare(block.bodyKg);
  const start = inRange('fromC', fromC ?? roomC, 'C', -20, 600);
  let heat: MoldHeat = { faceC: start, backC: start };
  let atS = 0;
  const trace: MoldTrace = { points: [], gainedJ: 0, lostJ: 0, storedJ: 0 };
  const point = (after: MoldPoint['after']) => trace.points.push({ atS, meanC: meanC(nodes, heat), ...heat, after });
  const pass = (seconds: number, open: boolean) => {
    const { heat: next, lostJ } = relax(nodes, heat, seconds, roomC, open ? OPEN_LOSS_FACTOR : 1);
    heat = next;
    trace.lostJ += lostJ;
    atS += seconds;
  };
  /** A long wait has points on its way: it is a curve, not a straight line. */
  const passLong = (seconds: number, open: boolean) => {
    const parts = Math.max(1, Math.ceil(seconds / LONG_WAIT_S));
    for (let i = 0; i < parts; i++) {
      pass(seconds / parts, open);
      if (i < parts - 1) point('wait');
    }
  };
  point('start');
  for (const step of steps) {
    if (step.kind === 'wait') {
      passLong(inRange('wait', step.seconds, 's', 0, 86_400), step.open ?? true);
    } else if (step.kind === 'pot top') {
      // The pot gives in proportion to how much warmer it is: a heat input of its own beside the loss, in small steps.
      const seconds = inRange('potTop', step.seconds, 's', 0, 86_400);
      const parts = Math.ceil(seconds / POT_TOP_STEP_S);
      for (let i = 0; i < parts; i++) {
        const dt = seconds / parts;
        const joules = rimWPerK * (step.potC - heat.backC) * dt;
        heat = { ...heat, backC: heat.backC + joules / nodes.backJK };
        trace.gainedJ += joules;
        pass(dt, false);
      }
    } else {
      const kg = inRange('shotKg', step.kg, 'kg', 0.0003, 10);
      const metalC = inRange('metalC', step.metalC, 'C', alloy.liquidusC, 600);
      point('wait');
      const keptShare = step.blank ? BLANK_KEEPS : block.keptShare;
      const joules = shotHeatJ({ shotKg: kg, metalC, moldC: meanC(nodes, heat), capacityJK, alloy, keptShare });
      heat = takeIn(nodes, heat, joules, metalC);
      trace.gainedJ += joules;
      point('shot');
      const closedS = inRange('closedS', step.closedS, 's', 0, 3600);
      pass(Math.min(SPREAD_S, closedS), false);
      point('wait');
      pass(Math.max(0, closedS - SPREAD_S), false);
      passLong(inRange('openS', step.openS, 's', 0, 3600), true);
    }
    point(step.kind === 'shot' ? 'wait' : step.kind);
  }
  trace.storedJ = capacityJK * (meanC(nodes, heat) - start);
  return trace;
}
