import { coldHeadSolid } from '../geometry/solid.ts';
import { castMassKg } from '../cast/cast-mass.ts';
import { product } from '../test/workshop.ts';
import { heatingS } from '../paint/head-heat.ts';
import {
  dryingFigure,
  paintSecondsFigure,
  powderCostFigure,
  powderPerHeadFigure,
  trimSecondsFigure,
} from './paint-figures.ts';
import { productHeated } from './product.ts';
import type { PlanLayer, PlanPowder } from './types.ts';
import { DEFAULT_WAYS } from './ways.ts';

const white = product(10).layers[0]!.powder;
const second: PlanPowder = { ...white, materialId: 'second', name: 'Second' };
const vinyl: PlanPowder = {
  materialId: 'vinyl',
  name: 'Vinyl',
  specificGravity: 1.2,
  label: [],
  form: 'liquid',
  dryS: 7200,
};
const layer = (powder: PlanPowder, more: Partial<PlanLayer> = {}): PlanLayer => ({
  powder,
  zone: 'whole',
  coats: 1,
  ...more,
});
const painted = (...layers: PlanLayer[]) => product(14.2, { layers });

describe('powder for one head', () => {
  // 192.3 ft2/lb per mil at specific gravity 1, the powder-coating industry's published formula; a 14.2 g ball takes
  // 0.084 g
  // of 100 um at 1.5 (worked by hand), here with a collar and over what stays on.
  test('is area, film and density over what stays on', () => {
    const figure = powderPerHeadFigure(painted(layer(white)), DEFAULT_WAYS);
    const { paintedAreaM2 } = coldHeadSolid('ball', castMassKg({ nominalMassKg: 0.0142 }));
    expect(figure.value).toBeCloseTo((paintedAreaM2 * 1e-4 * 1500) / 0.7, 12);
    expect(figure.value * 0.7 * 1000).toBeGreaterThan(0.075);
    expect(figure.value * 0.7 * 1000).toBeLessThan(0.1);
    expect(figure.basis).toBe('given');
    expect(figure.low!).toBeLessThan(figure.value);
    expect(figure.high!).toBeGreaterThan(figure.value);
  });
  test('weighed jars narrow it and mark it as fitted', () => {
    const known = { efficiency: 0.6, low: 0.57, high: 0.63, weighings: 20 };
    const [guessed, fitted] = [
      powderPerHeadFigure(painted(layer(white)), DEFAULT_WAYS),
      powderPerHeadFigure(painted(layer(white)), DEFAULT_WAYS, known),
    ];
    expect(fitted.basis).toBe('fitted');
    expect(fitted.value / guessed.value).toBeCloseTo(0.7 / 0.6, 9);
    expect(fitted.high! / fitted.low!).toBeLessThan(guessed.high! / guessed.low!);
    // The film is as unsure as before.
    expect(fitted.high! / fitted.low!).toBeGreaterThan(0.63 / 0.57);
  });
  test('a mixture takes as much as one powder, shared by the mixture', () => {
    const mixed = powderPerHeadFigure(painted(layer(white, { mix: { powder: second, share: 0.3 } })), DEFAULT_WAYS);
    expect(mixed.value).toBeCloseTo(powderPerHeadFigure(painted(layer(white)), DEFAULT_WAYS).value, 12);
    const [a, b] = ['White', 'Second'].map(
      (name) => mixed.why.inputs.find((input) => input.label === name)!.value as number,
    );
    expect(b! / (a! + b!)).toBeCloseTo(0.3, 9);
  });
  test('costs what was paid for it; what has no price counts nothing', () => {
    const price = (id: string) => (id === 'white' ? 6000 : null);
    const cost = powderCostFigure(painted(layer(white), layer(second, { zone: 'back' })), DEFAULT_WAYS, price);
    expect(cost.value).toBeCloseTo(6000 * powderPerHeadFigure(painted(layer(white)), DEFAULT_WAYS).value, 9);
    expect(cost.why.inputs.map((input) => input.label)).toEqual(['White', 'Second']);
  });
});

describe('hands', () => {
  test('one dip is the heating of the model and what the ways add', () => {
    const one = painted(layer(white));
    const figure = paintSecondsFigure(one, DEFAULT_WAYS);
    const heatS = heatingS({ head: productHeated(one), tool: 'heat gun', roomC: DEFAULT_WAYS.roomC });
    expect(figure.why.inputs[0]).toMatchObject({ label: 'Heating, from cold', value: heatS });
    expect(figure.value).toBeGreaterThan(heatS + 8);
    // Common practice, no source: two to three heads a minute with a gun.
    expect(figure.value).toBeGreaterThan(20);
    expect(figure.value).toBeLessThan(40);
  });
  test('a way that saves a step saves its seconds; a product may have its own', () => {
    const house = (schools: typeof DEFAULT_WAYS.schools) =>
      paintSecondsFigure(painted(layer(white)), { ...DEFAULT_WAYS, ...(schools ? { schools } : {}) }).value;
    expect(house({ eye: 'tube' }) - house({})).toBeCloseTo(5, 9);
    expect(house({ after: 'foam' }) - house({})).toBeCloseTo(-1, 9);
    const own = paintSecondsFigure(
      product(14.2, { layers: [layer(white)], ways: { eye: 'tube' } }),
      DEFAULT_WAYS,
    ).value;
    expect(own).toBeCloseTo(house({ eye: 'tube' }), 9);
  });
  test("the maker's own seconds outrank the ways, and the why says so", () => {
    const timed = { ...DEFAULT_WAYS, coatS: 33, trimS: 8 };
    expect(paintSecondsFigure(painted(layer(white, { coats: 2 })), timed).value).toBe(66);
    expect(paintSecondsFigure(painted(layer(white)), timed).why.rule).toMatch(/Your own seconds/);
    expect(trimSecondsFigure(product(10), timed)).toMatchObject({ value: 8, why: { source: 'Your setup' } });
    expect(trimSecondsFigure(product(10), DEFAULT_WAYS).why.inputs.map((input) => [input.label, input.value])).toEqual([
      ['Sprue off', 3],
      ['The edge', 7],
    ]);
  });
  test('liquid paint waits coat after coat; powder does not', () => {
    expect(dryingFigure(painted(layer(white)))).toBeNull();
    const waits = dryingFigure(painted(layer(vinyl, { coats: 2 }), layer({ ...vinyl, name: 'Clear', dryS: 3600 })))!;
    expect(waits.value).toBe(2 * 7200 + 3600);
    expect(waits.why.inputs.map(({ label, note }) => [label, note])).toEqual([
      ['Vinyl', '2 coats'],
      ['Clear', 'one coat'],
    ]);
  });
});
