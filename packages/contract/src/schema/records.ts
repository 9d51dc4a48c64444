import { HEAT_TOOLS, TRIAL_PREPARED } from '@schmelz/core';
import * as yup from 'yup';
import { choice, day, flag, hour, id, list, moment, note, number, record, text, whole } from './field.ts';

export const CARE_KINDS = ['smoked', 'degreased', 'hinge waxed', 'changed'] as const;
export const RECORD_KINDS = ['care', 'trial', 'dial', 'heating', 'sample'] as const;
export type RecordKind = (typeof RECORD_KINDS)[number];

const dated = { thingId: id(), at: moment() };

/** What a maker writes down about a thing, with its date: never erased, only struck out. */
export const recordSchemas = {
  /** Care of a mold; no positions means all cavities. */
  care: record({
    kind: choice(['care'] as const),
    ...dated,
    what: choice(CARE_KINDS),
    positions: list(whole('', 1, 12), 0, 12),
    note: note(200),
  }),
  /** A hook that was tried in a cavity. */
  trial: record({
    kind: choice(['trial'] as const),
    ...dated,
    cavityId: id(),
    hookId: id(),
    prepared: choice(TRIAL_PREPARED),
    sound: choice(['click', 'thud'] as const),
    seamFlush: flag(),
    note: note(200),
  }),
  /** A pair for a pot's dial. */
  dial: record({
    kind: choice(['dial'] as const),
    ...dated,
    dial: number('', 0, 100),
    temperatureC: number('C', 20, 600),
    how: choice(['probe', 'colour'] as const),
  }),
  /** Seconds under the gun or the flame that came out right, for one product from room temperature. */
  heating: record({
    kind: choice(['heating'] as const),
    ...dated,
    tool: choice(HEAT_TOOLS),
    seconds: number('s', 0.5, 300),
  }),
  /** A trimmed head of a product on the scale, out of a cavity that is known or not. */
  sample: record({
    kind: choice(['sample'] as const),
    ...dated,
    position: whole('', 1, 12).nullable().defined(),
    massKg: number('kg', 0.00001, 5),
  }),
};
export type CareRecord = yup.InferType<typeof recordSchemas.care>;
export type TrialRecord = yup.InferType<typeof recordSchemas.trial>;
export type DialRecord = yup.InferType<typeof recordSchemas.dial>;
export type HeatingRecord = yup.InferType<typeof recordSchemas.heating>;
export type SampleRecord = yup.InferType<typeof recordSchemas.sample>;
export type RecordInput = CareRecord | TrialRecord | DialRecord | HeatingRecord | SampleRecord;

export const LOT_SOURCES = ['bought ingots', 'scrap', 'tyre weights', 'own ingots', 'returned sprue'] as const;
export type LotSource = (typeof LOT_SOURCES)[number];
/** These must be melted down and skimmed before they count as metal to cast. */
export const DIRTY_SOURCES: readonly LotSource[] = ['scrap', 'tyre weights'];

/** A delivery of lead as it comes through the door. */
export const lotSchema = record({
  materialId: id(),
  label: text(60),
  source: choice(LOT_SOURCES),
  on: day(),
  /** So that metal bought and cast in one morning comes from its lot. */
  time: hour(),
  grossKg: number('kg', 0.05, 5000),
  priceMinor: whole('minor units', 0, 1_000_000_000),
  brinell: number('BHN', 3, 22).nullable().defined(),
  note: note(200),
});
export type LotInput = yup.InferType<typeof lotSchema>;

/** Melted down and skimmed: what is left is clean metal, cast into ingots or not. */
export const cleanSchema = record({
  on: day(),
  time: hour(),
  cleanKg: number('kg', 0.01, 5000),
  ingots: whole('ingots', 0, 10_000),
});
export type CleanInput = yup.InferType<typeof cleanSchema>;

export const PROBE_PLACES = ['pot', 'mold', 'oven', 'other'] as const;
export type ProbePlace = (typeof PROBE_PLACES)[number];

/** How the columns of a log are to be read. */
export const logMappingSchema = record({
  name: text(40),
  timeColumn: yup.string().required().max(120),
  timeIs: choice(['date and time', 'seconds', 'minutes'] as const),
  startAt: moment(),
  columns: list(
    record({
      column: yup.string().required().max(120),
      place: choice(PROBE_PLACES),
      unit: choice(['C', 'F'] as const),
    }),
    1,
    12,
  ),
});
export type LogMappingInput = yup.InferType<typeof logMappingSchema>;

const stretch = { channel: whole('', 1, 1e9), from: moment().optional(), to: moment().optional() };
/** A stretch of readings as they are; from and to left out: all of them. */
export const rawReadingsQuerySchema = record(stretch);
/** A stretch of readings, thinned to so many points. */
export const readingsQuerySchema = record({ ...stretch, points: whole('points', 2, 2000).optional() });

/** Which records are wanted: of one thing, or of all. */
export const recordsQuerySchema = record({ thing: id().optional() });

const again = choice(['true', 'false'] as const).optional();
/** Whether something is only looked at. */
export const lookQuerySchema = record({ look: choice(['true', 'false'] as const).optional() });

/** How a file is taken: only looked at, or taken although the same was taken before. */
export const importQuerySchema = record({ look: choice(['true', 'false'] as const).optional(), again });
/** How a log is taken: its columns mapped as JSON. */
export const logImportQuerySchema = record({ mapping: yup.string().required().max(10_000), again });
