import { METAL_IDS, STYLE_IDS, type LeadComposition } from '@schmelz/core';
import * as core from '@schmelz/core';
import type * as yup from 'yup';
import { choice, list, number, record, whole } from '@schmelz/contract/field';

/** A calculation of the core as it is asked over the wire: what it takes, and what it answers, all in SI. */
export interface Calculation<S extends yup.AnyObjectSchema = yup.AnyObjectSchema, R = unknown> {
  summary: string;
  source: string;
  input: S;
  /** With the solver of integer programs, where there is one. */
  run: (input: yup.InferType<S>, solve?: core.SolveLp) => R;
}

export const calculation = <S extends yup.AnyObjectSchema, R>(
  summary: string,
  source: string,
  input: S,
  run: (input: yup.InferType<S>, solve?: core.SolveLp) => R,
): Calculation<S, R> => ({ summary, source, input, run });

export const style = () => choice(STYLE_IDS);
export const nominalMassKg = () => number('kg', 0.0001, 2);
export const label = () => list(record({ metalC: number('C', 60, 300), seconds: whole('s', 10, 36_000) }), 1, 2);
/** A metal by its id, with a composition of its own where it is a hard lead. */
export const metalFields = () => ({
  metalId: choice(METAL_IDS).optional(),
  composition: record({ antimonyPercent: number('%', 0, 11.1), tinPercent: number('%', 0, 5) })
    .optional()
    .default(undefined),
});
export const metalOf = (input: { metalId?: string; composition?: LeadComposition }) =>
  core.alloyOf(input.metalId ?? 'soft-lead', input.composition);

/** Probe readings of one stretch, in order. */
export const readings = () =>
  list(record({ atS: number('s', 0, 1e7), temperatureC: number('C', -60, 900) }), 2, 20_000);
