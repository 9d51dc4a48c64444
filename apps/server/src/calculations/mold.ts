import * as core from '@schmelz/core';
import { choice, flag, list, number, record, whole } from '@schmelz/contract/field';
import { calculation, metalFields, metalOf, nominalMassKg, readings, style } from './calculation.ts';

const block = () =>
  record({
    bodyKg: number('kg', 0.05, 20),
    metal: choice(core.MOLD_METALS).optional(),
    lossWPerK: number('W/K', 0, 20).optional(),
    lossPower: number('', 0, 1).optional(),
    capacityShare: number('share', 0.3, 2).optional(),
  });

/** Calculations of mold, freezing and fill. */
export const MOLD_CALCULATIONS = {
  'freeze-time': calculation(
    'Freezing time of head and sprue and when to open',
    'Interface-limited freezing',
    record({
      style: style(),
      nominalMassKg: nominalMassKg(),
      metalC: number('C', 328, 600),
      moldC: number('C', -20, 300),
      shotsSinceSmoked: whole('shots', 0, 100_000),
    }),
    (input) => {
      const solid = core.cavitySolid(input.style, input.nominalMassKg);
      const interfaceWPerM2K = core.interfaceWPerM2K(input.shotsSinceSmoked);
      const heat = { metalC: input.metalC, moldC: input.moldC, interfaceWPerM2K };
      const { head, sprue, last, openS, leavesC } = core.headOpening(solid, input.nominalMassKg, heat);
      return { headS: head.seconds, sprueS: sprue.seconds, openS, last, leavesC };
    },
  ),
  'blank-shots': calculation(
    'Blank shots until a mold is warm',
    'Lumped heat balance of the mold',
    record({
      moldKg: number('kg', 0.05, 20),
      moldMetal: choice(core.MOLD_METALS).optional(),
      /** Heads and sprues. */
      shotKg: number('kg', 0.0005, 10),
      /** What stands over the gates beside them. */
      barKg: number('kg', 0, 0.5).optional(),
      metalC: number('C', 328, 600),
      roomC: number('C', -20, 50).optional(),
      cycleS: number('s', 1, 3600).optional(),
      readyC: number('C', 20, 250).optional(),
    }),
    ({ moldKg, moldMetal, ...input }) => core.blankShots({ ...input, block: { bodyKg: moldKg, metal: moldMetal } }),
  ),
  'mold-temperatures': calculation(
    'Temperature of a mold after each of so many shots',
    'Lumped heat balance of the mold',
    record({
      moldKg: number('kg', 0.05, 20),
      moldMetal: choice(core.MOLD_METALS).optional(),
      shotKg: number('kg', 0.0005, 10),
      metalC: number('C', 328, 600),
      shots: whole('shots', 1, 500),
      fromC: number('C', -20, 300).optional(),
      roomC: number('C', -20, 50).optional(),
      cycleS: number('s', 1, 3600).optional(),
    }),
    ({ shots, moldKg, moldMetal, ...input }) => ({
      temperaturesC: core.moldTemperaturesC({ ...input, block: { bodyKg: moldKg, metal: moldMetal } }, shots),
    }),
  ),
  'hook-seat': calculation(
    'Whether a hook seats in a cavity cut for another',
    'Common practice, no source',
    record({
      cutForSize: choice(core.HOOK_SIZES),
      cutForEyeDeg: number('degrees', 0, 180),
      hookSize: choice(core.HOOK_SIZES),
      hookEyeDeg: number('degrees', 0, 180),
    }),
    (input) =>
      core.seatOf(
        { hookSize: input.cutForSize, eyeAngleDeg: input.cutForEyeDeg },
        { hookSize: input.hookSize, eyeAngleDeg: input.hookEyeDeg },
      ),
  ),
  'typical-hook': calculation(
    'Typical dimensions and mass of a jig hook',
    'Common practice, no source',
    record({ size: choice(core.HOOK_SIZES), wire: choice(core.WIRES).optional() }),
    ({ size, wire }) => core.typicalHook(size, wire),
  ),
  'warm-plan': calculation(
    'How many blank shots by a way of warming, with the curve into the window',
    'Two-node heat balance; checked against practice of 3, 5 and 10 blank shots',
    record({
      block: block(),
      shotKg: number('kg', 0.0003, 10),
      metalC: number('C', 130, 600),
      roomC: number('C', -20, 50),
      school: choice(core.WARM_SCHOOLS),
      potTopS: number('s', 0, 7200).optional(),
      openBelow: flag(),
      ...metalFields(),
    }),
    ({ metalId, composition, ...input }) =>
      core.warmPlan({ ...input, basis: 'given', alloy: metalOf({ metalId, composition }) }),
  ),
  'mold-session': calculation(
    'A mold shot by shot: face, back and mean',
    'Two-node heat balance',
    record({
      block: block(),
      fromC: number('C', -20, 330).optional(),
      roomC: number('C', -20, 50).optional(),
      shots: list(
        record({
          kg: number('kg', 0.0003, 10),
          metalC: number('C', 130, 600),
          closedS: number('s', 0, 3600),
          openS: number('s', 0, 3600),
        }),
        1,
        2000,
      ),
      ...metalFields(),
    }),
    ({ shots, metalId, composition, ...session }) =>
      core.moldSession({
        ...session,
        alloy: metalOf({ metalId, composition }),
        steps: shots.map((shot) => ({ kind: 'shot', ...shot })),
      }),
  ),
  pace: calculation(
    'Steady mold temperature of a pace, and the pace that holds a temperature',
    'Heat of a shot against the loss over a cycle',
    record({
      block: block(),
      shotKg: number('kg', 0.0003, 10),
      metalC: number('C', 328, 600),
      roomC: number('C', -20, 50),
      closedS: number('s', 0, 3600),
      cycleS: number('s', 1, 3600),
      holdC: number('C', 40, 300),
    }),
    ({ cycleS, holdC, ...input }) => ({
      steadyC: core.steadyMoldC(input, cycleS),
      cycleS: core.cycleForMoldC(input, holdC),
    }),
  ),
  'after-pause': calculation(
    'A mold after a pause, and the blank shots that bring it back',
    'Two-node heat balance',
    record({
      block: block(),
      shotKg: number('kg', 0.0003, 10),
      metalC: number('C', 328, 600),
      roomC: number('C', -20, 50),
      moldC: number('C', 20, 300),
      seconds: number('s', 0, 86_400),
    }),
    ({ moldC, seconds, ...input }) => core.afterPause({ ...input, closedS: 0 }, moldC, seconds),
  ),
  'fill-index': calculation(
    'Whether a cavity fills at these settings, why, and what to change first',
    'Interface-limited flow; common practice for the levers',
    record({
      style: style(),
      nominalMassKg: nominalMassKg(),
      wireM: number('m', 0.0001, 0.01),
      metalC: number('C', 139, 520),
      moldC: number('C', -10, 260),
      roomC: number('C', -20, 50),
      hookWarm: flag(),
      shotsSinceSmoked: whole('shots', 0, 100_000),
      pouring: choice(['gravity', 'inject'] as const),
      potLevelM: number('m', 0.005, 0.5),
      tiltDeg: number('degrees', 0, 60),
      stream: choice(['quick', 'slow', 'thin'] as const),
      dirt: number('share', 0, 1),
      ...metalFields(),
    }),
    ({ style: id, nominalMassKg: kg, wireM, metalId, composition, ...settings }) => {
      const solid = core.cavitySolid(id, kg);
      const cavity = { solid, sprueHeightM: core.sprueOf(solid).heightM, wireM };
      const all = { ...settings, alloy: metalOf({ metalId, composition }) };
      return { ...core.fillIndex(cavity, all), levers: core.fillLevers(cavity, all) };
    },
  ),
  'fill-threshold': calculation(
    'Index at which every second cast is short, from logged shorts',
    'Logistic regression with priors',
    record({
      records: list(
        record({ index: number('', 0.01, 100), casts: whole('casts', 0, 1e7), shorts: whole('casts', 0, 1e7) }),
        0,
        5000,
      ),
    }),
    ({ records }) => {
      // A function does not cross from a worker: whoever asks makes it again of the index and its spread.
      const { shortShare: _, ...fitted } = core.fitThreshold(records);
      return fitted;
    },
  ),
  'fit-mold': calculation(
    "A mold's loss and heat capacity from a probe at its back and the times of its shots",
    'Least squares on the two-node block, with priors',
    record({
      block: block(),
      closedS: number('s', 0, 3600),
      shots: list(
        record({ atS: number('s', 0, 1e7), kg: number('kg', 0.0003, 10), metalC: number('C', 328, 600) }),
        1,
        2000,
      ),
      readings: readings(),
      roomC: number('C', -20, 50),
    }),
    (input) => core.fitMold(input),
  ),
  'handling-time': calculation(
    'Until a head is cool enough to handle',
    'Lumped head in still air',
    record({
      style: style(),
      nominalMassKg: nominalMassKg(),
      fromC: number('C', 20, 330),
      roomC: number('C', -20, 44).optional(),
    }),
    (input) => {
      const leadKg = core.castMassKg(input);
      const { cooledAreaM2 } = core.coldHeadSolid(input.style, leadKg);
      return {
        seconds: core.handlingTimeS({ headKg: leadKg, areaM2: cooledAreaM2, fromC: input.fromC, roomC: input.roomC }),
      };
    },
  ),
};
