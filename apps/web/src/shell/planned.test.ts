import {
  coolDownS,
  knownOven,
  knownProduct,
  schoolsFollowed,
  usualRoute,
  type Schools,
  type Shelf,
} from '@schmelz/core';
import type { Product, Recipe } from '@schmelz/contract';
import { ids, keptProduct, materials, products, recipes } from '../test/fixtures.ts';
import type { Catalogue } from './catalogue.ts';
import { cautionsOf, checksOf, needsOf } from '../counting/words.ts';
import { layersInWords, plannedProduct } from './planned.ts';
import { liquidCoats } from '../stations/paint/LiquidCoats.tsx';

const clear = {
  ...materials.find((each) => each.id === ids.white)!,
  id: 'clear',
  name: 'Clear',
  powder: {
    colour: '#eeeeee',
    gloss: 'clear' as const,
    specificGravity: 1.2,
    label: [{ metalC: 177, seconds: 1200 }],
  },
};
const vinyl = {
  ...clear,
  id: 'vinyl',
  name: 'Vinyl',
  powder: {
    colour: '#e2ae22',
    gloss: 'gloss' as const,
    specificGravity: 1.2,
    label: [],
    form: 'liquid' as const,
    dryS: 7200,
  },
};
const shelf: Shelf = {
  part: (id) => [...materials, clear, vinyl].find((each) => each.id === id),
  recipe: (id) => recipes.find((each) => each.id === id),
  program: () => undefined,
};
const catalogue = {
  materials: new Map([...materials, clear, vinyl].map((each) => [each.id, each])),
  recipes: new Map(recipes.map((each) => [each.id, each])),
  programs: new Map(),
  product: (id: string) => products.find((each) => each.id === id),
  known: (product: Product) => knownProduct(product, shelf),
  knownIn: (product: Product, recipe: Pick<Recipe, 'layers'>) => knownProduct(product, shelf, recipe),
} as unknown as Catalogue;
const layer = (powderId: string, more = {}) => ({ powderId, zone: 'whole' as const, coats: 1, ...more });

describe('a recipe in words', () => {
  const words = (layers: ReturnType<typeof layer>[], eyeColour: string | null = null) =>
    layersInWords({ layers, eyeColour }, catalogue);
  test('layers in the order in which they are laid on, with coats, zones and mixtures', () => {
    expect(words([layer(ids.white, { coats: 2 }), layer(ids.orange, { zone: 'nose' })])).toBe(
      'Gull white, 2 coats, Roe orange on the nose',
    );
    expect(words([layer(ids.white, { mix: { powderId: ids.orange, share: 0.4 } })])).toBe(
      'Gull white with 40 % Roe orange',
    );
  });
  test('lead that shows is said', () => {
    expect(words([], '#e2d27c')).toBe('bare lead, eyes');
    expect(words([layer('clear')])).toBe('bare lead, Clear');
    expect(words([layer(ids.orange, { zone: 'back' })])).toBe('bare lead, Roe orange on the back');
    expect(words([layer('gone')])).toBe('a powder that is gone');
  });
});

describe('a product as the core reckons with it', () => {
  const [painted, bare] = products as [(typeof products)[number], (typeof products)[number]];
  test('in its own paint, in another recipe’s, or bare', () => {
    expect(plannedProduct(painted, catalogue).layers.map(({ powder }) => powder.name)).toEqual([
      'Gull white',
      'Roe orange',
    ]);
    expect(plannedProduct(bare, catalogue).layers).toEqual([]);
    const [only] = plannedProduct(painted, catalogue, { layers: [layer('vinyl')] }).layers;
    expect(only!.powder).toMatchObject({ form: 'liquid', dryS: 7200, label: [] });
  });
  test('liquid coats are counted through all layers, powder has none', () => {
    const route = usualRoute({ painted: true, baked: true });
    expect(liquidCoats(keptProduct(painted.id, route), 'paint')).toEqual([]);
    const layers = [layer('vinyl', { coats: 2 }), layer('vinyl')];
    const dipped = keptProduct(painted.id, route, { ...shelf, recipe: () => ({ ...recipes[0]!, layers }) });
    expect(liquidCoats(dipped, 'paint').map(({ coat, dryS }) => [coat, dryS])).toEqual([
      [1, 7200],
      [2, 7200],
      [3, 7200],
    ]);
  });
  test('a hot head cools longer than a warm one; an oven is what it was taught', () => {
    expect(coolDownS(painted, 177)).toBeGreaterThan(coolDownS(painted, 90));
    expect(coolDownS(painted, 20)).toBe(0);
    const oven = { id: 'o', version: 1, name: 'O', places: 60, powerW: 1000, lagS: 180 };
    const learned = {
      lagS: 210,
      lagSdS: 4,
      offsetK: -4,
      offsetSdK: 1,
      swingK: 3,
      periodS: null,
      setC: 177,
      readings: 300,
      at: 1,
    };
    expect(knownOven(oven)).toMatchObject({ lagS: 180, offsetK: 0, basis: 'given' });
    expect(knownOven({ ...oven, learned })).toMatchObject({ lagS: 210, offsetK: -4, swingK: 3, basis: 'fitted' });
    expect(knownOven(undefined).lagS).toBeGreaterThan(0);
  });
});

describe('what a station says of the ways that are followed', () => {
  const ways = (own: Partial<Schools>) => schoolsFollowed(null, own);
  test('cautions come from the ways: dust where it is filed, a flame where there is one', () => {
    expect(cautionsOf('trim', ways({ edge: 'file' })).join(' ')).toMatch(/Filings are lead/);
    expect(cautionsOf('trim', ways({ edge: 'nothing' })).join(' ')).not.toMatch(/Filings/);
    expect(cautionsOf('paint', ways({ tool: 'torch' })).join(' ')).toMatch(
      /No open flame near a cloud of powder: it flashes/,
    );
    expect(cautionsOf('paint', ways({ after: 'water' })).join(' ')).toMatch(/water and melted lead explode/);
    expect(cautionsOf('bake', ways({}))).toEqual(['An oven that bakes powder never bakes food again. Ventilate.']);
  });
  test('checks and what lies ready too, each once', () => {
    expect(checksOf('trim', ways({ sprue: 'wiggle', edge: 'nothing' }))).toEqual([
      'The hook does not turn; no dent in the lead',
      'No sharp edge: it cuts the line',
    ]);
    expect(needsOf('trim', ways({ edge: 'disc' }))).toEqual(['side cutters', 'disc', 'eye cover', 'dust mask']);
    expect(needsOf('paint', ways({ loose: 'bed', tool: 'torch' }))).toEqual(
      expect.arrayContaining(['torch', 'air pump']),
    );
    expect(checksOf('finish', ways({}))).toEqual([]);
  });
});
