import {
  BENDS,
  checkDetails,
  checkRoute,
  COUNT_FROM,
  cureLaw,
  DEFAULT_WAYS,
  EYE_ANGLES_DEG,
  HOOK_SIZES,
  INSERTS,
  METAL_IDS,
  METAL_KINDS,
  METALS_WANTED,
  FINISH_TASKS,
  LABEL_SHEETS,
  MOST_STEPS,
  PRODUCT_TEMPLATES,
  PAINT_FORMS,
  PART_KINDS,
  MOLD_METALS,
  AS_CUT,
  castAs,
  PIN_WAYS,
  POT_WAYS,
  RACK_WAYS,
  SOOT_SCHOOLS,
  stepStations,
  STYLE_IDS,
  WARM_SCHOOLS,
  WIRES,
  ZONE_SHARE,
} from '@schmelz/core';
import type { CavityVariant, LabelPoint, PaintZone, RouteStep, VariantCavity } from '@schmelz/core';
import * as yup from 'yup';
import {
  across,
  angle,
  choice,
  colour,
  day,
  flag,
  id,
  judgedByCore,
  list,
  moment,
  note,
  number,
  record,
  text,
  whole,
} from './field.ts';
import { priceLineSchema } from './shop.ts';
import { schoolsSchema, waysSchema } from './ways.ts';

/** The way in, where a password is set. */
export const loginSchema = record({ password: yup.string().required().max(200) });

export const settingsSchema = record({
  workshopName: text(60),
  massUnit: choice(['g', 'oz'] as const),
  temperatureUnit: choice(['C', 'F'] as const),
  currency: yup
    .string()
    .required()
    .matches(/^[A-Z]{3}$/)
    .test('currency', 'is no ISO 4217 code', (code) => isCurrency(code))
    .meta({ allowed: 'a currency code of three letters, such as EUR' }),
  ways: waysSchema,
  /** Ticked once before a pour, in the maker's own words. */
  safety: list(text(80), 0, 20),
  /** What a head of second grade is worth against a good one, its part of what a ticket cost; left out: as usual. */
  secondGradeShare: number('', 0, 1).optional(),
  /** Who works here; with two or more, benches ask who stands at them. Left out: nobody is asked. */
  people: list(text(40), 0, 8)
    .test('people', 'names somebody twice', (names) => new Set(names).size === (names ?? []).length)
    .meta({ allowed: 'each name once' })
    .optional(),
  /** Taxes, fees and shares that are put on a price, as the maker has to; left out: none. */
  priceLines: list(priceLineSchema, 0, 12).optional(),
  /** What is on the labels of bags beside the product: left out, as usual. */
  labels: record({
    care: text(100),
    line: note(80),
    perBag: whole('heads', 1, 1000),
    sheet: choice(LABEL_SHEETS.map(({ id: sheet }) => sheet)),
  })
    .optional()
    .default(undefined),
});
export type Settings = yup.InferType<typeof settingsSchema>;

function isCurrency(code: string): boolean {
  try {
    new Intl.NumberFormat('en', { style: 'currency', currency: code });
    return true;
  } catch {
    return false;
  }
}

export const DEFAULT_SETTINGS: Settings = {
  workshopName: 'My workshop',
  massUnit: 'g',
  temperatureUnit: 'C',
  currency: 'EUR',
  ways: { ...DEFAULT_WAYS },
  safety: [
    'Fan on, door open',
    'Eyes and face covered, sleeves down',
    'Gloves at hand',
    'Mold, tools and metal dry',
    'No water near the melt',
    'Children and food away',
  ],
};

export const PIN_KINDS = [
  'base-hole pin',
  'shortened pin',
  'plug',
  'wire keeper',
  'wire guard',
  'pull-out rod',
  'other',
] as const;
export const POWDER_GLOSSES = ['gloss', 'matte', 'metallic', 'flake', 'clear'] as const;

const hookDetails = record({
  size: choice(HOOK_SIZES),
  wire: choice(WIRES),
  eyeAngleDeg: angle(EYE_ANGLES_DEG),
  plating: text(40),
  bend: choice(BENDS).optional(),
  /** Measured with a ruler; where they are given they outrank what the size number stands for. */
  lengthM: number('m', 0.005, 0.15).nullable().optional(),
  wireM: number('m', 0.0002, 0.005).nullable().optional(),
  /** One hook, by weighing ten. */
  massKg: number('kg', 0.00002, 0.05).nullable().optional(),
});
/** What a hard lead is made of, and how that is known. */
const compositionSchema = record({
  antimonyPercent: number('%', 0, 11.1),
  tinPercent: number('%', 0, 5),
  brinell: number('BHN', 3, 22).nullable().defined(),
});
const labelPoint = record({ metalC: number('C', 80, 260), seconds: whole('s', 30, 14_400) });
const powderDetails = record({
  colour: colour(),
  /** How it looks once it has flowed. */
  gloss: choice(POWDER_GLOSSES),
  specificGravity: number('', 0.8, 3),
  /** What the jar says of the cure; empty for liquid paint. */
  label: list(labelPoint, 0, 2),
  form: choice(PAINT_FORMS).optional(),
  /** Wait before the next coat of liquid paint. */
  dryS: whole('s', 60, 604_800).nullable().optional(),
})
  .test(
    across(
      'cure',
      'must have the cure of its label where it is a powder, and its wait where it is liquid',
      ({ form, label, dryS }: { form?: string; label: LabelPoint[]; dryS?: number | null }) =>
        form === 'liquid' ? label.length === 0 && !!dryS : label.length > 0,
    ),
  )
  .test(
    judgedByCore('label', (paint: { label?: LabelPoint[] | undefined }) => paint.label?.length && cureLaw(paint.label)),
  );

/** What is known of a part beyond its name, by the fields of its kind. */
const partDetails = () =>
  yup.mixed<Record<string, number>>().nullable().optional().meta({ allowed: 'the figures of its kind, by name' });

export const materialSchema = record({
  kind: choice(PART_KINDS.map((kind) => kind.id)),
  name: text(),
  /** Put away: off the lists and out of every plan, its records stay. */
  archived: flag().nullable().optional(),
  note: note(),
  /** The heat it stands: above it a plating browns, a skirt shrivels. Null or left out: not known. */
  limitC: number('C', 40, 400).nullable().optional(),
  details: partDetails(),
  metalId: choice(METAL_IDS).nullable().defined(),
  composition: compositionSchema.nullable().optional(),
  hook: hookDetails.nullable().defined(),
  powder: powderDetails.nullable().defined(),
})
  .test('across details', 'must give the details of its kind, and only those', (material) => {
    const { kind, metalId, hook, powder } = material ?? {};
    return (kind === 'lead') === !!metalId && (kind === 'hook') === !!hook && (kind === 'powder') === !!powder;
  })
  .test(
    judgedByCore('details', ({ kind, details }: { kind: string; details?: Record<string, number> | null }) =>
      checkDetails(kind, details),
    ),
  );
export type MaterialInput = yup.InferType<typeof materialSchema>;

/** One of the things that a cavity can cast, beside what it was cut for. */
export const variantSchema = record({
  name: text(40),
  pin: choice(PIN_WAYS),
  grooveFor: choice(HOOK_SIZES).nullable().defined(),
  blocks: list(whole('', 1, 12), 0, 11),
  keeper: flag(),
  wireGuards: whole('', 0, 2),
  insert: choice(INSERTS),
});

/** What a cavity is cast as, with its pin and inserts, leaves metal for a head. */
const leavesMetal = (cavity: VariantCavity & { variants?: CavityVariant[]; keeper?: boolean }) => {
  for (const variant of [{ ...AS_CUT, keeper: cavity.keeper ?? false }, ...(cavity.variants ?? [])]) {
    castAs({ ...cavity, pin: cavity.pin ?? null }, variant);
  }
};

export const cavitySchema = record({
  /** Of a cavity that is there already: its record goes with it, wherever it stands. Left out: a new one. */
  id: id().optional(),
  position: whole('', 1, 12),
  style: choice(STYLE_IDS),
  nominalMassKg: number('kg', 0.0003, 0.5),
  hookSize: choice(HOOK_SIZES),
  eyeAngleDeg: angle(EYE_ANGLES_DEG),
  condition: choice(['good', 'blocked'] as const),
  bend: choice(BENDS).optional(),
  wire: choice(WIRES).optional(),
  pin: record({ diameterM: number('m', 0.0005, 0.01), lengthM: number('m', 0.001, 0.06) })
    .nullable()
    .optional(),
  keeper: flag().optional(),
  openBelow: flag().optional(),
  variants: list(variantSchema, 0, 6).optional(),
}).test(judgedByCore('cavity', leavesMetal));

const learned = { readings: whole('readings', 1, 1e9), at: moment() };
/** Fitted to this mold's own readings. */
const moldLearned = record({
  lossWPerK: number('W/K', 0.01, 10),
  /** Not kept by fits of before, which knew of none: 0. */
  lossPower: number('', 0, 1).optional(),
  lossPowerSd: number('', 0, 1).optional(),
  aboveK: number('K', 1, 400).optional(),
  lossSdWPerK: number('W/K', 0, 10),
  capacityShare: number('share', 0.3, 2),
  capacitySdShare: number('share', 0, 2),
  ...learned,
});
/** Fitted to this pot's own readings. */
const potLearned = record({
  powerW: number('W', 50, 5000),
  powerSdW: number('W', 0, 5000),
  lossWPerK: number('W/K', 0.01, 10),
  lossSdWPerK: number('W/K', 0, 10),
  /** Left out in what was learned before crucibles were reckoned with. */
  crucibleJPerK: number('J/K', 0, 20_000).optional(),
  crucibleSdJPerK: number('J/K', 0, 20_000).optional(),
  ...learned,
});

export const moldSchema = record({
  name: text(),
  /** Put away: off the lists and out of every plan, its records stay. */
  archived: flag().nullable().optional(),
  bodyKg: number('kg', 0.1, 10),
  /** Metal over the gates of a blank shot, weighed; null or left out: as usual. */
  barKg: number('kg', 0, 0.5).nullable().optional(),
  /** The maker's own count from the pour until it is opened; null or left out: by how it freezes. */
  ownOpenS: number('s', 0.5, 600).nullable().optional(),
  metal: choice(MOLD_METALS).optional(),
  sootSchool: choice(SOOT_SCHOOLS.map((school) => school.id)).optional(),
  warmSchool: choice(WARM_SCHOOLS).optional(),
  /** The only metal it sees; null or left out: any. */
  keptFor: choice(METAL_KINDS).nullable().optional(),
  learned: moldLearned.nullable().optional(),
  cavities: list(cavitySchema, 1, 12).test(
    across('positions', 'must number its cavities 1, 2, 3 and so on, each once', (cavities: { position: number }[]) =>
      cavities.every((cavity, at) => cavity.position === at + 1),
    ),
  ),
});
export type MoldInput = yup.InferType<typeof moldSchema>;

export const potSchema = record({
  name: text(),
  capacityKg: number('kg', 0.3, 50),
  powerW: number('W', 50, 5000),
  lossWPerK: number('W/K', 0.05, 5),
  /** How it is poured from; left out: by its bottom spout. */
  way: choice(POT_WAYS.map(({ id: way }) => way))
    .nullable()
    .optional(),
  learned: potLearned.nullable().optional(),
});
export type PotInput = yup.InferType<typeof potSchema>;
/** Pins, plugs and keepers are few and go round. */
export const partSchema = record({
  name: text(60),
  kind: choice(PIN_KINDS),
  diameterM: number('m', 0.0003, 0.01).nullable().defined(),
  owned: whole('pieces', 0, 10_000),
  places: list(record({ where: text(60), count: whole('pieces', 1, 10_000) }), 0, 20),
}).test(
  across(
    'places',
    'has more pieces in its places than are owned',
    ({ places, owned }: { places: { count: number }[]; owned: number }) =>
      places.reduce((sum, place) => sum + place.count, 0) <= owned,
  ),
);
export type PartInput = yup.InferType<typeof partSchema>;
/** As the maker built it: bars across the oven, heads side by side on each. */
const rackSchema = () =>
  record({
    name: text(40),
    way: choice(RACK_WAYS),
    bars: whole('bars', 1, 40),
    barM: number('m', 0.05, 2),
    clearM: number('m', 0.02, 1),
  });
/** Fitted to an empty run with a probe in it. */
const ovenLearned = record({
  lagS: number('s', 1, 3600),
  lagSdS: number('s', 0, 3600),
  /** Not known of runs that were learned before it was looked for. */
  powerRiseK: number('K', 50, 3000).optional(),
  overshootK: number('K', 0, 120).optional(),
  offsetK: number('K', -80, 80),
  offsetSdK: number('K', 0, 80),
  swingK: number('K', 0, 80),
  periodS: number('s', 1, 7200).nullable().defined(),
  setC: number('C', 60, 260),
  ...learned,
});
export const ovenSchema = record({
  name: text(),
  places: whole('', 1, 2000),
  powerW: number('W', 100, 20_000),
  lagS: number('s', 1, 3600),
  racks: list(rackSchema(), 0, 8).nullable().optional(),
  learned: ovenLearned.nullable().optional(),
});
export type OvenInput = yup.InferType<typeof ovenSchema>;

export const recipeSchema = record({
  name: text(),
  layers: list(
    record({
      powderId: id(),
      zone: choice(Object.keys(ZONE_SHARE) as PaintZone[]),
      coats: whole('coats', 1, 3),
      /** Shaken together with another powder. */
      mix: record({ powderId: id(), share: number('share', 0.05, 0.95) })
        .nullable()
        .optional(),
    }),
    0,
    6,
  ),
  eyeColour: colour().nullable().defined(),
}).test(
  across(
    'something',
    'must have a layer or an eye: bare lead alone needs no recipe',
    ({ layers, eyeColour }: { layers: unknown[]; eyeColour: string | null }) => layers.length > 0 || !!eyeColour,
  ),
);
export type RecipeInput = yup.InferType<typeof recipeSchema>;

export const bakeProgramSchema = record({
  name: text(),
  setC: number('C', 60, 260),
  seconds: whole('s', 60, 14_400),
  preheated: flag(),
  from: choice(COUNT_FROM).optional(),
});

export type BakeProgramInput = yup.InferType<typeof bakeProgramSchema>;

/** A step of a route, as a maker writes it. */
export const routeStepSchema = record({
  key: text(40),
  station: choice(stepStations().map((station) => station.id)),
  does: text(60),
  recipeId: id().nullable().optional(),
  only: choice(PAINT_FORMS).nullable().optional(),
  programId: id().nullable().optional(),
  task: choice(FINISH_TASKS.map(({ id: task }) => task))
    .nullable()
    .optional(),
  school: text(40).nullable().optional(),
  handsS: number('s', 0, 3600).nullable().optional(),
  wait: record({ name: text(40), seconds: whole('s', 1, 1_209_600) })
    .nullable()
    .optional(),
});

/** A line of a bill: a part, how much a head takes of it, and the step that uses it (`pour`: cast in). */
export const billLineSchema = record({
  partId: id(),
  quantity: number('of its unit a head', 0.000001, 1000),
  waste: number('share', 0, 5),
  step: text(40),
});

export const putAwaySchema = record({
  kind: choice(['materials', 'molds', 'products'] as const),
  id: id(),
  archived: flag(),
});
export type PutAwayInput = yup.InferType<typeof putAwaySchema>;

export const productSchema = record({
  name: text(),
  /** Put away: off the lists and out of every plan, its records stay. */
  archived: flag().nullable().optional(),
  style: choice(STYLE_IDS),
  nominalMassKg: number('kg', 0.0003, 0.5),
  /** Null: no hook is cast in. */
  hookId: id().nullable().defined(),
  /** What its cavity is cast as, by the variant's name; null or left out: as cut. */
  variant: text(40).nullable().optional(),
  /** What it is cast in; null or left out: the usual metal, or what its molds are kept for. */
  metal: choice(METALS_WANTED).nullable().optional(),
  recipeId: id().nullable().defined(),
  bakeProgramId: id().nullable().defined(),
  /** Its own ways where they differ from the house's. */
  ways: schoolsSchema().nullable().optional(),
  /** Its steps in order; null or left out: trim, paint, bake and finish as far as it is painted and baked. */
  route: list(routeStepSchema, 1, MOST_STEPS)
    .nullable()
    .optional()
    .test(judgedByCore('route', (route: RouteStep[]) => checkRoute(route))),
  parts: list(billLineSchema, 0, 40).optional(),
  /** Bare or used heads that it starts from, instead of a pour. */
  fromId: id().nullable().optional(),
  /** Bare heads on the shelf that its finished heads become; null or left out: they are sold. */
  becomesId: id().nullable().optional(),
  /** How many finished ones are to lie on the shelf; null or left out: none beyond what is ordered. */
  keepHeads: whole('heads', 0, 20_000).nullable().optional(),
  priceMinor: whole('minor units', 0, 100_000_000).nullable().defined(),
});
export type ProductInput = yup.InferType<typeof productSchema>;

/** A product that the trade knows, taken as it is: its parts are put on the shelf where they are not there yet. */
export const takeTemplateSchema = record({
  template: choice(PRODUCT_TEMPLATES.map(({ id: template }) => template)),
  name: text().optional(),
  hookId: id().nullable().optional(),
  recipeId: id().nullable().optional(),
  bakeProgramId: id().nullable().optional(),
});
export type TakeTemplateInput = yup.InferType<typeof takeTemplateSchema>;

/** More than this in one line is a slip of the keyboard. */
export const MOST_HEADS = 20_000;
/** A list that a maker still reads; as many tickets can be poured in one go. */
export const MOST_LINES = 500;
export const orderSchema = record({
  /** For whom; empty: for the shelf. */
  customer: note(80),
  dueOn: day().nullable().defined(),
  note: note(),
  lines: list(record({ productId: id(), quantity: whole('heads', 1, MOST_HEADS) }), 1, MOST_LINES).test(
    across('once', 'must name each product once', (lines: { productId: string }[]) => {
      return new Set(lines.map((line) => line.productId)).size === lines.length;
    }),
  ),
});
export type OrderInput = yup.InferType<typeof orderSchema>;
