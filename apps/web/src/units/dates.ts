import { format, parseISO, startOfMonth } from 'date-fns';
import { now } from './now.ts';

/** Days and times as they are written everywhere in the application. */
const at = (when: number | string) => (typeof when === 'string' ? parseISO(when) : new Date(when));

/** 6 Mar 2026 */
export const writeDay = (when: number | string): string => format(at(when), 'd MMM yyyy');
/** 6 March */
export const writeDayShort = (when: number | string): string => format(at(when), 'd MMMM');
/** Mar 26 */
export const writeMonth = (when: number | string): string => format(at(when), 'MMM yy');
/** March 2026 */
export const writeLongMonth = (when: number | string): string => format(at(when), 'MMMM yyyy');
/** First moment of the month here, ms since 1970. */
export const monthStart = (when: number): number => startOfMonth(when).getTime();
/** Fri */
export const writeWeekday = (when: number | string): string => format(at(when), 'EEE');
/** 19:48 */
export const writeTime = (when: number | string): string => format(at(when), 'HH:mm');
/** 2026-03-06, as date fields and the API want it. */
export const isoDay = (when: number | string): string => format(at(when), 'yyyy-MM-dd');
/** The moment something is written down, ms since 1970. */
export const moment = now;
/** The day it is, as {@link isoDay} writes it. */
export const today = (): string => isoDay(now());
/** ", due 6 March" where there is a day, else nothing. */
export const writeDue = (dueOn: string | null): string => (dueOn ? `, due ${writeDayShort(dueOn)}` : '');
