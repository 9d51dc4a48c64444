import { emptyRun, ovenAtWork, WORLD_OVENS } from '@schmelz/worlds';
import { typicalHook } from '../geometry/hook.ts';
import { coldHeadSolid } from '../geometry/solid.ts';
import { law, minutes } from '../test/bake.ts';
import { fitOven } from './fit-oven.ts';
import { bakedHeatJK, headLagS } from './head-lag.ts';
import { airIn, knownOven, loadHeat } from './known-oven.ts';
import { runningBake } from './running.ts';

/** The label's law on its own, by hand: 53.4 kJ/mol and 20 min at 177 C. */
const fullS = (metalC: number) => 1200 * Math.exp((53_400 / 8.314) * (1 / (metalC + 273.15) - 1 / 450.15));
const head = { leadKg: 0.0142, hookKg: typicalHook('3/0').massKg };
const { cooledAreaM2: surfaceM2 } = coldHeadSolid('ball', head.leadKg);
const lagS = headLagS({ ...head, areaM2: surfaceM2 });

// Ovens of two zones, with an element, walls and a thermostat that feels late, which share no function with the model.
describe.each(WORLD_OVENS.map((oven, i) => [i + 1, oven] as const))('oven %d, after one empty run', (i, oven) => {
  const learned = fitOven(emptyRun(oven, { setC: 177, roomC: 20, seconds: 3000, everyS: 10, seed: 4 + i }), 177);
  test.each([
    { preheated: false, heads: 10, opened: false },
    { preheated: false, heads: 88, opened: false },
    { preheated: true, heads: 88, opened: false },
    { preheated: true, heads: 10, opened: true },
    { preheated: false, heads: 88, opened: true },
  ])('minutes to full cure within 8 %: %o', ({ preheated, heads, opened }) => {
    const doors = opened ? [{ fromS: 480, toS: 510 }] : [];
    const load = { heads, leadKg: head.leadKg, steelKg: head.hookKg, surfaceM2 };
    const real = ovenAtWork(oven, { setC: 177, roomC: 20, seconds: 3600, preheated, doors, load });
    let [cure, atS] = [0, 0];
    while (cure < 1) cure += 1 / fullS(real[atS++]!.metalC);
    const known = knownOven({ lagS: 200, powerW: oven.powerW, learned });
    const hung = loadHeat([{ heatJK: bakedHeatJK(head), headLagS: lagS, count: heads }]);
    const { fullAt } = runningBake({
      ...{ law, headLagS: lagS, ...airIn(known, { setC: 177, preheated }, hung), loadedAt: 0, readings: [] },
      doors: doors.map(({ fromS, toS }) => ({ fromAt: 1000 * fromS, toAt: 1000 * toS })),
      now: minutes(10),
    });
    expect(Math.abs(fullAt! / 1000 / atS - 1)).toBeLessThan(0.08);
  });
});
