// npm run bench:tonight: how long an evening takes to plan, with how much of it proved. Nothing is asserted.
import { join } from 'node:path';
import { performance } from 'node:perf_hooks';
import loadHighs from 'highs';
import { ensureBuilt, ensureInstalled, root } from './lib.mjs';

ensureInstalled();
ensureBuilt();
const core = await import(join(root, 'packages', 'core', 'dist', 'index.js'));
const highs = await loadHighs();
const median = (values) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)];
const random = core.seeded(17);
const whole = (low, high) => low + Math.floor(random() * (high - low + 1));

const SIZES = ['1', '1/0', '2/0', '3/0', '4/0', '5/0'];
const STYLES = ['ball', 'football', 'fish', 'mushroom'];
const GRAMS = [3.5, 7, 10, 14, 21];

/** A workshop of eight molds, sixty lines and forty hooks: more than any garage has open. */
function large() {
  const molds = Array.from({ length: 8 }, (_, m) => ({
    ...{ id: `m${m}`, name: `Mold ${m}`, bodyKg: 0.6, shotsSinceSmoked: 0 },
    cavities: Array.from({ length: whole(3, 8) }, (_cavity, c) => ({
      ...{ id: `m${m}c${c}`, position: c + 1, style: STYLES[m % 4], nominalMassKg: GRAMS[(c + m) % 5] / 1000 },
      ...{ hookSize: SIZES[(c + m) % 5], eyeAngleDeg: 60, condition: 'good', good: whole(80, 200), casts: 200 },
    })),
  }));
  const hooks = Array.from({ length: 40 }, (_, h) => ({
    ...{ materialId: `h${h}`, name: `Hook ${h}`, eyeAngleDeg: 60, massKg: 0.0008, size: SIZES[h % 6] },
  }));
  const cavities = molds.flatMap((mold) => mold.cavities);
  const wanted = Array.from({ length: 60 }, (_, w) => {
    const { style, nominalMassKg, hookSize } = cavities[whole(0, cavities.length - 1)];
    const fitting = hooks.filter(({ size }) => size === hookSize);
    const hook = fitting[whole(0, fitting.length - 1)];
    const product = { id: `p${w}`, name: `Line ${w}`, style, nominalMassKg, hook, layers: [], bake: null };
    return { workId: `w${w}`, product, heads: 6 * whole(1, 12), fromPot: false };
  });
  const hooksHere = Object.fromEntries(hooks.map(({ materialId }) => [materialId, 200]));
  const ways = core.DEFAULT_WAYS;
  return { wanted, molds, pot: { way: null }, ways, atOnce: 1, afterPour: { mean: 0.97, sure: 200 }, hooksHere };
}

const taken = [];
const gaps = [];
for (let round = 0; round < 9; round++) {
  const input = large();
  const began = performance.now();
  const casts = core.castsTonight(input, core.solveWith(highs, { limitS: 1.5 }));
  taken.push(performance.now() - began);
  gaps.push(casts.seconds / casts.boundS - 1);
}
console.log(
  `casts of 60 lines on 8 molds with 40 hooks: median ${median(taken).toFixed(0)} ms of ${taken.length}, worst ${Math.max(...taken).toFixed(0)} ms (bar: 500 ms); over the bound median ${(100 * median(gaps)).toFixed(2)} %, worst ${(100 * Math.max(...gaps)).toFixed(2)} %`,
);

const task = (id, station, seconds, after, hands = true) => ({
  ...{ id, name: id, station, seconds, hands, holds: hands ? [] : ['oven'], works: ['w'], heads: 24 },
  after: after.map((each) => ({ task: each, lagS: 0 })),
});
const tasks = Array.from({ length: 10 }, (_, w) => [
  task(`trim ${w}`, 'trim', 600, []),
  task(`paint ${w}`, 'paint', 1800, [`trim ${w}`]),
  task(`bake ${w}`, 'bake', 1500, [`paint ${w}`], false),
  task(`bag ${w}`, 'finish', 300, [`bake ${w}`]),
]).flat();
const shop = { people: [{ name: 'One', can: null }] };
const searched = [];
for (let seed = 0; seed < 5; seed++) {
  const began = performance.now();
  core.schedule(tasks, shop, { seed, tries: 3000, due: { w: 1 } });
  searched.push(performance.now() - began);
}
console.log(`search for the evening of 40 tasks, 3000 orders: median ${median(searched).toFixed(0)} ms`);
// Two at work, one gun: there the quick bound says least.
const two = { people: [...shop.people, { name: 'Two', can: null }] };
const atGun = tasks.map((each) => (each.station === 'paint' ? { ...each, holds: ['gun'] } : each));
const found = core.schedule(atGun, two);
const began = performance.now();
const provedToS = core.provedS(atGun, two, found);
const over = (boundS) => `${(100 * (found.endS / boundS - 1)).toFixed(2)} %`;
console.log(
  `what is proved of an evening of 40 tasks for two: ${over(found.boundS)} over the quick bound, ${over(provedToS)} over what is proved, in ${(performance.now() - began).toFixed(0)} ms`,
);
const { placed } = core.schedule(tasks, shop);
const played = [];
for (let seed = 0; seed < 5; seed++) {
  const began = performance.now();
  core.chances(tasks, placed, { seed, evenings: 10_000 });
  played.push(performance.now() - began);
}
console.log(`10 000 evenings of 40 tasks played: median ${median(played).toFixed(0)} ms (bar: 1000 ms)`);
