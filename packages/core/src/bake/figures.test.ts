import { product, workshop } from '../test/workshop.ts';
import { planOrder } from '../plan/plan.ts';
import { bakeDoorS, productCure } from '../plan/product.ts';
import { bakeLoads } from '../plan/timing.ts';
import { auditBake, type PastBake } from './audit.ts';
import { cureLaw, warmUpS } from './cure.ts';
import { runningCureFigure, scheduleFigure, underCuredFigure } from './figures.ts';
import { runningBake } from './running.ts';

const label = [
  { metalC: 177, seconds: 1200 },
  { metalC: 200, seconds: 600 },
];
const laws = [{ powder: 'White', law: cureLaw(label) }];
const past = (setC: number, minutes: number, heads: number): PastBake => ({
  id: `${setC}`,
  at: 0,
  name: `at ${setC}`,
  heads,
  setC,
  seconds: 60 * minutes,
  ovenLagS: 0,
  headLagS: 110,
  laws,
  limitC: 190,
});

describe('what a bake answers when it is asked why', () => {
  test('under-cured heads are an estimate: a tenth more or less of cure bounds it', () => {
    const bakes = [past(177, 28, 40), past(177, 22, 30), past(150, 15, 12)].map(auditBake);
    const figure = underCuredFigure(bakes);
    expect(figure.basis).toBe('given');
    expect(figure.value).toBe(bakes.filter((bake) => bake.cure < 0.9).reduce((sum, bake) => sum + bake.heads, 0));
    expect(figure.low!).toBeLessThanOrEqual(figure.value);
    expect(figure.high!).toBeGreaterThanOrEqual(figure.value);
    expect(figure.why.inputs.some((input) => input.label === 'at 150')).toBe(true);
    expect(underCuredFigure([])).toMatchObject({ value: 0, low: 0, high: 0 });
  });
  test('a running cure is measured where a probe speaks, with a narrower range', () => {
    const base = {
      law: laws[0]!.law,
      headLagS: 110,
      airC: 177,
      ovenLagS: 200,
      loadedAt: 0,
      preheated: true,
      doors: [],
      now: 900_000,
    };
    const readings = Array.from({ length: 91 }, (_, i) => ({ at: i * 10_000, celsius: 177 }));
    const [model, probe] = [[], readings].map((heard) =>
      runningCureFigure(runningBake({ ...base, readings: heard }), 'White'),
    );
    expect(model!.basis).toBe('given');
    expect(probe!.basis).toBe('measured');
    expect(probe!.value).toBeCloseTo(model!.value, 2);
    expect(probe!.high! - probe!.low!).toBeLessThan(model!.high! - model!.low!);
  });
  // The published schedule of the label, worked by hand: 25 min at 149 C are about half a cure, 20 at 121 C a seventh
  // or less.
  test('what common schedules are worth', () => {
    const head = { name: 'Ball', headLagS: 110, laws, hook: 'bronze', limitC: 190 };
    const worth = (setC: number, minutes: number) => scheduleFigure(head, setC, 60 * minutes, 0).value;
    expect(worth(149, 25)).toBeGreaterThan(0.35);
    expect(worth(149, 25)).toBeLessThan(0.52);
    expect(worth(121, 20)).toBeLessThan(0.15);
    expect(worth(107, 20)).toBeLessThan(worth(121, 20));
  });
});

describe('programs that count from warm metal, in the plan', () => {
  const bake = (from: 'door' | 'metal') => ({ name: 'P', setC: 177, seconds: 1200, preheated: true, from });
  const oven = { lagS: 180 };
  test('wait for the metal first, so that twenty minutes of the label are a full cure', () => {
    const [door, metal] = [bake('door'), bake('metal')].map((each) => product(10, { bake: each }));
    expect(bakeDoorS(door!, door!.bake!, oven)).toBe(1200);
    const warm = bakeDoorS(metal!, metal!.bake!, oven) - 1200;
    expect(warm).toBeGreaterThan(180);
    expect(warm).toBeLessThan(600);
    expect(productCure(door!, oven)!.value).toBeLessThan(0.9);
    expect(productCure(metal!, oven)!.value).toBeGreaterThan(1);
    expect(productCure(metal!, oven)!.value).toBeLessThan(1.35);
  });
  test('from cold the oven’s own lag is waited for too', () => {
    const cold = product(10, { bake: { ...bake('metal'), preheated: false } });
    expect(bakeDoorS(cold, cold.bake!, oven)).toBeGreaterThan(bakeDoorS(product(10), bake('metal'), oven) + 180);
    expect(warmUpS({ setC: 177, headLagS: 100, ovenLagS: 180 })).toBeGreaterThan(warmUpS({ setC: 177, headLagS: 100 }));
  });
  test('a load is in as long as its slowest head; programs that count otherwise do not share one', () => {
    const { oven: one } = workshop();
    const lines = [
      { product: product(7, { id: 'a', bake: bake('metal') }), quantity: 10 },
      { product: product(57, { id: 'b', bake: bake('metal') }), quantity: 10 },
      { product: product(10, { id: 'c', bake: bake('door') }), quantity: 10 },
    ];
    const loads = bakeLoads(lines, one);
    expect(loads.map(({ heads, loads: count }) => [heads, count])).toEqual([
      [20, 1],
      [10, 1],
    ]);
    expect(loads[0]!.seconds).toBeCloseTo(bakeDoorS(lines[1]!.product, bake('metal'), one), 9);
  });
  test('racks say how many loads; a head that no rack takes lies on the tray by the plain count', () => {
    const input = workshop();
    const rack = { name: 'short', way: 'hanging' as const, bars: 1, barM: 0.1, clearM: 0.06 };
    const plan = (racks: (typeof rack)[]) => planOrder({ ...input, oven: { ...input.oven, racks } }).ovenLoads.value;
    expect(plan([])).toBe(2);
    expect(plan([rack])).toBeGreaterThan(10);
    expect(plan([{ ...rack, clearM: 0.02 }])).toBe(2);
  });
});
