import { cavity, product, workshop } from '../test/workshop.ts';
import { AS_CUT } from '../mold/variants.ts';
import { allocate, casts, castingProblem, moldsCasting, shotsOf } from './allocate.ts';
import type { PlanMold } from './types.ts';

const mold = (id: string, cavities: PlanMold['cavities']): PlanMold => ({
  id,
  name: id,
  bodyKg: 0.5,
  shotsSinceSmoked: 0,
  cavities,
});

describe('which cavity casts what', () => {
  test('the same head, open, with a hook that seats as cut or when it is bent', () => {
    expect(casts(cavity(1, 10), product(10))).toBe(true);
    expect(casts(cavity(1, 10.05), product(10))).toBe(true);
    expect(casts(cavity(1, 10.5), product(10))).toBe(false);
    expect(casts(cavity(1, 10, { style: 'fish' }), product(10))).toBe(false);
    expect(casts(cavity(1, 10, { condition: 'blocked' }), product(10))).toBe(false);
    const bent = product(10, { hook: { ...product(10).hook!, eyeAngleDeg: 45 } });
    expect(casts(cavity(1, 10), bent)).toBe(true);
    // A larger hook needs its groove ground out first: not tonight.
    const larger = product(10, { hook: { ...product(10).hook!, size: '3/0' } });
    expect(casts(cavity(1, 10), larger)).toBe(false);
    expect(castingProblem(larger, [mold('m', [cavity(1, 10)])])).toMatch(/groove for 2\/0 must be ground out/);
  });

  test('what the maker has tried outranks the estimate, both ways; a groove that was ground out counts as cut', () => {
    const larger = product(10, { hook: { ...product(10).hook!, materialId: 'large', size: '3/0' } });
    const tried = (seats: boolean) => cavity(1, 10, { tried: { large: seats, 'hook-2/0': seats } });
    expect(casts(tried(true), larger)).toBe(true);
    expect(casts(tried(false), product(10))).toBe(false);
    expect(castingProblem(product(10), [mold('m', [tried(false)])])).toMatch(
      /it was tried, and the mold did not close/,
    );
    const ground = cavity(1, 10, { variants: [{ ...AS_CUT, name: 'Ground out', grooveFor: '3/0' }] });
    expect(casts(ground, larger)).toBe(true);
    expect(casts(ground, product(10))).toBe(true);
    // Heavy wire holds a mold open that is cut for standard: the fit finder and the plan say the same.
    const heavy = product(10, { hook: { ...product(10).hook!, wire: 'heavy' } });
    expect(casts(cavity(1, 10), heavy)).toBe(false);
    expect(casts(cavity(1, 10, { wire: 'heavy' }), heavy)).toBe(true);
  });
  test('one rule of which mold is taken: the one with most cavities that cast it', () => {
    const [few, many] = [mold('few', [cavity(1, 10)]), mold('many', [cavity(1, 10), cavity(2, 10)])];
    const none = mold('none', [cavity(1, 14)]);
    expect(
      moldsCasting(product(10), [none, few, many]).map(({ mold: each, cavities }) => [each.id, cavities.length]),
    ).toEqual([
      ['many', 2],
      ['few', 1],
    ]);
  });

  test('no mold at all is a problem too', () => {
    expect(castingProblem(product(10), [])).toMatch(/there is none of this style/);
    expect(allocate(workshop().lines, [])).toEqual([]);
  });
});

describe('which mold', () => {
  const few = mold('few', [cavity(1, 10)]);
  const many = mold('many', [cavity(1, 10), cavity(2, 10), cavity(3, 10, { condition: 'blocked' })]);

  test('the one with most fitting cavities', () => {
    const [only] = allocate([{ product: product(10), quantity: 20 }], [few, many]);
    expect(only!.mold.id).toBe('many');
    expect(only!.kinds[0]!.cavities.map(({ position }) => position)).toEqual([1, 2]);
  });

  test('the same blank in two colours is cast together, another head in a mold of its own', () => {
    const green = product(10, { id: 'green', name: 'Green' });
    const heavy = mold('heavy', [cavity(1, 14), cavity(2, 14)]);
    const lines = [
      { product: product(10), quantity: 20 },
      { product: green, quantity: 10 },
      { product: product(14), quantity: 6 },
    ];
    const pours = allocate(lines, [many, heavy]);
    expect(pours.map(({ mold: { id } }) => id)).toEqual(['many', 'heavy']);
    expect(pours[0]!.kinds).toHaveLength(1);
    expect(pours[0]!.kinds[0]!.kind.wanted).toBe(30);
  });

  test('a cavity with many shorts on record wants more shots', () => {
    const shots = (good: number, tried: number) =>
      shotsOf(
        allocate([{ product: product(10), quantity: 40 }], [mold('m', [cavity(1, 10, { good, casts: tried })])])[0]!,
      );
    expect(shots(150, 200)).toBeGreaterThan(shots(198, 200));
  });
});
