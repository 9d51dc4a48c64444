import { aluminiumMold, chance, moldAtWork } from '@schmelz/worlds';
import type { Fitted } from '../numeric/least-squares.ts';
import { fitMold, fittedBlock } from './fit-mold.ts';
import type { MoldBlock } from './block.ts';
import { moldSession, type MoldStep } from './session.ts';

const [KG, SHOT_KG, METAL_C, ROOM_C, CLOSED_S] = [0.56, 0.085, 371, 20, 6];
/** Thirty shots at a pace that is never even, then thirty more at another. */
function atWork(quirk: number, seed: number, times: number) {
  const { uniform } = chance(seed);
  const gapsS = Array.from({ length: 60 }, (_, shot) => (shot < 30 ? 1 : times) * (110 + 90 * uniform()));
  return moldAtWork(aluminiumMold(KG, quirk), {
    ...{ gapsS, shotKg: SHOT_KG, metalC: METAL_C, roomC: ROOM_C, shutS: CLOSED_S, noiseK: 2, dropOuts: 0.06, seed },
  });
}

/** As the coach reads it: the mean of the block before each shot, through all the shots there were. */
function coached(shots: readonly { gapS: number }[], block: MoldBlock) {
  const steps = shots.map(({ gapS }): MoldStep => ({
    kind: 'shot',
    kg: SHOT_KG,
    metalC: METAL_C,
    closedS: CLOSED_S,
    openS: gapS - CLOSED_S,
  }));
  const { points } = moldSession({ block, roomC: ROOM_C, steps });
  const into = points.flatMap((point, i) => (points[i + 1]?.after === 'shot' ? [point.meanC] : []));
  return into;
}
const rms = (errors: readonly number[]) => Math.sqrt(errors.reduce((sum, e) => sum + e * e, 0) / errors.length);

const WORLDS = [-1, -0.5, 0.4, 1].flatMap((quirk) => [1, 2, 0.5].map((times) => [quirk, times] as const));
const tried = WORLDS.map(([quirk, times], i) => {
  const { shots, readings, before } = atWork(quirk, 31 + i, times);
  const end = shots[30]!.atS;
  const learned = fitMold({
    block: { bodyKg: KG },
    closedS: CLOSED_S,
    shots: shots.slice(0, 30).map(({ atS }) => ({ atS, kg: SHOT_KG, metalC: METAL_C })),
    readings: readings.filter(({ atS }) => atS < end),
    roomC: ROOM_C,
  });
  const [loss, capacity, power] = learned.parameters as [Fitted, Fitted, Fitted];
  const block = (lossWPerK: number, capacityShare: number, lossPower: number) =>
    fittedBlock({ bodyKg: KG }, { lossWPerK, capacityShare, lossPower, aboveK: learned.aboveK });
  const missed = (block: Parameters<typeof coached>[1]) =>
    coached(shots, block)
      .slice(30)
      .map((celsius, k) => celsius - before[30 + k]!);
  const at = (l: number, c: number, p: number) => coached(shots, block(l, c, p)).slice(30);
  return {
    quirk,
    times,
    unlearned: rms(missed({ bodyKg: KG })),
    learned: rms(missed(block(loss.value, capacity.value, power.value))),
    ...{ loss, capacity, power, at },
    truth: before.slice(30),
  };
});

const paces = [1, 2, 0.5].map((times) => [times, tried.filter((each) => each.times === times)] as const);
test.each(paces)('at %s times the pace that it was learned at the error is cut threefold', (_, molds) => {
  expect(rms(molds.map(({ unlearned }) => unlearned))).toBeGreaterThan(3 * rms(molds.map(({ learned }) => learned)));
  for (const { learned } of molds) expect(learned).toBeLessThan(5);
});

test('its stated doubt covers the truth nine times in ten', () => {
  const covered = tried.flatMap(({ loss, capacity, power, at, truth }) => {
    const middle = at(loss.value, capacity.value, power.value);
    const moved = [
      at(loss.value + loss.sd, capacity.value, power.value),
      at(loss.value, capacity.value + capacity.sd, power.value),
      at(loss.value, capacity.value, power.value + power.sd),
    ];
    return truth.map((celsius, k) => {
      const sd = Math.hypot(...moved.map((each) => each[k]! - middle[k]!));
      return Math.abs(celsius - middle[k]!) < 1.645 * sd + 0.5;
    });
  });
  const share = covered.filter(Boolean).length / covered.length;
  expect(share).toBeGreaterThan(0.85);
});
