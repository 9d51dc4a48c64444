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
  'metal-share': calculation(
    'Density of a casting metal and what it weighs in a cavity against soft lead',
    'Ideal mixing',
    record({ metalId: choice(CASTING_METALS.map((metal) => metal.id)) }),
    ({ metalId }) => ({
      densityKgM3: core.castingMetal(metalId).densityKgM3,
      shareOfLead: core.massShareOfLead(metalId),
    }),
  ),
  'lead-enthalpy': calculation(
    'Heat in lead above 20 C at a temperature',
    'Specific and latent heats of lead',
    record({ temperatureC: number('C', -50, 900) }),
    ({ temperatureC }) => ({ enthalpyJKg: core.leadEnthalpyJKg(temperatureC) }),
  ),
  'holding-energy': calculation(
    'Electricity to hold a pot at temperature',
    'Loss times time',
    record({
      lossWPerK: number('W/K', 0, 20),
      potC: number('C', -20, 600),
      roomC: number('C', -20, 50),
      seconds: number('s', 0, 1e6),
    }),
    (input) => ({ energyKWh: core.holdingEnergyKWh(input.lossWPerK, input.potC, input.roomC, input.seconds) }),
  ),
  'mold-temperatures': calculation(
    'Temperature of a mold after each of so many shots',
    'Lumped heat balance of the mold',
    record({
      moldKg: number('kg', 0.05, 20),
      shotKg: number('kg', 0.0005, 10),
      metalC: number('C', 328, 600),
      shots: whole('shots', 1, 500),
      fromC: number('C', -20, 300).optional(),
      roomC: number('C', -20, 50).optional(),
      cycleS: number('s', 1, 3600).optional(),
    }),
    ({ shots, ...input }) => ({ temperaturesC: core.moldTemperaturesC(input, shots) }),
  ),
  'hook-seat': calculation(
    'Whether a hook seats in a cavity cut for another',
    'Common practice, no source',
    record({
      cutForSize: choice(core.HOOK_SIZES),
      cutForEyeDeg: number('degrees', 0, 180),
      hookSize: choice(core.HOOK_SIZES),
      hookEyeDeg: number('degrees', 0, 180),
    }),
    (input) =>
      core.seatOf(
        { hookSize: input.cutForSize, eyeAngleDeg: input.cutForEyeDeg },
        { hookSize: input.hookSize, eyeAngleDeg: input.hookEyeDeg },
      ),
  ),
  'typical-hook': calculation(
    'Typical dimensions and mass of a jig hook',
    'Common practice, no source',
    record({ size: choice(core.HOOK_SIZES), wire: choice(core.WIRES).optional() }),
    ({ size, wire }) => core.typicalHook(size, wire),
  ),
  'head-lag': calculation(
    'How far a head lags behind the air of an oven',
    'Lumped head in still air',
    record({ style: style(), nominalMassKg: nominalMassKg(), hookKg: number('kg', 0, 0.1) }),
    (input) => {
      const leadKg = core.castMassKg(input);
      return { headLagS: core.headLagS(leadKg, input.hookKg, core.coldHeadSolid(input.style, leadKg).cooledAreaM2) };
    },
  ),
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
