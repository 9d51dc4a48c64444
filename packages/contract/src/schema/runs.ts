import { COUNT_FROM, COUNT_STATIONS, POUR_CAUSES, ROUTINE_WORK, SHORT_WHERE } from '@schmelz/core';
import * as yup from 'yup';
import { choice, flag, id, list, moment, number, record, text, whole } from './field.ts';

const entry = { id: id(), at: moment() };
const of = <K extends string>(kind: K) => yup.string().required().oneOf([kind]);

/** What the bench of a pour may say. One schema per kind, so that an error names the field that is wrong. */
export const pourEntrySchemas = {
  charge: record({ ...entry, kind: of('charge'), massKg: number('kg', 0.05, 60), potC: number('C', -20, 600) }),
  feed: record({ ...entry, kind: of('feed'), massKg: number('kg', 0.005, 20) }),
  blank: record({ ...entry, kind: of('blank'), moldId: id() }),
  shot: record({
    ...entry,
    kind: of('shot'),
    moldId: id(),
    positions: list(whole('', 1, 12), 1, 12),
    filled: list(whole('', 1, 12), 0, 12).optional(),
  }),
  reject: record({
    ...entry,
    kind: of('reject'),
    shotId: id(),
    position: whole('', 1, 12),
    cause: choice(POUR_CAUSES),
    where: choice(SHORT_WHERE).optional(),
    hookLost: flag().optional(),
    kept: flag().optional(),
    redipped: flag().optional(),
  }),
  smoked: record({ ...entry, kind: of('smoked'), moldId: id() }),
  blocked: record({ ...entry, kind: of('blocked'), moldId: id(), position: whole('', 1, 12) }),
  mold: record({ ...entry, kind: of('mold'), moldId: id(), away: flag() }),
  hooks: record({ ...entry, kind: of('hooks'), materialId: id(), left: whole('pieces', 0, 20_000) }),
  weighed: record({
    ...entry,
    kind: of('weighed'),
    moldId: id(),
    position: whole('', 1, 12),
    massKg: number('kg', 0.0001, 5),
  }),
  checked: record({ ...entry, kind: of('checked'), items: list(text(80), 0, 20) }),
  done: record({ ...entry, kind: of('done'), what: choice(ROUTINE_WORK) }),
  pause: record({ ...entry, kind: of('pause') }),
  resume: record({ ...entry, kind: of('resume') }),
  close: record({
    ...entry,
    kind: of('close'),
    sprueBackKg: number('kg', 0, 60),
    rejectsBackKg: number('kg', 0, 60),
    drossKg: number('kg', 0, 60),
    heelKg: number('kg', 0, 60),
  }),
  undo: record({ ...entry, kind: of('undo'), target: id() }),
} as const;

const station = choice(COUNT_STATIONS);
const heads = () => whole('heads', 1, 20_000);

export const ticketEntrySchemas = {
  start: record({ ...entry, kind: of('start'), station }),
  good: record({ ...entry, kind: of('good'), station, count: heads() }),
  reject: record({
    ...entry,
    kind: of('reject'),
    station,
    cause: text(30),
    count: heads(),
    hookLost: flag().optional(),
  }),
  pause: record({ ...entry, kind: of('pause'), station }),
  resume: record({ ...entry, kind: of('resume'), station }),
  load: record({
    ...entry,
    kind: of('load'),
    station: choice(['bake'] as const),
    count: heads(),
    setC: number('C', 60, 260),
    seconds: whole('s', 60, 14_400),
    preheated: flag(),
    from: choice(COUNT_FROM).optional(),
    warmS: number('s', 0, 14_400).optional(),
  }),
  warm: record({
    ...entry,
    kind: of('warm'),
    station: choice(['bake'] as const),
    by: choice(['probe', 'model', 'hand'] as const),
  }),
  coat: record({
    ...entry,
    kind: of('coat'),
    station: choice(['paint'] as const),
    coat: whole('', 1, 18),
    paint: text(80),
    dryS: whole('s', 60, 604_800),
  }),
  door: record({ ...entry, kind: of('door'), station: choice(['bake'] as const), open: flag() }),
  sprue: record({ ...entry, kind: of('sprue'), station: choice(['trim'] as const), massKg: number('kg', 0.001, 60) }),
  unload: record({
    ...entry,
    kind: of('unload'),
    station: choice(['bake'] as const),
    coolS: number('s', 0, 14_400).optional(),
  }),
  close: record({ ...entry, kind: of('close'), station: choice(['finish'] as const) }),
  undo: record({ ...entry, kind: of('undo'), target: id() }),
} as const;

/** An entry of unknown kind: only its kind is looked at, the schema of that kind says the rest. */
export const pourKindSchema = yup.object({ kind: choice(Object.keys(pourEntrySchemas)) }).required();
export const ticketKindSchema = yup.object({ kind: choice(Object.keys(ticketEntrySchemas)) }).required();

export const startPourSchema = record({
  /** In the order in which they come to the pot. */
  moldIds: list(id(), 1, 6),
  /** How many of them are poured in turn. */
  atOnce: whole('molds', 1, 2),
  potId: id(),
  batchIds: list(id(), 1, 20),
});
export type StartPourInput = yup.InferType<typeof startPourSchema>;
