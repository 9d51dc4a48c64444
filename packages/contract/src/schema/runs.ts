import {
  COUNT_FROM,
  DISPOSITION_IDS,
  POUR_DISPOSITIONS,
  ROUTINE_WORK,
  SHORT_WHERE,
  stationOf,
  type RunKindId,
} from '@schmelz/core';
import type * as yup from 'yup';
import { choice, flag, id, list, moment, number, record, text, whole } from './field.ts';
import { MOST_LINES } from './workshop.ts';

const entry = { id: id(), at: moment(), who: text(40).optional(), sinceS: number('s', 0, 31_536_000).optional() };
const of = <K extends string>(kind: K) => choice([kind] as const);

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
    cause: choice(stationOf('pour').causes.map((cause) => cause.id)),
    where: choice(SHORT_WHERE).optional(),
    goes: choice(POUR_DISPOSITIONS),
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

const heads = () => whole('heads', 1, 20_000);
const atStep = { ...entry, step: text(40) };

/** What is said of a ticket; `step` is a key of its route. */
export const ticketEntrySchemas = {
  start: record({ ...atStep, kind: of('start') }),
  good: record({ ...atStep, kind: of('good'), count: heads() }),
  reject: record({
    ...atStep,
    kind: of('reject'),
    cause: text(40),
    count: heads(),
    goes: choice(DISPOSITION_IDS),
    to: text(40).optional(),
    spared: list(id(), 0, 20).optional(),
  }),
  minutes: record({ ...atStep, kind: of('minutes'), seconds: number('s', 0, 604_800) }),
  spoiled: record({ ...atStep, kind: of('spoiled'), partId: id(), count: whole('pieces', 1, 20_000) }),
  pause: record({ ...atStep, kind: of('pause') }),
  resume: record({ ...atStep, kind: of('resume') }),
  coat: record({
    ...atStep,
    kind: of('coat'),
    coat: whole('', 1, 18),
    paint: text(80),
    dryS: whole('s', 60, 604_800),
  }),
  sprue: record({ ...atStep, kind: of('sprue'), massKg: number('kg', 0.001, 60) }),
  take: record({ ...entry, kind: of('take'), count: heads() }),
  close: record({ ...entry, kind: of('close') }),
  undo: record({ ...entry, kind: of('undo'), target: id() }),
} as const;

const inRun = () => list(record({ ticketId: id(), step: text(40), count: heads() }), 1, 60);
const ofTicket = { ticketId: id(), step: text(40), count: heads() };
const sessionEntrySchemas = {
  begin: record({
    ...entry,
    kind: of('begin'),
    partId: id(),
    name: text(80),
    heads: inRun(),
    potLifeS: number('s', 5, 86_400).optional(),
    // Whatever a step may wait for, its mix may.
    setS: number('s', 1, 1_209_600).optional(),
    mixedMl: number('ml', 0.01, 5000).optional(),
  }),
  good: record({ ...entry, kind: of('good'), ...ofTicket }),
  reject: record({
    ...entry,
    kind: of('reject'),
    ...ofTicket,
    cause: text(40),
    goes: choice(DISPOSITION_IDS),
    spared: list(id(), 0, 20).optional(),
  }),
  stirred: record({ ...entry, kind: of('stirred') }),
  pause: record({ ...entry, kind: of('pause') }),
  resume: record({ ...entry, kind: of('resume') }),
  end: record({ ...entry, kind: of('end') }),
  undo: record({ ...entry, kind: of('undo'), target: id() }),
} as const;

/** What is said of a run of several tickets, by its kind. The first entry makes the run. */
export const runEntrySchemas = {
  oven: {
    load: record({
      ...entry,
      kind: of('load'),
      ovenId: id().nullable().defined(),
      heads: inRun(),
      setC: number('C', 60, 260),
      seconds: whole('s', 60, 14_400),
      preheated: flag(),
      from: choice(COUNT_FROM).optional(),
      warmS: number('s', 0, 14_400).optional(),
    }),
    warm: record({ ...entry, kind: of('warm'), by: choice(['probe', 'model', 'hand'] as const) }),
    door: record({ ...entry, kind: of('door'), open: flag() }),
    unload: record({ ...entry, kind: of('unload'), coolS: number('s', 0, 14_400).optional() }),
    undo: record({ ...entry, kind: of('undo'), target: id() }),
  },
  dip: sessionEntrySchemas,
  glue: sessionEntrySchemas,
} as const satisfies Record<RunKindId, Record<string, yup.AnySchema>>;

export const startPourSchema = record({
  /** In the order in which they come to the pot. */
  moldIds: list(id(), 1, 40),
  /** How many of them are poured in turn. */
  atOnce: whole('molds', 1, 2),
  /** Molds that cast the same head share it, by their cavities; left out: the best one casts all of it. */
  spread: flag().optional(),
  /** How many casts of a ticket an evening's plan gives a mold: they are shared by it. */
  planned: list(record({ ticketId: id(), moldId: id(), casts: whole('casts', 0, 20_000) }), 1, 4000).optional(),
  potId: id(),
  /** What is poured; left out: the soft lead there is most of. */
  leadId: id().nullable().optional(),
  ticketIds: list(id(), 1, MOST_LINES),
});
export type StartPourInput = yup.InferType<typeof startPourSchema>;

/** A stretch of time, ms since 1970: from its first moment to before its last. */
export const periodQuerySchema = record({ from: moment().optional(), to: moment().optional() });

/** How many heads at once a cost is asked for. */
export const costQuerySchema = record({ heads: whole('heads', 1, 20_000) });

/** A page of a numbered list: what stands before a number. */
export const beforeQuerySchema = record({ before: whole('', 1, 1e9).optional() });

/** A page of a list without numbers: what comes after so many. */
export const skipQuerySchema = record({ skip: whole('', 0, 1e6).optional() });

/** Which pours are wanted whole: those of a mold, or the one that went on at a moment. */
export const poursQuerySchema = record({ mold: id().optional(), at: moment().optional() });
