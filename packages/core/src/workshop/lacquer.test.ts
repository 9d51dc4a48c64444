import { knownProduct } from './product.ts';
import { bakedHead } from '../plan/product.ts';
import { usualRoute } from '../job/route.ts';

// Found from outside: powder and lacquer in one recipe, the powder was skipped and the lacquer went into the oven.
const paint = (id: string, form: 'powder' | 'liquid') => ({
  id,
  name: id,
  kind: 'powder',
  powder: {
    form,
    colour: '#804020',
    specificGravity: 1.4,
    gloss: 'gloss' as const,
    label: form === 'powder' ? [{ metalC: 177, seconds: 1200 }] : [],
    dryS: form === 'liquid' ? 1800 : null,
  },
});
const parts = [paint('Kelp', 'powder'), paint('Clear', 'liquid')];
const layer = (powderId: string) => ({ powderId, zone: 'whole' as const, coats: 1, mix: null });
const of = (layers: string[], route: ReturnType<typeof usualRoute> | null = null) =>
  knownProduct(
    {
      ...{ id: 'p', name: 'Head', style: 'ball', nominalMassKg: 0.01, hookId: null, recipeId: 'r', bakeProgramId: 'b' },
      ...{ route, ways: null, parts: [], fromId: null },
    } as unknown as Parameters<typeof knownProduct>[0],
    {
      part: (id: string) => parts.find((each) => each.id === id),
      recipe: () => ({ id: 'r', name: 'R', layers: layers.map(layer), eyeColour: null }),
      program: () => ({ id: 'b', name: 'B', setC: 177, seconds: 1200, preheated: true }),
    } as unknown as Parameters<typeof knownProduct>[1],
  );
const steps = (product: ReturnType<typeof of>) =>
  product.steps!.map(({ key, layers }) => [key, layers.map(({ powder }) => powder.name)]);

describe('powder and lacquer in one recipe', () => {
  test('the powder is painted and baked, the lacquer comes after the oven', () => {
    expect(steps(of(['Kelp', 'Clear']))).toEqual([
      ['trim', []],
      ['paint', ['Kelp']],
      ['bake', []],
      ['lacquer', ['Clear']],
      ['finish', []],
    ]);
    // What is in the oven is the powder, and nothing that only dries.
    expect(bakedHead(of(['Kelp', 'Clear']))!.laws.map(({ powder }) => powder)).toEqual(['Kelp']);
  });
  test('powder alone, or liquid alone, goes as it went', () => {
    expect(steps(of(['Kelp'])).map(([key]) => key)).toEqual(['trim', 'paint', 'bake', 'finish']);
    expect(steps(of(['Clear'])).map(([key]) => key)).toEqual(['trim', 'paint', 'finish']);
  });
  test('a route of the maker’s own lays on all of it where it says nothing', () => {
    const own = of(['Kelp', 'Clear'], usualRoute({ painted: true, baked: true }));
    expect(steps(own)[1]).toEqual(['paint', ['Kelp', 'Clear']]);
  });
});
