import { product, workshop } from '../test/workshop.ts';
import { planOrder } from '../plan/plan.ts';
import { bakedHead, productBake, productLagS } from '../plan/product.ts';
import { bakeLoads } from '../plan/timing.ts';
import type { PlanProduct } from '../plan/types.ts';
import { auditBake, type PastBake } from './audit.ts';
import { cureLaw } from './cure-law.ts';
import { warmUpS } from './cure.ts';
import { runningCureFigure, scheduleFigure, underCuredFigure } from './figures.ts';
import { bakeOutcome } from './outcome.ts';
import { cureFromLog } from './from-log.ts';
import { airIn, doorS, knownOven } from './known-oven.ts';
import { bakeProgram } from './program.ts';
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
  preheated: true,
  doors: [],
  oven: knownOven(undefined),
  headLagS: 110,
  heatJK: 1.6,
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
      runningCureFigure(runningBake({ ...base, readings: heard }), 'White', {
        oven: knownOven(undefined),
        headLagS: 110,
      }),
    );
    expect(model!.basis).toBe('given');
    expect(probe!.basis).toBe('measured');
    // A probe that says 177 from the first moment on knows of no air that was lost in loading.
    expect(probe!.value - model!.value).toBeGreaterThan(0);
    expect(probe!.value - model!.value).toBeLessThan(0.04);
    expect(probe!.high! - probe!.low!).toBeLessThan(model!.high! - model!.low!);
  });
  // The published schedule of the label, worked by hand: 25 min at 149 C are about half a cure, 20 at 121 C a seventh
  // or less.
  test('what common schedules are worth', () => {
    const head = { name: 'Ball', headLagS: 110, heatJK: 1.6, laws, hook: 'bronze', limitC: 190 };
    const worth = (setC: number, minutes: number) =>
      scheduleFigure(head, { setC, seconds: 60 * minutes, preheated: true }, knownOven(undefined)).value;
    expect(worth(149, 25)).toBeGreaterThan(0.35);
    expect(worth(149, 25)).toBeLessThan(0.52);
    expect(worth(121, 20)).toBeLessThan(0.15);
    expect(worth(107, 20)).toBeLessThan(worth(121, 20));
  });
});

describe('programs that count from warm metal, in the plan', () => {
  const bake = (from: 'door' | 'metal') => ({ name: 'P', setC: 177, seconds: 1200, preheated: true, from });
  const oven = { lagS: 180 };
  const inFor = (each: PlanProduct) => doorS(each.bake!, knownOven(oven), productLagS(each));
  test('wait for the metal first, so that twenty minutes of the label are a full cure', () => {
    const [door, metal] = [bake('door'), bake('metal')].map((each) => product(10, { bake: each }));
    expect(inFor(door!)).toBe(1200);
    const warm = inFor(metal!) - 1200;
    expect(warm).toBeGreaterThan(180);
    expect(warm).toBeLessThan(600);
    expect(productBake(door!, oven)!.cure.value).toBeLessThan(0.9);
    expect(productBake(metal!, oven)!.cure.value).toBeGreaterThan(1);
    expect(productBake(metal!, oven)!.cure.value).toBeLessThan(1.35);
  });
  test('from cold the oven’s own lag is waited for too', () => {
    const cold = product(10, { bake: { ...bake('metal'), preheated: false } });
    expect(inFor(cold)).toBeGreaterThan(inFor(product(10, { bake: bake('metal') })) + 90);
    expect(warmUpS({ airC: 177, headLagS: 100, ovenLagS: 180 })).toBeGreaterThan(warmUpS({ airC: 177, headLagS: 100 }));
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
    expect(loads[0]!.seconds).toBeCloseTo(inFor(lines[1]!.product), 9);
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

describe('one answer to how far a bake goes, whoever asks', () => {
  // An oven whose own run taught that it holds 12 K under its mark: half a cure is lost, and every page must say so.
  const learned = { lagS: 230, offsetK: -12, swingK: 4 };
  const record = { lagS: 180, learned };
  const oven = knownOven(record);
  const ways = [true, false].flatMap((preheated) =>
    (['door', 'metal'] as const).map((from) => ({ name: 'P', setC: 177, seconds: 1500, preheated, from })),
  );
  test.each(ways)('the plan, the program page, the running and the past bake: $preheated, from the $from', (bake) => {
    const baked = product(10, { bake });
    const head = bakedHead(baked)!;
    const seconds = doorS(bake, oven, head.headLagS);
    const plan = productBake(baked, record)!.cure.value;
    const page = scheduleFigure(head, bake, oven).value;
    const [{ law }] = head.laws as [(typeof head.laws)[number]];
    const air = { ...airIn(oven, bake), doors: [], readings: [] };
    const running = runningBake({ law, headLagS: head.headLagS, ...air, loadedAt: 0, now: 1000 * seconds }).cure;
    const alone = { ...bake, id: 'b', seconds, oven, headLagS: head.headLagS, heatJK: 0 };
    const gone = auditBake({ ...past(177, 0, 1), ...alone }).cure;
    expect(page).toBe(plan);
    expect(running).toBeCloseTo(plan, 4);
    expect(gone).toBeCloseTo(plan, 4);
    // And it is not what the mark promises.
    expect(plan).toBeLessThan(0.8 * productBake(baked, { lagS: 230 })!.cure.value);
  });
  test('what a bake does to the weakest part is said before it is done, by the metal and not by the mark', () => {
    const head = bakedHead(product(10))!;
    const at = (limitC: number | null, seconds = 1800, setC = 177) =>
      bakeOutcome({ ...head, limitC }, { setC, seconds, preheated: true }, knownOven({ lagS: 200 })).damage;
    expect(at(null)).toEqual({ flag: 'none', overS: 0, overK: 0 });
    expect(at(185).flag).toBe('none');
    // Within a few kelvin at the end only, and far over it for most of the bake.
    expect(at(172, 900).flag).toBe('may have coloured');
    const far = at(150);
    expect(far.flag).toBe('browned');
    expect(far.overK).toBeGreaterThan(20);
    // One lag of the head's after T = limit: by Newton's law it is there after lag x ln(157 / 27).
    const newtonS = head.headLagS * Math.log((177 - 20) / (177 - 150));
    expect(far.overS).toBeGreaterThan(1800 - 1.6 * newtonS);
    expect(far.overS).toBeLessThan(1800 - 0.9 * newtonS);
    // What is over as soon as the door is shut stays so to the end; what is under never begins.
    expect(at(150, 120).overS).toBe(0);
  });
  test('the solved program is a mark: set there, the slowest head is full in this oven and not before', () => {
    const head = bakedHead(product(10))!;
    const program = bakeProgram({ heads: [{ ...head, limitC: 190 }], oven, preheated: true }).program!;
    // 190 less the swing, and twelve more because the air never gets to the mark.
    expect(program.setC).toBe(198);
    const at = (seconds: number) => scheduleFigure(head, { setC: 198, seconds, preheated: true }, oven).value;
    expect(at(program.seconds)).toBeGreaterThanOrEqual(1);
    expect(at(program.seconds - 60)).toBeLessThan(1);
  });
  test('whatever program and learned oven are accepted, every page has an answer', () => {
    for (const offsetK of [-80, 80]) {
      for (const setC of [60, 260]) {
        const bake = { name: 'P', setC, seconds: 1500, preheated: false, from: 'metal' as const };
        const at = { lagS: 200, learned: { ...learned, offsetK } };
        const share = productBake(product(10, { bake }), at)!.cure.value;
        const gone = auditBake({ ...past(setC, 25, 1), oven: knownOven(at) }).cure;
        for (const each of [share, gone]) expect(each).toBeGreaterThanOrEqual(0);
        if (setC + offsetK < 40) expect(share).toBe(0);
      }
    }
    // A probe that lies in the pot by mistake.
    const readings = [0, 60_000].map((at) => ({ at, celsius: 450 }));
    expect(cureFromLog({ law: laws[0]!.law, readings, headLagS: 0 }).share).toBeGreaterThan(1);
  });
  test('a door that was opened counts in a past bake as it did while it ran', () => {
    const doors = [{ fromAt: 300_000, toAt: 420_000 }];
    const shut = auditBake(past(177, 25, 10));
    const opened = auditBake({ ...past(177, 25, 10), doors });
    expect(opened.cure).toBeLessThan(shut.cure - 0.02);
    expect(auditBake({ ...past(177, 0, 10) })).toMatchObject({ cure: 0, underCured: true });
  });
});
