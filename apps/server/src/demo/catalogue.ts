import type { BakeProgram, MaterialInput, MoldInput, RecipeInput, Settings } from '@schmelz/contract';
import { DEFAULT_SETTINGS } from '@schmelz/contract';
import type { WorldOven } from '@schmelz/worlds';
import { AS_CUT, type HookSize, type StyleId } from '@schmelz/core';

/** The invented workshop: two people in a harbour town on a cold lake, who cast for perch and pike-perch. */
/** The two who work there. */
export const PEOPLE = ['Runa', 'Tevo'] as const;

export const DEMO_SETTINGS: Settings = {
  ...DEFAULT_SETTINGS,
  workshopName: 'Shed Nine, Quillhaven',
  people: [...PEOPLE],
};

export const CUSTOMERS = ['Tackle shop at the lock', 'Boathouse kiosk', 'Saturday stall'] as const;

const hook = (size: HookSize, eyeAngleDeg: number, plating = 'bronze'): MaterialInput => ({
  kind: 'hook',
  name: `Jig hook ${size} ${plating}, ${eyeAngleDeg}°`,
  note: '',
  metalId: null,
  hook: { size, wire: 'standard', eyeAngleDeg, plating },
  limitC: plating === 'bronze' ? 190 : 205,
  powder: null,
});
const powder = (
  name: string,
  colour: string,
  more: Partial<NonNullable<MaterialInput['powder']>> = {},
): MaterialInput => ({
  kind: 'powder',
  name,
  note: '',
  metalId: null,
  hook: null,
  powder: {
    colour,
    gloss: 'gloss',
    specificGravity: 1.5,
    label: [
      { metalC: 177, seconds: 1200 },
      { metalC: 200, seconds: 600 },
    ],
    ...more,
  },
});

/** For big through-drilled heads: dipped and dried, coat after coat. */
const liquid = (
  name: string,
  colour: string,
  gloss: NonNullable<MaterialInput['powder']>['gloss'],
  hours: number,
): MaterialInput =>
  powder(name, colour, { gloss, specificGravity: 1.2, label: [], form: 'liquid', dryS: 3600 * hours });

export const LEAD: MaterialInput = {
  kind: 'lead',
  name: 'Soft lead, keel and roof',
  note: 'Skimmed twice, cast into ingots of about a pound.',
  metalId: 'soft-lead',
  hook: null,
  powder: null,
};
export const HOOKS: MaterialInput[] = [
  hook('1', 60),
  hook('1/0', 60),
  hook('2/0', 60),
  hook('3/0', 60),
  hook('4/0', 60, 'black'),
];
/** Bought by mistake: they seat only when bent, and some come loose. */
export const WRONG_HOOK = hook('3/0', 45);
export const POWDERS: MaterialInput[] = [
  powder('Gull white', '#ece7d8', { specificGravity: 1.65 }),
  powder('Roe orange', '#dd5f33'),
  powder('Kelp green', '#6d7b35'),
  powder('Peat brown', '#3b2d20'),
  powder('Mussel violet', '#38335f', { gloss: 'metallic', specificGravity: 1.4 }),
  powder('Skim ice', '#c3d9db', { gloss: 'metallic', specificGravity: 1.45 }),
  powder('Slate blue', '#46627a'),
  powder('Buoy red', '#c2362c'),
  powder('Eelgrass', '#b6c547', { label: [{ metalC: 177, seconds: 1200 }] }),
  powder('Frost flake', '#b6cae8', { gloss: 'flake', specificGravity: 1.3 }),
  powder('Tar', '#26282b', { gloss: 'matte', specificGravity: 1.55 }),
  powder('Chalk', '#d9d1bd', { gloss: 'matte', specificGravity: 1.7 }),
  powder('Copper kettle', '#b2683a', { gloss: 'metallic', specificGravity: 1.45 }),
  powder('Clear', '#eef1f2', { gloss: 'clear', specificGravity: 1.2 }),
  liquid('Vinyl primer, white', '#f0eee6', 'matte', 3),
  liquid('Vinyl, signal yellow', '#e2ae22', 'gloss', 6),
  liquid('Vinyl clear with glitter', '#f3e7b5', 'flake', 12),
];

type LayerOf = {
  powder: string;
  zone: RecipeInput['layers'][number]['zone'];
  coats: number;
  mix?: { powder: string; share: number };
};
const layer = (name: string, zone: LayerOf['zone'], coats = 1): LayerOf => ({ powder: name, zone, coats });
export const RECIPES: { name: string; eyeColour: string | null; layers: LayerOf[] }[] = [
  {
    name: 'Roe on gull',
    eyeColour: null,
    layers: [layer('Gull white', 'whole'), layer('Roe orange', 'back'), layer('Peat brown', 'speckle')],
  },
  { name: 'Peat on kelp', eyeColour: null, layers: [layer('Kelp green', 'whole'), layer('Peat brown', 'back')] },
  {
    name: 'Mussel with frost',
    eyeColour: null,
    layers: [layer('Mussel violet', 'whole', 2), layer('Frost flake', 'flake')],
  },
  { name: 'Slate on ice', eyeColour: '#e2d27c', layers: [layer('Skim ice', 'whole'), layer('Slate blue', 'back')] },
  { name: 'Buoy on gull', eyeColour: '#e8d27a', layers: [layer('Gull white', 'whole'), layer('Buoy red', 'back')] },
  {
    name: 'Eelgrass',
    eyeColour: null,
    layers: [layer('Eelgrass', 'whole'), layer('Kelp green', 'back'), layer('Peat brown', 'speckle')],
  },
  { name: 'Tar', eyeColour: null, layers: [layer('Tar', 'whole')] },
  {
    name: 'Buoy nose on chalk',
    eyeColour: null,
    layers: [layer('Chalk', 'whole'), layer('Buoy red', 'nose'), layer('Peat brown', 'speckle')],
  },
  {
    name: 'Kettle under clear',
    eyeColour: null,
    layers: [layer('Copper kettle', 'whole'), layer('Peat brown', 'back'), layer('Clear', 'whole')],
  },
  {
    name: 'Moss',
    eyeColour: null,
    layers: [{ ...layer('Kelp green', 'whole'), mix: { powder: 'Eelgrass', share: 0.4 } }],
  },
  { name: 'Bare under clear', eyeColour: '#d9a441', layers: [layer('Clear', 'whole')] },
  {
    name: 'Signal yellow, dipped',
    eyeColour: '#efe9d6',
    layers: [
      layer('Vinyl primer, white', 'whole'),
      layer('Vinyl, signal yellow', 'whole', 2),
      layer('Vinyl clear with glitter', 'flake'),
    ],
  },
];

type CavityMore = Partial<MoldInput['cavities'][number]>;
const ladder = (style: StyleId, cavities: [number, HookSize, CavityMore?][]): MoldInput['cavities'] =>
  cavities.map(([grams, hookSize, more], at) => ({
    position: at + 1,
    style,
    nominalMassKg: grams / 1000,
    hookSize,
    eyeAngleDeg: 60,
    condition: 'good',
    ...more,
  }));
/** A slot for a 1/8 inch pin, left out where heads are cast without a guard hole. */
const PIN: CavityMore = {
  pin: { diameterM: 0.003175, lengthM: 0.008 },
  variants: [{ ...AS_CUT, name: 'No hole', pin: 'cut short' }],
};
const GROUND: CavityMore = {
  variants: [
    { ...AS_CUT, name: 'Big hook', grooveFor: '5/0', blocks: [6] },
    { ...AS_CUT, name: 'With keeper', keeper: true },
  ],
};
export const MOLDS: MoldInput[] = [
  {
    name: 'Pebble five',
    bodyKg: 0.5,
    cavities: ladder('ball', [
      [10, '2/0'],
      [10, '2/0'],
      [10, '2/0'],
      [14, '3/0'],
      [14, '3/0'],
    ]),
  },
  {
    name: 'Pebble ladder',
    bodyKg: 0.62,
    cavities: ladder('ball', [
      [5, '1'],
      [7, '1/0'],
      [10, '2/0'],
      [14, '3/0'],
      [18, '4/0', GROUND],
      [21, '4/0'],
    ]),
  },
  {
    name: 'Fry six',
    bodyKg: 0.58,
    sootSchool: 'five',
    cavities: ladder('fish', [
      [7, '1/0'],
      [7, '1/0'],
      [7, '1/0'],
      [14, '3/0'],
      [14, '3/0'],
      [14, '3/0'],
    ]),
  },
  {
    name: 'Capstan four',
    bodyKg: 0.42,
    warmSchool: 'pot top',
    cavities: ladder('mushroom', [
      [7, '1/0', { openBelow: true }],
      [7, '1/0', { openBelow: true }],
      [10, '2/0', { openBelow: true }],
      [10, '2/0', { openBelow: true }],
    ]),
  },
  {
    name: 'Rocker three',
    bodyKg: 0.95,
    metal: 'iron',
    cavities: ladder('football', [
      [14, '3/0', PIN],
      [21, '4/0', PIN],
      [21, '4/0', PIN],
    ]),
  },
];
/** How far each mold is off others of its weight, which its stamp does not say. */
export const MOLD_QUIRKS = [0.4, -0.3, 0.1, -0.6];
/** Fills badly: a burr behind the gate that nobody has found yet. */
export const BAD_CAVITY = { mold: 'Fry six', position: 4, shortShare: 0.34 };

export const PROGRAMS: Omit<BakeProgram, 'id' | 'version'>[] = [
  { name: '177 °C for 28 min, preheated', setC: 177, seconds: 1680, preheated: true },
  { name: '163 °C for 40 min, preheated', setC: 163, seconds: 2400, preheated: true },
  { name: '177 °C, 20 min from warm metal', setC: 177, seconds: 1200, preheated: true, from: 'metal' },
];
/** What the oven really ran in the month when the timer was set wrong. */
export const UNDER_BAKE = { setC: 150, seconds: 900 };

/** What hangs in the oven: wires across it, and a clamp rack for long heads. */
export const RACKS = [
  { name: 'Eight wires', way: 'hanging', bars: 8, barM: 0.22, clearM: 0.055 },
  { name: 'Clamp of two bars', way: 'upright', bars: 2, barM: 0.26, clearM: 0.16 },
] as const;
/** What the oven really does, which its dial does not say. */
export const TRUE_OVEN: WorldOven = {
  ...{ powerW: 1400, elementJK: 260, airJK: 110, wallsJK: 2200, offK: -6, feelsLateS: 8, swingK: 5, zoneK: 1 },
  ...{ elementToAirWPerK: 1.2, elementToWallsWPerK: 3.2, airToWallsWPerK: 11, wallsToRoomWPerK: 2.7 },
  ...{ elementSeen: 0.1, noiseK: 0.3 },
};
/** Share of the powder that really stays on, where plans reckon with seven tenths. */
export const TRUE_STAYS_ON = 0.61;

const product = (
  name: string,
  style: StyleId,
  grams: number,
  hookSize: HookSize,
  recipe: string,
  priceMinor: number,
  program: number | null = 0,
) => ({ name: `${name} ${grams} g, ${recipe.toLowerCase()}`, style, grams, hookSize, recipe, priceMinor, program });
export const PRODUCTS = [
  product('Pebble', 'ball', 10, '2/0', 'Roe on gull', 195),
  product('Pebble', 'ball', 14, '3/0', 'Roe on gull', 215),
  product('Pebble', 'ball', 10, '2/0', 'Eelgrass', 195),
  product('Pebble', 'ball', 7, '1/0', 'Eelgrass', 180),
  product('Fry', 'fish', 7, '1/0', 'Buoy on gull', 230),
  product('Fry', 'fish', 14, '3/0', 'Slate on ice', 260),
  product('Capstan', 'mushroom', 7, '1/0', 'Peat on kelp', 190),
  product('Capstan', 'mushroom', 10, '2/0', 'Peat on kelp', 205),
  product('Rocker', 'football', 21, '4/0', 'Mussel with frost', 285, 1),
  product('Rocker', 'football', 14, '3/0', 'Mussel with frost', 255),
  // Dipped in liquid paint and dried: never baked.
  product('Rocker', 'football', 21, '4/0', 'Signal yellow, dipped', 320, null),
];
