import fc from 'fast-check';
import { changingFigure } from './figures.ts';
import { changeS, colourOrder, lightnessOf, orderCost, type ColourOrderInput, type CupColour } from './colour-order.ts';

const colour = (id: string, lightness: number, gloss: CupColour['gloss'] = 'gloss'): CupColour => ({
  id,
  name: id,
  lightness,
  gloss,
});
const session = (id: string, ...colourIds: string[]) => ({ id, name: id, colourIds, heads: 12 });

/** Every order, priced as a maker would walk it. */
function bruteForce(input: ColourOrderInput): number {
  const ids = input.sessions.map((each) => each.id);
  const cost = (order: string[], kept: string[]) =>
    orderCost(input, order, kept).reduce((sum, step) => sum + step.seconds, 0);
  const orders = (left: string[]): string[][] =>
    left.length < 2
      ? [left]
      : left.flatMap((id) => orders(left.filter((each) => each !== id)).map((rest) => [id, ...rest]));
  const colours = [...new Set(input.sessions.flatMap((each) => each.colourIds))];
  const kepts = input.spareCups > 0 && colours.length > 1 ? [[], ...colours.map((id) => [id])] : [[]];
  return Math.min(...kepts.flatMap((kept) => orders(ids).map((order) => cost(order, kept))));
}

const night = fc
  .record({
    lights: fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: 3, maxLength: 5 }),
    flakes: fc.array(fc.boolean(), { minLength: 5, maxLength: 5 }),
    sets: fc.array(fc.uniqueArray(fc.nat(4), { minLength: 1, maxLength: 2 }), { minLength: 1, maxLength: 6 }),
    spareCups: fc.constantFrom(0, 1),
  })
  .map(({ lights, flakes, sets, spareCups }): ColourOrderInput => {
    const colours = lights.map((light, i) => colour(`c${i}`, light, flakes[i] ? 'flake' : 'gloss'));
    const sessions = sets.map((set, i) => session(`b${i}`, ...new Set(set.map((at) => `c${at % colours.length}`))));
    return { sessions, colours, spareCups };
  });

test('exact against every order there is, cups of their own included', () => {
  fc.assert(
    fc.property(night, (input) => {
      const found = colourOrder(input);
      expect(found.seconds).toBeCloseTo(bruteForce(input), 6);
      expect(found.steps.reduce((sum, step) => sum + step.seconds, 0)).toBeCloseTo(found.seconds, 6);
      expect([...found.order].sort()).toEqual(input.sessions.map((each) => each.id).sort());
    }),
    { numRuns: 60 },
  );
});

// Common practice, no source: light before dark.
test('light before dark, two-colour recipes side by side, a dark cup in light powder is named', () => {
  const colours = [colour('white', 0.95), colour('roe', 0.7), colour('black', 0.1), colour('frost', 0.8, 'flake')];
  const input = {
    sessions: [
      session('dark', 'black'),
      session('two', 'white', 'roe'),
      session('light', 'white'),
      session('ice', 'white', 'frost'),
    ],
    colours,
    spareCups: 0,
  };
  const { order, exact } = colourOrder(input);
  expect(exact).toBe(true);
  expect(order.at(-1)).toBe('dark');
  const wrong = orderCost(input, ['dark', 'light', 'two', 'ice'], []);
  expect(wrong[1]).toMatchObject({ brings: ['white'], dirty: ['white'] });
  expect(wrong.reduce((sum, step) => sum + step.seconds, 0)).toBeGreaterThan(colourOrder(input).seconds);
  expect(changeS(colour('f', 0.5, 'metallic'), colour('p', 0.5))).toBeGreaterThan(
    changeS(colour('p', 0.5), colour('q', 0.5)),
  );
});

test('beyond twelve it is good: within a tenth of the best known order of a plain row of greys', () => {
  const colours = Array.from({ length: 30 }, (_, i) => colour(`g${i}`, ((i * 17) % 30) / 30));
  const input = { sessions: colours.map((each, i) => session(`b${i}`, each.id)), colours, spareCups: 0 };
  const found = colourOrder(input);
  const light = [...input.sessions].sort(
    (a, b) =>
      colours.find((c) => c.id === b.colourIds[0])!.lightness - colours.find((c) => c.id === a.colourIds[0])!.lightness,
  );
  const best = orderCost(
    input,
    light.map((each) => each.id),
    [],
  ).reduce((sum, step) => sum + step.seconds, 0);
  expect(found.exact).toBe(false);
  expect(found.seconds).toBeLessThanOrEqual(1.1 * best);
});

test('lightness: white, black, middle grey of CIE L* 50', () => {
  expect(lightnessOf('#ffffff')).toBeCloseTo(1, 6);
  expect(lightnessOf('#000000')).toBe(0);
  expect(lightnessOf('#777777')).toBeCloseTo(0.5, 2); // CIE 15: L* 50 is sRGB 119
  expect(() => lightnessOf('red')).toThrow(/six hexadecimal digits/);
});

test('what cannot be ordered is said', () => {
  expect(() => colourOrder({ sessions: [], colours: [], spareCups: 0 })).toThrow('sessions is 0; allowed: 1 to 60');
  expect(() => colourOrder({ sessions: [session('a', 'x')], colours: [], spareCups: 0 })).toThrow(/colour is x/);
});

describe('many colours, with cups to spare', () => {
  const many = (seed: number, count: number, spareCups: number): ColourOrderInput => ({
    colours: Array.from({ length: count }, (_, i) =>
      colour(`c${i}`, ((i * 11 + seed) % count) / count, i % 5 ? 'gloss' : 'metallic'),
    ),
    sessions: Array.from({ length: count }, (_, i) =>
      session(`b${i}`, ...new Set([`c${i}`, `c${(i * 7 + seed) % count}`])),
    ),
    spareCups,
  });
  const count = (cases: number) => Array.from({ length: cases }, (_, i) => i);
  test.each(count(15).map((i) => i + 10))(
    'of %i recipes a spare cup never costs, each stands once, steps add up',
    (n) => {
      // Exact orders take longer: every seventh seed of theirs; of the others all.
      for (const seed of count(41).filter((i) => n > 12 || i % 7 === 0)) {
        const nights = [0, 1, 2].map((cups) => colourOrder(many(seed, n, cups)));
        nights.forEach((found, cups) => {
          expect(found.seconds).toBeLessThanOrEqual((nights[cups - 1]?.seconds ?? Infinity) + 1e-9);
          expect(found.kept.length).toBeLessThanOrEqual(cups);
          expect(new Set(found.order).size).toBe(n);
          expect(found.steps.reduce((sum, step) => sum + step.seconds, 0)).toBeCloseTo(found.seconds, 6);
          expect(found.exact).toBe(n <= 12 && cups === 0);
        });
      }
    },
  );
  test('what changing takes says step by step what it rests on', () => {
    const found = colourOrder(many(3, 6, 0));
    const figure = changingFigure(found.steps, (id) => `recipe ${id}`);
    expect(figure.value).toBeCloseTo(found.seconds, 6);
    expect(figure.why.inputs.map((input) => input.label)).toEqual(found.order.map((id) => `recipe ${id}`));
    expect(figure).toMatchObject({ basis: 'given', why: { source: 'Common practice, no source' } });
    expect(figure.low!).toBeLessThan(figure.value);
  });
});
