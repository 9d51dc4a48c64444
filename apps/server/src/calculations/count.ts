import * as core from '@schmelz/core';
import { choice, flag, list, number, record, text, whole } from '@schmelz/contract/field';
import { waysSchema } from '@schmelz/contract';
import { calculation, label, nominalMassKg } from './calculation.ts';

const style = () => choice(core.STYLE_IDS);
const powder = () =>
  record({
    materialId: text(60),
    name: text(),
    specificGravity: number('', 0.5, 5),
    label: label(),
    form: choice(core.PAINT_FORMS).optional(),
    dryS: number('s', 0, 604_800).optional(),
  });
const layer = () =>
  record({
    powder: powder(),
    zone: choice(Object.keys(core.ZONE_SHARE) as core.PaintZone[]),
    coats: whole('coats', 1, 3),
    mix: record({ powder: powder(), share: number('share', 0.05, 0.95) })
      .nullable()
      .optional(),
  });
const bake = () =>
  record({
    name: text(),
    setC: number('C', 60, 260),
    seconds: whole('s', 60, 14_400),
    preheated: flag(),
    from: choice(core.COUNT_FROM).optional(),
  })
    .nullable()
    .defined();
const product = () =>
  record({
    id: text(60),
    name: text(),
    style: style(),
    nominalMassKg: nominalMassKg(),
    hook: record({
      materialId: text(60),
      name: text(),
      size: choice(core.HOOK_SIZES),
      eyeAngleDeg: number('degrees', 0, 180),
      massKg: number('kg', 0, 0.1),
      wire: choice(core.WIRES).optional(),
      bend: choice(core.BENDS).optional(),
      lengthM: number('m', 0.005, 0.2).nullable().optional(),
      wireM: number('m', 0.0002, 0.005).nullable().optional(),
      limitC: number('C', 40, 400).nullable().optional(),
    })
      .nullable()
      .defined(),
    layers: list(layer(), 0, 5),
    bake: bake(),
    /** Its route with what each step takes; trim, paint, bake and finish as far as it has them where none is given. */
    steps: list(
      record({
        key: text(30),
        station: choice(core.stepStations().map((station) => station.id)),
        does: text(60),
        handsS: number('s', 0, 36_000).nullable().optional(),
        wait: record({ name: text(30), seconds: number('s', 0, 2_592_000) })
          .nullable()
          .optional(),
        layers: list(layer(), 0, 5),
        bake: bake(),
      }),
      1,
      core.MOST_STEPS,
    ).optional(),
    parts: list(
      record({
        partId: text(60),
        name: text(),
        kind: choice(core.PART_KINDS.map((kind) => kind.id)),
        quantity: number('', 0, 1000),
        waste: number('share', 0, 1),
        step: text(30),
        limitC: number('C', 40, 400).nullable().defined(),
      }),
      0,
      20,
    ).optional(),
    source: choice(['pour', 'shelf'] as const).optional(),
  });
const cavity = () =>
  record({
    id: text(60),
    position: whole('', 1, 12),
    style: style(),
    nominalMassKg: nominalMassKg(),
    hookSize: choice(core.HOOK_SIZES),
    eyeAngleDeg: number('degrees', 0, 180),
    condition: choice(['good', 'blocked'] as const),
    wire: choice(core.WIRES).optional(),
    bend: choice(core.BENDS).optional(),
    good: whole('heads', 0, 1e9),
    casts: whole('heads', 0, 1e9),
  });
const onHand = () =>
  record({
    materialId: text(60),
    name: text(),
    kind: choice(core.PART_KINDS.map((kind) => kind.id)),
    quantity: number('kg or pieces', 0, 1e6),
    priceMinor: number('minor units', 0, 1e8).nullable().defined(),
    priced: choice(core.PRICED).optional(),
  });
/** Everything a plan looks at, as it is read from the workshop. */
const planInput = () =>
  record({
    lines: list(record({ product: product(), quantity: whole('heads', 1, 20_000) }), 1, 20),
    molds: list(
      record({
        id: text(60),
        name: text(),
        bodyKg: number('kg', 0.05, 20),
        barKg: number('kg', 0, 0.5).nullable().optional(),
        shotsSinceSmoked: whole('shots', 0, 100_000),
        eveningSpread: number('share', 0, 0.5).optional(),
        cavities: list(cavity(), 1, 12),
      }),
      1,
      50,
    ),
    pot: record({
      name: text(),
      capacityKg: number('kg', 0.3, 50),
      powerW: number('W', 50, 5000),
      lossWPerK: number('W/K', 0.05, 5),
      crucibleJPerK: number('J/K', 0, 20_000).optional(),
      way: choice(core.POT_WAYS.map(({ id }) => id)).optional(),
    }),
    oven: record({
      name: text(),
      places: whole('', 1, 2000),
      powerW: number('W', 100, 20_000),
      lagS: number('s', 1, 3600),
      racks: list(
        record({
          name: text(40),
          way: choice(core.RACK_WAYS),
          bars: whole('bars', 1, 40),
          barM: number('m', 0.05, 2),
          clearM: number('m', 0.02, 1),
        }),
        0,
        8,
      )
        .nullable()
        .optional(),
      learned: record({
        lagS: number('s', 1, 3600),
        offsetK: number('K', -80, 80),
        swingK: number('K', 0, 80),
        powerRiseK: number('K', 50, 3000).optional(),
        overshootK: number('K', 0, 120).optional(),
      })
        .nullable()
        .optional(),
    }),
    ways: waysSchema.shape({
      gunWM2K: number('W/m2K', 10, 1000).optional(),
      hookLostShare: number('share', 0, 1).optional(),
    }),
    afterPour: record({ mean: number('share', 0.05, 1), sure: number('heads', 0.1, 1e9).optional() }).optional(),
    lead: onHand(),
    stock: list(onHand(), 0, 500),
  });

/** Calculations of counting, money and the whole plan. */
export const COUNT_CALCULATIONS = {
  'shot-seconds': calculation(
    'Seconds of one whole shot, and heads an hour',
    'House ways; common practice',
    record({
      cavities: whole('cavities', 1, 12),
      openS: number('s', 0, 600),
      loadS: number('s', 0, 600),
      inspectS: number('s', 0, 600),
    }),
    ({ cavities, openS, ...ways }) => {
      const seconds = core.shotSeconds(ways, cavities, openS);
      return { seconds, headsPerHour: (3600 * cavities) / seconds };
    },
  ),
  'gross-up': calculation(
    'Casts until so many are good: how many are expected, and how many to lay out for',
    'Beta-binomial distribution and its waiting time: the yield is known as well as the casts behind it tell, and evenings differ',
    record({
      good: whole('heads', 0, 100_000),
      yieldShare: number('share', 0.02, 1),
      /** Casts that the yield rests on, and how much evenings differ; see eveningSpread. */
      casts: whole('casts', 0, 1e9).optional(),
      spread: number('share', 0, 0.5).optional(),
    }),
    ({ good, yieldShare: mean, casts = 0, ...input }) =>
      core.castsUntil(good, core.yieldTonight({ mean, casts, ...input })),
  ),
  yield: calculation(
    'Yield from records with its interval',
    'Beta prior, Wilson score interval',
    record({ good: whole('heads', 0, 1e9), casts: whole('heads', 0, 1e9) }),
    (input) => core.yieldEstimate(input.good, input.casts),
  ),
  'lead-balance': calculation(
    'What became of the lead that was charged',
    'Mass balance',
    record({
      chargedKg: number('kg', 0, 1000),
      headsKg: number('kg', 0, 1000),
      sprueBackKg: number('kg', 0, 1000),
      rejectsBackKg: number('kg', 0, 1000),
      drossKg: number('kg', 0, 1000),
      heelKg: number('kg', 0, 1000),
    }),
    (input) => core.leadBalance(input),
  ),
  'unit-cost': calculation(
    'What one head costs, part by part',
    'Sum of its parts; rejects give lead and hooks back',
    record({
      leadKg: number('kg', 0, 2),
      leadMinorPerKg: number('minor units/kg', 0, 1e8),
      drossKg: number('kg', 0, 1),
      hookMinor: number('minor units', 0, 1e8),
      powderMinor: number('minor units', 0, 1e8),
      energyKWh: number('kWh', 0, 1000),
      energyMinorPerKWh: number('minor units/kWh', 0, 1e8),
      workS: number('s', 0, 1e6),
      labourMinorPerHour: number('minor units/h', 0, 1e9),
    }),
    (input) => {
      const stack = core.unitCostStack(input);
      return { stack, unitCostMinor: core.stackTotal(stack) };
    },
  ),
  plan: calculation(
    'The whole plan of an order: shots, metal, hooks, powder, minutes, loads, unit cost and what is missing',
    'All models together; each figure says its own',
    planInput(),
    (input, solve) => core.planOrder(input as unknown as core.PlanInput, solve),
  ),
};
