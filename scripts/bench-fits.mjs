// Of each fit: how far the models are off a thing that they do not know, before and after they have learned it, and how
// often the truth lies in what they say. Part of npm run bench; nothing here is asserted.
import { join } from 'node:path';
import { root } from './lib.mjs';

const dist = (name) => join(root, 'packages', name, 'dist', 'index.js');
const [core, worlds] = await Promise.all([import(dist('core')), import(dist('worlds'))]);
const rms = (errors) => Math.sqrt(errors.reduce((sum, error) => sum + error * error, 0) / errors.length);
const value = (fit, name) => fit.parameters.find((each) => each.name === name);
const line = (what, unit, before, after, covered) =>
  console.log(
    `${what}: off by ${rms(before).toFixed(1)} ${unit}, learned ${rms(after).toFixed(1)} ${unit}, ` +
      `ratio ${(rms(before) / rms(after)).toFixed(1)}, truth in its range ${Math.round((100 * covered.filter(Boolean).length) / covered.length)} %`,
  );

{
  const plate = { powerW: 700, lossWPerK: 0.45, crucibleJPerK: 540 };
  const [before, after, covered] = [[], [], []];
  worlds.WORLD_POTS.forEach((pot, i) => {
    const logged = worlds.heatUp(pot, { leadKg: 5, setC: 378, roomC: 20, seconds: 2400, everyS: 5, seed: 7 + i });
    const [stretch] = core.heatUpsIn(
      logged.readings.map(({ atS, temperatureC }) => ({ at: atS * 1000, celsius: temperatureC })),
    );
    const readings = stretch.map(({ at, celsius }) => ({ atS: at / 1000, temperatureC: celsius }));
    const fit = core.fitPot({ readings, leadKg: 5, roomC: 20, ...plate, heating: true });
    const [power, loss, crucible] = ['powerW', 'lossWPerK', 'crucibleJPerK'].map((name) => value(fit, name));
    for (const leadKg of [0.8, 2, 4, 8]) {
      const truth = worlds.heatUp(pot, { leadKg, setC: 500, roomC: 20, seconds: 4000, everyS: 60, seed: 1 }).pouringAtS;
      const known = { powerW: power.value, lossWPerK: loss.value, crucibleJPerK: crucible.value };
      const { ready } = core.meltPlan({
        ...{ leadKg, fromC: 20, roomC: 20, pourC: 371, school: 'left at the mark', basis: 'fitted', ...known },
        ...{ powerSdW: power.sd, lossSdWPerK: loss.sd, crucibleSdJPerK: crucible.sd },
      });
      before.push((core.meltTime({ leadKg, toC: 371, ...plate }).seconds / truth - 1) * 100);
      after.push((ready.value / truth - 1) * 100);
      covered.push(ready.low <= truth && truth <= ready.high);
    }
  });
  line('minutes to pour of unlike pots, 0.8 to 8 kg', '%', before, after, covered);
}

for (const times of [1, 2, 0.5]) {
  const [KG, SHOT_KG, METAL_C, SHUT_S] = [0.56, 0.085, 371, 6];
  const [before, after, covered] = [[], [], []];
  for (const [at, quirk] of [-1, -0.5, 0.4, 1].entries()) {
    const { uniform } = worlds.chance(31 + at);
    const gapsS = Array.from({ length: 60 }, (_, shot) => (shot < 30 ? 1 : times) * (110 + 90 * uniform()));
    const heat = { shotKg: SHOT_KG, metalC: METAL_C, roomC: 20, shutS: SHUT_S, noiseK: 2, dropOuts: 0.06 };
    const work = worlds.moldAtWork(worlds.aluminiumMold(KG, quirk), { gapsS, ...heat, seed: 31 + at });
    const end = work.shots[30].atS;
    const fit = core.fitMold({
      ...{ block: { bodyKg: KG }, closedS: SHUT_S, roomC: 20 },
      shots: work.shots.slice(0, 30).map(({ atS }) => ({ atS, kg: SHOT_KG, metalC: METAL_C })),
      readings: work.readings.filter(({ atS }) => atS < end),
    });
    const read = (block) => {
      const steps = work.shots.map(({ gapS }) => {
        return { kind: 'shot', kg: SHOT_KG, metalC: METAL_C, closedS: SHUT_S, openS: gapS - SHUT_S };
      });
      const { points } = core.moldSession({ block: { bodyKg: KG, ...block }, roomC: 20, steps });
      return points.flatMap((point, i) => (points[i + 1]?.after === 'shot' ? [point.meanC] : [])).slice(30);
    };
    const [loss, capacity] = ['lossWPerK', 'capacityShare'].map((name) => value(fit, name));
    const learned = { lossWPerK: loss.value, capacityShare: capacity.value };
    const [raw, middle] = [read({}), read(learned)];
    const moved = [
      read({ ...learned, lossWPerK: loss.value + loss.sd }),
      read({ ...learned, capacityShare: capacity.value + capacity.sd }),
    ];
    work.before.slice(30).forEach((truth, k) => {
      before.push(raw[k] - truth);
      after.push(middle[k] - truth);
      covered.push(
        Math.abs(middle[k] - truth) < core.Z_90 * Math.hypot(...moved.map((each) => each[k] - middle[k])) + 0.5,
      );
    });
  }
  line(`heat of unlike molds at ${times} times the pace`, 'K', before, after, covered);
}

{
  const [before, after, covered] = [[], [], []];
  for (const gun of worlds.WORLD_GUNS) {
    const head = (leadKg, size) => {
      const { wireM } = core.typicalHook(size);
      return {
        leadKg,
        areaM2: core.coldHeadSolid('ball', leadKg).cooledAreaM2,
        wireM,
        embeddedM: core.headWidthM(leadKg),
      };
    };
    const real = (leadKg, size) => worlds.secondsUnder(gun, head(leadKg, size), 20, 170);
    const counts = [0.93, 1, 1.08, 0.97, 1.03].map((off) => {
      return { head: head(0.0142, '3/0'), seconds: off * real(0.0142, '3/0') };
    });
    const fit = core.fitGun(counts, 20);
    for (const [grams, size] of [
      [2, '4'],
      [7, '1/0'],
      [14.2, '3/0'],
      [28, '5/0'],
      [57, '6/0'],
    ]) {
      const truth = real(grams / 1000, size);
      const at = (gunWM2K) => core.heatingS({ head: head(grams / 1000, size), tool: 'heat gun', roomC: 20, gunWM2K });
      before.push((at(undefined) / truth - 1) * 100);
      after.push((at(fit.wM2K) / truth - 1) * 100);
      covered.push(at(fit.high) <= truth && truth <= at(fit.low));
    }
  }
  line('seconds under unlike guns, 2 to 57 g, learned on half an ounce', '%', before, after, covered);
}

{
  const [before, after, covered] = [[], [], []];
  const law = core.cureLaw([
    { metalC: 177, seconds: 1200 },
    { metalC: 200, seconds: 600 },
  ]);
  const fullS = (metalC) => 1200 * Math.exp((53400 / 8.314) * (1 / (metalC + 273.15) - 1 / 450.15));
  const head = { leadKg: 0.0142, hookKg: core.typicalHook('3/0').massKg };
  const { cooledAreaM2: surfaceM2 } = core.coldHeadSolid('ball', head.leadKg);
  const headLagS = core.headLagS({ ...head, areaM2: surfaceM2 });
  worlds.WORLD_OVENS.forEach((oven, i) => {
    const learned = core.fitOven(
      worlds.emptyRun(oven, { setC: 177, roomC: 20, seconds: 3000, everyS: 10, seed: 5 + i }),
      177,
    );
    for (const preheated of [true, false]) {
      for (const heads of [10, 88]) {
        const load = { heads, leadKg: head.leadKg, steelKg: head.hookKg, surfaceM2 };
        const real = worlds.ovenAtWork(oven, { setC: 177, roomC: 20, seconds: 3600, preheated, load });
        let [cure, truth] = [0, 0];
        while (cure < 1) cure += 1 / fullS(real[truth++].metalC);
        const hung = core.loadHeat([{ heatJK: core.bakedHeatJK(head), headLagS, count: heads }]);
        const at = (record) =>
          core.timeToFullCureS({
            law,
            headLagS,
            ...core.airIn(core.knownOven(record), { setC: 177, preheated }, hung),
          });
        const plate = { lagS: 180, powerW: oven.powerW };
        before.push((at(plate) / truth - 1) * 100);
        after.push((at({ ...plate, learned }) / truth - 1) * 100);
        const off = (sign) =>
          at({ ...plate, learned: { ...learned, offsetK: learned.offsetK + sign * core.Z_90 * learned.offsetSdK } });
        covered.push(off(1) <= truth && truth <= off(-1));
      }
    }
  });
  line('minutes to full cure in unlike ovens, after one empty run', '%', before, after, covered);
}
