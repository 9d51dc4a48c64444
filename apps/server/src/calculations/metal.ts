import * as core from '@schmelz/core';
import { choice, flag, list, number, record, text, whole } from '@schmelz/contract/field';
import { calculation, metalFields, metalOf, nominalMassKg, style } from './calculation.ts';

/** Calculations of what is cast and what it weighs. */
export const METAL_CALCULATIONS = {
  'cast-mass': calculation(
    'Mass of metal that a cavity casts',
    'Volume times density at the solidus',
    record({
      nominalMassKg: nominalMassKg(),
      ...metalFields(),
      pinDiameterM: number('m', 0, 0.02).optional(),
      pinLengthM: number('m', 0, 0.1).optional(),
      extraInsertVolumeM3: number('m3', 0, 1e-4).optional(),
    }),
    ({ metalId, composition, ...input }) => ({
      castMassKg: core.castMassKg({ ...input, alloy: metalOf({ metalId, composition }) }),
    }),
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
  'metal-share': calculation(
    'Density of a casting metal and what it weighs in a cavity against soft lead',
    'Ideal mixing',
    record(metalFields()),
    (input) => ({ ...metalOf(input), shareOfLead: core.massShareOfLead(metalOf(input)) }),
  ),
  'lead-enthalpy': calculation(
    'Heat in lead above 20 C at a temperature',
    'Specific and latent heats of lead',
    record({ temperatureC: number('C', -50, 900) }),
    ({ temperatureC }) => ({ enthalpyJKg: core.leadEnthalpyJKg(temperatureC) }),
  ),
  'antimony-from-hardness': calculation(
    'Antimony that a hardness test points to, with its range',
    'Rules of thumb, from memory',
    record({ brinell: number('BHN', 3, 22) }),
    ({ brinell }) => core.antimonyFromHardness(brinell),
  ),
  'cast-variant': calculation(
    'What a cavity casts with something changed, added or left out',
    'Volumes of what is laid in; common practice, no source',
    record({
      style: style(),
      nominalMassKg: nominalMassKg(),
      pin: record({ diameterM: number('m', 0.0005, 0.01), lengthM: number('m', 0.001, 0.06) })
        .optional()
        .default(undefined),
      pinWay: choice(core.PIN_WAYS),
      keeper: flag(),
      wireGuards: whole('', 0, 2),
      insert: choice(core.INSERTS),
      ...metalFields(),
    }),
    ({ pin, pinWay, keeper, wireGuards, insert, ...input }) =>
      core.castAs(
        { position: 1, style: input.style, nominalMassKg: input.nominalMassKg, pin: pin ?? null },
        { ...core.AS_CUT, pin: pinWay, keeper, wireGuards, insert },
        metalOf(input),
      ),
  ),
  'heads-from-metal': calculation(
    'How many good heads a lot of metal gives',
    'Mass balance: sprues and rejects come back',
    record({
      metalKg: number('kg', 0.01, 10_000),
      style: style(),
      nominalMassKg: nominalMassKg(),
      cavities: whole('cavities', 1, 12),
      heelKg: number('kg', 0, 50),
      drossShare: number('share', 0, 0.5),
      yieldShare: number('share', 0.05, 1),
      ...metalFields(),
    }),
    ({ metalId, composition, ...input }) => core.headsFromMetal({ ...input, alloy: metalOf({ metalId, composition }) }),
  ),
  'ingots-from-scrap': calculation(
    'How many half-pound ingots a lot of scrap gives, melted down and skimmed',
    'Mass balance',
    record({ grossKg: number('kg', 0.05, 10_000), cleanShare: number('share', 0.1, 1) }),
    (input) => core.ingotsFromScrap(input),
  ),
  'trace-lots': calculation(
    'What is left of each lot and where it went',
    'First in, first out',
    record({
      lots: list(record({ id: text(60), at: number('', 0, 4e12), kg: number('kg', 0, 10_000) }), 0, 1000),
      flows: list(record({ at: number('', 0, 4e12), kg: number('kg', -10_000, 10_000), reason: text(60) }), 0, 10_000),
    }),
    ({ lots, flows }) => core.traceLots(lots, flows),
  ),
};
