import { chance } from './chance.ts';
import { leadJoules } from './lead.ts';

/**
 * A mold as it may really be, which the models do not know: faces, block and handles apart, the loss growing with heat
 * as radiation does, an open mold losing from its faces. Shares no function with the core.
 */
interface WorldMold {
  faceJK: number;
  blockJK: number;
  handlesJK: number;
  faceToBlockWPerK: number;
  blockToHandlesWPerK: number;
  /** Of block and handles to the room at 30 K above it; a fifth more at 100 K. */
  lossWPerK: number;
  /** Of the faces, while it stands open. */
  openWPerK: number;
  /** By which power of its heat over 60 K both grow; left out: as said above. */
  lossPower?: number;
}

/** A mold of so much aluminium, better or worse than others by `quirk` (about -1 to 1). */
export function aluminiumMold(bodyKg: number, quirk = 0): WorldMold {
  const capacity = 905 * bodyKg * (1 + 0.1 * quirk);
  const size = Math.cbrt(bodyKg / 0.55) ** 2;
  return {
    faceJK: 0.17 * capacity,
    blockJK: 0.65 * capacity,
    handlesJK: 0.18 * capacity,
    faceToBlockWPerK: 55 * size,
    blockToHandlesWPerK: 1.6 * size,
    lossWPerK: 0.5 * size * (1 + 0.35 * quirk),
    openWPerK: 0.42 * size * (1 + 0.4 * quirk),
  };
}

/** What a surface gives off a degree at so much above the room, of what it gives at some 30 or 60 K. */
const hotter = (aboveK: number, power?: number): number =>
  power === undefined
    ? 1 + 0.2 * Math.min(1.5, Math.max(0, (aboveK - 30) / 70))
    : Math.pow(Math.max(0.05, Math.abs(aboveK)) / 60, power);

/** A mold of any metal and any shape: how much lies at the cavities, in the handles, how well they are joined. */
export function anyMold(of: { bodyKg: number; iron?: boolean; draw: () => number }): WorldMold {
  const { bodyKg, iron = false, draw } = of;
  const between = (low: number, high: number) => low + (high - low) * draw();
  const capacity = (iron ? 480 : 905) * bodyKg * between(0.9, 1.12);
  const [face, handles] = [between(0.13, 0.28), between(0.06, 0.24)];
  const size = Math.cbrt(bodyKg / 0.55) ** 2;
  return {
    faceJK: face * capacity,
    blockJK: (1 - face - handles) * capacity,
    handlesJK: handles * capacity,
    faceToBlockWPerK: (iron ? 24 : 55) * size * between(0.7, 1.4),
    blockToHandlesWPerK: size * between(0.8, 3),
    lossWPerK: 0.47 * size * between(0.7, 1.4),
    openWPerK: 0.4 * size * between(0.65, 1.4),
    lossPower: between(0, 0.33),
  };
}

const STEP_S = 0.25;

/** A mold at work: metal goes in, time passes with it shut or open. */
export function runMold(mold: WorldMold, roomC: number) {
  let [face, block, handles] = [roomC, roomC, roomC];
  return {
    faceC: () => face,
    backC: () => block,
    pour(kg: number, metalC: number) {
      const out = Math.max(125, face + 55);
      face = Math.min(metalC, face + (kg * Math.max(0, leadJoules(metalC) - leadJoules(out))) / mold.faceJK);
    },
    pass(seconds: number, open: boolean) {
      for (let left = seconds; left > 1e-9; left -= STEP_S) {
        const dt = Math.min(STEP_S, left);
        const hot = (celsius: number) => hotter(celsius - roomC, mold.lossPower) * (celsius - roomC);
        const inwards = mold.faceToBlockWPerK * (face - block);
        const outwards = mold.blockToHandlesWPerK * (block - handles);
        const lost = open ? mold.openWPerK * hot(face) : 0;
        face -= ((inwards + lost) * dt) / mold.faceJK;
        block += ((inwards - outwards - 0.75 * mold.lossWPerK * hot(block)) * dt) / mold.blockJK;
        handles += ((outwards - 0.25 * mold.lossWPerK * hot(handles)) * dt) / mold.handlesJK;
      }
    },
  };
}

/** A mold through its shots, with a probe at its back that is noisy and drops out now and then. */
export function moldAtWork(
  mold: WorldMold,
  of: {
    /** From one shot to the next. */
    gapsS: readonly number[];
    shotKg: number;
    metalC: number;
    roomC: number;
    shutS: number;
    noiseK: number;
    dropOuts: number;
    seed: number;
  },
) {
  const { uniform, normal } = chance(of.seed);
  const running = runMold(mold, of.roomC);
  const readings: { atS: number; temperatureC: number }[] = [];
  const shots: { atS: number; gapS: number }[] = [];
  /** What the back really was just before each shot. */
  const before: number[] = [];
  let atS = 0;
  const pass = (seconds: number, open: boolean) => {
    for (let left = seconds; left > 0; left -= 5) {
      const dt = Math.min(5, left);
      running.pass(dt, open);
      atS += dt;
      if (uniform() > of.dropOuts) readings.push({ atS, temperatureC: running.backC() + normal(of.noiseK) });
    }
  };
  for (const gapS of of.gapsS) {
    before.push(running.backC());
    shots.push({ atS, gapS });
    running.pour(of.shotKg, of.metalC);
    pass(of.shutS, false);
    pass(gapS - of.shutS, true);
  }
  return { shots, readings, before };
}

/** Chance that a cavity comes out short at this heat of its face: all but none when warm, all but sure when cold. */
export const shortChance = (faceC: number, coldC: number): number => 0.003 + 0.95 / (1 + Math.exp((faceC - coldC) / 2));
