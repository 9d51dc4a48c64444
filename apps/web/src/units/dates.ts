import { parseISO, startOfMonth } from 'date-fns';
import { now } from './now.ts';

/** Days and times as they are written everywhere in the application. */
const at = (when: number | string) => (typeof when === 'string' ? parseISO(when) : new Date(when));

const names = (options: Intl.DateTimeFormatOptions) => new Intl.DateTimeFormat('en-US', options);
const SHORT_MONTH = names({ month: 'short' });
const LONG_MONTH = names({ month: 'long' });
const WEEKDAY = names({ weekday: 'short' });
const two = (count: number) => String(count).padStart(2, '0');

/** 6 Mar 2026 */
export function writeDay(when: number | string): string {
  const day = at(when);
  return `${day.getDate()} ${SHORT_MONTH.format(day)} ${day.getFullYear()}`;
}
/** 6 March */
export function writeDayShort(when: number | string): string {
  const day = at(when);
  return `${day.getDate()} ${LONG_MONTH.format(day)}`;
}
/** Mar 26 */
export function writeMonth(when: number | string): string {
  const day = at(when);
  return `${SHORT_MONTH.format(day)} ${two(day.getFullYear() % 100)}`;
}
/** March 2026 */
export function writeLongMonth(when: number | string): string {
  const day = at(when);
  return `${LONG_MONTH.format(day)} ${day.getFullYear()}`;
}
/** First moment of the month here, ms since 1970. */
export const monthStart = (when: number): number => startOfMonth(when).getTime();
/** Fri */
export const writeWeekday = (when: number | string): string => WEEKDAY.format(at(when));
/** 19:48 */
export function writeTime(when: number | string): string {
  const time = at(when);
  return `${two(time.getHours())}:${two(time.getMinutes())}`;
}
/** 2026-03-06, as date fields and the API want it. */
export function isoDay(when: number | string): string {
  const day = at(when);
  return `${day.getFullYear()}-${two(day.getMonth() + 1)}-${two(day.getDate())}`;
}
/** The moment something is written down, ms since 1970. */
export const moment = now;
/** The day it is, as {@link isoDay} writes it. */
export const today = (): string => isoDay(now());
/** ", due 6 March" where there is a day, else nothing. */
export const writeDue = (dueOn: string | null): string => (dueOn ? `, due ${writeDayShort(dueOn)}` : '');
