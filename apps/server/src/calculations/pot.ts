import * as core from '@schmelz/core';
import { choice, flag, list, number, record } from '@schmelz/contract/field';
import { calculation, metalFields, metalOf, readings } from './calculation.ts';

const crucible = () => number('J/K', 0, 20_000).optional();
const potBody = () =>
  record({ powerW: number('W', 0, 5000), lossWPerK: number('W/K', 0, 20), crucibleJPerK: crucible() });

/** Calculations of the pot. */
export const POT_CALCULATIONS = {
  'melt-time': calculation(
    'Time and electricity from cold to pouring temperature',
    'Enthalpy method',
    record({
      leadKg: number('kg', 0.05, 50),
      powerW: number('W', 50, 5000),
      lossWPerK: number('W/K', 0, 20),
      crucibleJPerK: crucible(),
      toC: number('C', 20, 600),
      fromC: number('C', -20, 600).optional(),
      roomC: number('C', -20, 50).optional(),
    }),
    (input) => core.meltTime(input),
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
    (input) => ({ energyKWh: core.holdingEnergyKWh(input) }),
  ),
  'pot-session': calculation(
    'A pot through time with its thermostat, what is fed and what is taken',
    'Enthalpy method',
    record({
      pot: potBody(),
      leadKg: number('kg', 0.05, 50),
      fromC: number('C', -20, 600),
      roomC: number('C', -20, 50),
      setC: number('C', 20, 600),
      swingK: number('K', 0, 80).optional(),
      seconds: number('s', 0, 86_400),
      everyS: number('s', 1, 3600).optional(),
      events: list(
        record({
          atS: number('s', 0, 86_400),
          kind: choice(['add', 'take', 'dial'] as const),
          kg: number('kg', 0, 50).optional(),
          fromC: number('C', -20, 600).optional(),
          setC: number('C', 20, 600).optional(),
        }),
        0,
        5000,
      ).optional(),
      ...metalFields(),
    }),
    ({ metalId, composition, events, ...run }) =>
      core.simulatePot({
        ...run,
        alloy: metalOf({ metalId, composition }),
        events: events?.map(({ atS, kind, kg = 0, fromC = 20, setC = 371 }): core.PotEvent => {
          if (kind === 'add') return { atS, kind, kg, fromC };
          return kind === 'take' ? { atS, kind, kg } : { atS, kind, setC };
        }),
      }),
  ),
  'melt-plan': calculation(
    'From what lies in the pot to ready: when to skim and to turn down, electricity, and the curve',
    'Enthalpy method; each figure says its own',
    record({
      leadKg: number('kg', 0.05, 50),
      fromC: number('C', -20, 600),
      roomC: number('C', -20, 50),
      pourC: number('C', 130, 600),
      powerW: number('W', 50, 5000),
      lossWPerK: number('W/K', 0, 20),
      crucibleJPerK: crucible(),
      school: choice(['full then down', 'left at the mark'] as const),
      ...metalFields(),
    }),
    ({ metalId, composition, ...input }) =>
      core.meltPlan({
        ...input,
        basis: 'given',
        powerSdW: 0,
        lossSdWPerK: 0,
        alloy: metalOf({ metalId, composition }),
      }),
  ),
  refill: calculation(
    'The largest safe addition to a pot now, and the wait after it',
    'Enthalpy balance',
    record({
      potKg: number('kg', 0.05, 50),
      potC: number('C', 20, 600),
      capacityKg: number('kg', 0.1, 50),
      pot: potBody(),
      keepAboveC: number('C', 130, 600),
      pourC: number('C', 130, 600),
      roomC: number('C', -20, 50),
      addC: number('C', -20, 300).optional(),
      ...metalFields(),
    }),
    ({ metalId, composition, ...input }) => core.largestRefill({ ...input, alloy: metalOf({ metalId, composition }) }),
  ),
  'dial-table': calculation(
    "Temperature for a dial mark from a maker's own pairs, and how the dial drifts",
    'Monotone cubic (Fritsch & Carlson 1980); least squares within marks',
    record({
      pairs: list(
        record({
          dial: number('', 0, 100),
          temperatureC: number('C', 20, 600),
          at: number('', 0, 4e12),
          sdK: number('K', 0.1, 100),
        }),
        2,
        1000,
      ),
      dial: number('', 0, 100),
    }),
    ({ pairs, dial }) => {
      const table = core.dialTable(pairs);
      return { ...table.at(dial), marks: table.marks, drift: core.dialDrift(pairs) };
    },
  ),
  'pot-skin': calculation(
    'Colour of the skin at a temperature',
    'Common practice, no source',
    record({ metalC: number('C', -50, 900) }),
    ({ metalC }) => ({ skin: core.skinAt(metalC) }),
  ),
  'fume-ceiling': calculation(
    'Lead in air saturated over the melt: an upper bound, no measurement and no clearance',
    'Alcock, Itkin & Horrigan 1984; action level and limit of 29 CFR 1910.1025',
    record({ metalC: number('C', 327, 927) }),
    ({ metalC }) => ({
      ceilingUgM3: core.fumeCeilingUgM3(metalC),
      actionLevelUgM3: core.LEAD_ACTION_LEVEL_UG_M3,
      limitUgM3: core.LEAD_LIMIT_UG_M3,
    }),
  ),
  'fit-pot': calculation(
    "A pot's power and loss from one heat-up or cool-down",
    'Least squares on the enthalpy model, with priors',
    record({
      readings: readings(),
      leadKg: number('kg', 0.05, 50),
      roomC: number('C', -20, 50),
      powerW: number('W', 50, 5000),
      lossWPerK: number('W/K', 0.02, 5),
      crucibleJPerK: number('J/K', 1, 20_000).optional(),
      heating: flag(),
    }),
    (input) => core.fitPot(input),
  ),
};
