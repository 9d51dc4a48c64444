import { ROUTE_TEMPLATES } from '../job/route.ts';
import { product, workshop } from '../test/workshop.ts';
import { planOrder } from './plan.ts';
import { preparePour } from './prepare-pour.ts';
import type { PlanInput, PlanLayer, PlanProduct, PlanStep } from './types.ts';
import { DEFAULT_WAYS } from './ways.ts';

// An evening reckoned on paper: what hands do, what passes by itself, what the pour goes by.

/** Seconds of the house that are easy to multiply. */
const WAYS = { ...DEFAULT_WAYS, trimS: 10, coatS: 20, hangS: 3, finishS: 6 };
const plan = (lines: PlanInput['lines'], more: Partial<PlanInput> = {}) =>
  planOrder({ ...workshop(), ways: WAYS, lines, ...more });
const rows = (made: ReturnType<typeof plan>) =>
  made.minutes.map(({ station, does, handsS, waitS }) => [
    station,
    does,
    Math.round(handsS.value),
    waitS && Math.round(waitS.value),
  ]);

/** A product on a way of its own, painted and baked at its steps. */
function onWay(id: string, grams = 10, more: Partial<PlanProduct> = {}): PlanProduct {
  const made = product(grams);
  const { steps } = ROUTE_TEMPLATES.find((each) => each.id === id)!;
  return {
    ...made,
    ...more,
    steps: steps.map((step): PlanStep => ({
      ...step,
      layers: step.station === 'paint' ? made.layers : [],
      bake: step.station === 'bake' ? made.bake! : null,
    })),
  };
}

describe('an evening on paper', () => {
  test('the usual way: seconds a head times heads, one load of the oven', () => {
    const made = plan([{ product: product(10), quantity: 60 }]);
    const [pour, ...others] = rows(made);
    expect(pour!.slice(0, 2)).toEqual(['pour', 'Pour']);
    expect(others).toEqual([
      ['trim', 'Trim', 600, null],
      ['paint', 'Paint', 1200, null],
      ['bake', 'Bake', 180, 1680],
      ['finish', 'Finish', 360, null],
    ]);
    expect(made.handsTotal.value).toBeCloseTo(
      made.minutes.reduce((sum, row) => sum + row.handsS.value, 0),
      6,
    );
    expect(made.ovenLoads.value).toBe(1);
    // 60 places: one head more is a load more, and its wait.
    const more = plan([{ product: product(10), quantity: 61 }]);
    expect(more.ovenLoads.value).toBe(2);
    expect(rows(more).find(([station]) => station === 'bake')![3]).toBe(2 * 1680);
  });
  test('nothing to bake: no hanging, no wait, no load, less electricity', () => {
    const bare = plan([{ product: product(10, { layers: [], bake: null }), quantity: 60 }]);
    expect(rows(bare).map(([station]) => station)).toEqual(['pour', 'trim', 'finish']);
    expect(bare.ovenLoads.value).toBe(0);
    // A bake that is a step without a program of its own hangs nothing.
    const steps = onWay('two coats').steps!.map((step) => ({ ...step, bake: null }));
    const unbaked = plan([{ product: { ...product(10), steps }, quantity: 60 }]);
    expect(rows(unbaked).filter(([station]) => station === 'bake')).toEqual([]);
  });
  // 1400 W at six tenths for 28 minutes are 0.392 kWh a load: by hand.
  test('the oven adds its electricity, a load at a time', () => {
    const kWh = (quantity: number, oven = workshop().oven) => {
      const made = plan([{ product: product(10), quantity }], { oven });
      return (made.lines[0]!.stack.energy * quantity) / WAYS.energyMinorPerKWh;
    };
    const { oven } = workshop();
    const [off, rest] = [{ ...oven, powerW: 100 }, 1 - 100 / oven.powerW];
    expect(kWh(60) - kWh(60, off)).toBeCloseTo(0.392 * rest, 6);
    expect(kWh(61) - kWh(61, off)).toBeCloseTo(0.784 * rest, 6);
  });
  test('two coats: each its paint and its bake, the second never in the load of the first', () => {
    const made = plan([{ product: onWay('two coats'), quantity: 30 }]);
    expect(rows(made).slice(1)).toEqual([
      ['trim', 'Trim', 300, null],
      ['paint', 'First coat', 600, null],
      ['bake', 'Bake the first coat', 90, 1680],
      ['paint', 'Second coat', 600, null],
      ['bake', 'Bake the second coat', 90, 1680],
      ['finish', 'Finish', 180, null],
    ]);
    expect(made.ovenLoads.value).toBe(2);
  });
  test('what sets is waited for at its step, all heads side by side', () => {
    const made = plan([{ product: onWay('guard and skirt'), quantity: 30 }]);
    const guard = made.minutes.find(({ does }) => does === 'Glue the guard in')!;
    expect(guard.waitS!.value).toBe(3600);
    expect(guard.waitS!.why.rule).toMatch(/^glue sets, all heads side by side/);
    expect(guard.waitS!.why.inputs.map(({ label, value }) => [label, value])).toEqual([['glue sets', 3600]]);
    expect(made.minutes.find(({ does }) => does === 'Skirt on')!.waitS).toBeNull();
  });
  test('liquid paint dries coat by coat; powder beside it does not', () => {
    const [powder] = product(10).layers;
    const liquid = (name: string, coats: number, dryS: number | null): PlanLayer => ({
      ...powder!,
      coats,
      powder: { ...powder!.powder, name, form: 'liquid', ...(dryS === null ? {} : { dryS }) },
    });
    const layers = [liquid('Base', 2, 1200), liquid('Top', 1, 900), liquid('Quick', 3, null)];
    const dipped = product(10, { layers, bake: null });
    const other = product(14, { layers: [liquid('Base', 1, 600), powder!], bake: null });
    const made = plan([
      { product: dipped, quantity: 12 },
      { product: other, quantity: 12 },
    ]);
    const paint = made.minutes.find(({ station }) => station === 'paint')!;
    // 2 coats of 20 minutes and one of 15; the shorter ticket dries meanwhile.
    expect(paint.waitS!.value).toBe(2 * 1200 + 900);
    expect(paint.waitS!.why.rule).toMatch(/^Liquid paint dries/);
    expect(paint.waitS!.why.inputs.map(({ label }) => label)).toEqual(['Base', 'Top', 'Quick', 'Base']);
  });
  test('heads off the shelf are not poured, and take no melting', () => {
    const made = plan([{ product: product(10, { source: 'shelf', hook: null }), quantity: 20 }]);
    expect(made.minutes.map(({ station }) => station)).not.toContain('pour');
    expect(made.melt.value).toBe(0);
  });
});

describe('what a pour goes by', () => {
  test('each mold its blank shots and shots, each ticket its heads, hooks counted out for the provision', () => {
    const input = workshop();
    const made = planOrder(input);
    const { setup, planned } = preparePour({ ...input, atOnce: 1 });
    const [mold] = made.molds;
    expect(setup.molds).toEqual([
      {
        moldId: 'mold',
        plannedBlanks: mold!.blanks.value,
        plannedShots: mold!.shots.value,
        openS: mold!.openS.value,
        solidS: mold!.solidS,
        hookHeldS: mold!.hookHeldS,
        inspectS: 12,
        loadS: 17,
      },
    ]);
    expect(mold!.blanks.value).toBeGreaterThan(0);
    expect(setup.needs).toEqual({ 'ball-10': 60, 'ball-14': 24 });
    const casts = made.lines.map((line) => line.casts.value);
    // Laid out for nineteen evenings in twenty, while a shot is planned for the usual one.
    expect(setup.hooksOut).toEqual({ 'hook-2/0': made.lines[0]!.casts.high, 'hook-3/0': made.lines[1]!.casts.high });
    // One charge, whoever asks: 0.8 kg of heel, the casts, their sprues, 1.5 % of skin.
    expect(planned.chargeKg).toBeCloseTo(made.charge.value, 12);
    expect(planned.meltS).toBeCloseTo(made.melt.value, 6);
    // Melting, 25 s a blank shot, and each cast 17 s to load and 12 to look at, besides pouring, waiting and opening;
    // cavities of a head that has enough stay empty. A shot of five takes about 170 s: common practice, no source.
    const least = planned.meltS + 25 * mold!.blanks.value + 29 * (casts[0]! + casts[1]!);
    expect(planned.plannedS).toBeGreaterThan(least);
    expect(planned.plannedS).toBeLessThan(least + mold!.shots.value * 40);
  });
});
