import { CASTING_METALS, STYLE_IDS } from '@schmelz/core';
import * as core from '@schmelz/core';
import type * as yup from 'yup';
import { choice, flag, list, number, record, whole } from './field.ts';

export interface Calculation {
  summary: string;
  source: string;
  input: yup.AnyObjectSchema;
  run: (input: never) => unknown;
}

const calculation = <S extends yup.AnyObjectSchema>(
  summary: string,
  source: string,
  input: S,
  run: (input: yup.InferType<S>) => unknown,
): Calculation => ({ summary, source, input, run });

const style = () => choice(STYLE_IDS);
const nominalMassKg = () => number('kg', 0.0001, 2);
const label = () => list(record({ metalC: number('C', 60, 300), seconds: whole('s', 10, 36_000) }), 1, 2);

/** Every calculation of the core that a maker may script, by name: `POST /api/compute/<name>`, SI in and out. */
export const CALCULATIONS: Record<string, Calculation> = {
  'cast-mass': calculation(
    'Mass of metal that a cavity casts',
    'Volume times density at the solidus',
    record({
      nominalMassKg: nominalMassKg(),
      metalId: choice(CASTING_METALS.map((metal) => metal.id)).optional(),
      pinDiameterM: number('m', 0, 0.02).optional(),
      pinLengthM: number('m', 0, 0.1).optional(),
      extraInsertVolumeM3: number('m3', 0, 1e-4).optional(),
    }),
    (input) => ({ castMassKg: core.castMassKg(input as core.CastMassInput) }),
  ),
  'head-solid': calculation(
    'Volume, surface, modulus and flow length of a head',
    'Closed forms of the solids, scaled to the stamped mass',
    record({ style: style(), nominalMassKg: nominalMassKg() }),
    ({ style: id, nominalMassKg: kg }) => {
      const { style: shape, ...solid } = core.cavitySolid(id, kg);
      return { ...solid, styleId: shape.id, sprueMassKg: core.sprueOf({ ...solid, style: shape }).massKg };
    },
  ),
  'freeze-time': calculation(
    'Freezing time of head and sprue and when to open',
    'Interface-limited freezing',
    record({
      style: style(),
      nominalMassKg: nominalMassKg(),
      metalC: number('C', 328, 600),
      moldC: number('C', -20, 300),
      shotsSinceSmoked: whole('shots', 0, 100_000),
    }),
    (input) => {
      const solid = core.cavitySolid(input.style, input.nominalMassKg);
      const interfaceWPerM2K = core.interfaceWPerM2K(input.shotsSinceSmoked);
      const heat = { metalC: input.metalC, moldC: input.moldC, interfaceWPerM2K };
      return core.timeToOpen(solid, core.sprueOf(solid), heat);
    },
  ),
  'blank-shots': calculation(
    'Blank shots until a mold is warm',
    'Lumped heat balance of the mold',
    record({
      moldKg: number('kg', 0.05, 20),
      shotKg: number('kg', 0.0005, 10),
      metalC: number('C', 328, 600),
      roomC: number('C', -20, 50).optional(),
      cycleS: number('s', 1, 3600).optional(),
      readyC: number('C', 20, 250).optional(),
    }),
    (input) => core.blankShots(input),
  ),
  'melt-time': calculation(
    'Time and electricity from cold to pouring temperature',
    'Enthalpy method',
    record({
      leadKg: number('kg', 0.05, 50),
      powerW: number('W', 50, 5000),
      lossWPerK: number('W/K', 0, 20),
      toC: number('C', 20, 600),
      fromC: number('C', -20, 600).optional(),
      roomC: number('C', -20, 50).optional(),
    }),
    (input) => core.meltTime(input),
  ),
  'powder-per-head': calculation(
    'Powder for one coat on one head',
    'Coverage formula of the powder-coating industry',
    record({
      style: style(),
      nominalMassKg: nominalMassKg(),
      filmM: number('m', 1e-6, 2e-3),
      specificGravity: number('', 0.5, 5),
      transferEfficiency: number('share', 0.05, 1).optional(),
    }),
    (input) => {
      const { paintedAreaM2 } = core.coldHeadSolid(input.style, core.castMassKg(input));
      return { paintedAreaM2, powderKg: core.powderKg({ ...input, paintedAreaM2 }) };
    },
  ),
  cure: calculation(
    'Share of a full cure after a time in the oven, and the time to full cure',
    "Arrhenius law through the jar's label, first-order lags",
    record({
      label: label(),
      setC: number('C', 40, 300),
      seconds: whole('s', 0, 86_400),
      headLagS: number('s', 1, 7200),
      ovenLagS: number('s', 0, 7200).optional(),
      preheated: flag().optional(),
    }),
    ({ label: points, seconds, ...input }) => {
      const law = core.cureLaw(points as core.LabelPoint[]);
      const bake = { law, headLagS: input.headLagS, setC: input.setC, ovenLagS: input.preheated ? 0 : input.ovenLagS };
      return { law, cureShare: core.cureShare(bake, seconds), timeToFullCureS: core.timeToFullCureS(bake) };
    },
  ),
  'gross-up': calculation(
    'Casts to plan for so many good heads',
    'Binomial distribution',
    record({
      good: whole('heads', 0, 100_000),
      yieldShare: number('share', 0.02, 1),
      confidence: number('share', 0.5, 0.9999).optional(),
    }),
    (input) => ({ casts: core.castsFor(input.good, input.yieldShare, input.confidence) }),
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
};
