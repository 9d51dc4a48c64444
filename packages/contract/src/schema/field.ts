import { QuantityError } from '@schmelz/core';
import * as yup from 'yup';

/**
 * Building blocks of every schema. Each number carries its unit as `meta`, so that an error and the OpenAPI document
 * can name it; ranges are those of the trade, wide enough for any workshop and narrow enough to catch a slipped comma.
 */
declare module 'yup' {
  interface CustomSchemaMetadata {
    unit?: string;
    /** Shown where a pattern says what is allowed. */
    allowed?: string;
  }
}

export const number = (unit: string, min: number, max: number) =>
  yup.number().required().min(min).max(max).meta({ unit });
export const whole = (unit: string, min: number, max: number) => number(unit, min, max).integer();
export const text = (longest = 80) => yup.string().trim().required().max(longest);
export const note = (longest = 500) => yup.string().defined().max(longest);
export const choice = <T extends string>(values: readonly T[]) =>
  yup
    .string()
    .required()
    .oneOf([...values]);
export const angle = (values: readonly number[]) =>
  yup
    .number()
    .required()
    .oneOf([...values])
    .meta({ unit: 'degrees' });
export const flag = () => yup.boolean().required();
export const id = () =>
  yup
    .string()
    .required()
    .matches(/^[0-9a-f-]{36}$/)
    .meta({ allowed: 'the id of an existing record' });
/** Whether a day is in the calendar: 30 February is none. */
const isInCalendar = (given: string) => {
  const at = new Date(`${given}T12:00:00Z`);
  return !Number.isNaN(at.getTime()) && at.toISOString().startsWith(given);
};
export const day = () =>
  yup
    .string()
    .required()
    .matches(/^\d{4}-\d{2}-\d{2}$/)
    .test('calendar', 'is not in the calendar', (given) => typeof given !== 'string' || isInCalendar(given))
    .meta({ allowed: 'a day as 2026-05-31' });
/** An hour of the day, where it matters which. */
export const hour = () =>
  yup
    .string()
    .optional()
    .matches(/^([01]\d|2[0-3]):[0-5]\d$/)
    .meta({ allowed: 'an hour as 08:30' });
export const colour = () =>
  yup
    .string()
    .required()
    .matches(/^#[0-9a-f]{6}$/i)
    .meta({ allowed: 'a colour as #a1b2c3' });
export const record = <S extends yup.ObjectShape>(shape: S) => yup.object(shape).noUnknown().required();
export const list = <T>(of: yup.ISchema<T>, least: number, most: number) =>
  yup.array().of(of).required().min(least).max(most);
export const moment = () => whole('ms since 1970', 0, 4e12);

/**
 * A check across fields. It is asked beside the checks of the fields themselves: one that is of the wrong kind is
 * refused by its own, and this one has nothing to say of it.
 * @param at the field that it is said of; none: the whole
 */
export const across = <T>(
  name: string,
  message: string,
  holds: (value: T) => boolean,
  at?: string,
  // eslint-disable-next-line @typescript-eslint/no-explicit-any -- a test of yup is typed by the schema it is put on
): yup.TestConfig<any> => ({
  name: `across ${name}`,
  message,
  test(value) {
    if (value === null || value === undefined) return true;
    try {
      return holds(value as T) || (at ? this.createError({ path: this.path ? `${this.path}.${at}` : at }) : false);
    } catch (error) {
      if (error instanceof TypeError) return true;
      throw error;
    }
  },
});

/**
 * What the core refuses, the contract refuses, by the same function and in its words: `judge` is called with the value
 * and throws where it is not allowed.
 */
// eslint-disable-next-line @typescript-eslint/no-explicit-any -- a test of yup is typed by the schema it is put on
export const judgedByCore = <T>(name: string, judge: (value: T) => unknown): yup.TestConfig<any> => ({
  name: `core ${name}`,
  test(value, context) {
    if (value === null || value === undefined) return true;
    try {
      judge(value as T);
      return true;
    } catch (error) {
      if (error instanceof TypeError) return true; // of the wrong kind: refused by its own field
      if (!(error instanceof QuantityError) && !(error instanceof RangeError)) throw error;
      return context.createError({ message: error.message });
    }
  },
});
