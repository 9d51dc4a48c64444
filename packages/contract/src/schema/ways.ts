import { STEPS, WINNING_BACK, type SchoolId, type StepId } from '@schmelz/core';
import * as yup from 'yup';
import { choice, number, record, whole } from './field.ts';

/** A school for every step of trim and paint; those that are left out are the usual, or the house's. */
export const schoolsSchema = () =>
  yup
    .object(
      Object.fromEntries(
        STEPS.map(({ id, schools }) => [id, choice(schools.map((school) => school.id)).optional()]),
      ) as unknown as { [S in StepId]: yup.StringSchema<SchoolId<S> | undefined> },
    )
    .noUnknown();

/** The maker's own ways and prices; defaults stand in the core. */
export const waysSchema = record({
  pourC: number('C', 330, 480),
  roomC: number('C', -10, 45),
  heelKg: number('kg', 0, 20),
  drossShare: number('share', 0, 0.3),
  filmM: number('m', 20e-6, 500e-6),
  transferEfficiency: number('share', 0.05, 1),
  labourMinorPerHour: whole('minor units/h', 0, 100_000_000),
  energyMinorPerKWh: whole('minor units/kWh', 0, 100_000_000),
  gasMinorPerKg: whole('minor units/kg', 0, 100_000_000).optional(),
  gunPowerW: number('W', 100, 5000).optional(),
  loadS: number('s', 0, 600),
  inspectS: number('s', 0, 600),
  /** The maker's own seconds a head, and for a coat; null: by the ways that are followed. */
  trimS: number('s', 0, 3600).nullable(),
  coatS: number('s', 0, 3600).nullable(),
  hangS: number('s', 0, 600),
  finishS: number('s', 0, 3600),
  schools: schoolsSchema().optional(),
  /** When hooks are won back from rejects; left out: at once. */
  wonBack: choice(WINNING_BACK).optional(),
});
