import { writeDay } from '../units/dates.ts';

/** A lot in words: what was written on it, or the day it came. */
export const lotSays = ({ lot, at }: { lot: string; at: number }) =>
  lot ? `${lot}, ${writeDay(at)}` : `of ${writeDay(at)}`;
