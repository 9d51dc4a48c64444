import { isoDay, writeDayShort, writeTime, writeWeekday } from '../../units/dates.ts';

const DAY_MS = 86_400_000;

/** A day beside the hour, where it is another than the evening's own. */
export const when = (atMs: number, startMs: number) =>
  isoDay(atMs) === isoDay(startMs)
    ? writeTime(atMs)
    : `${atMs - startMs < 6 * DAY_MS ? writeWeekday(atMs) : writeDayShort(atMs)} ${writeTime(atMs)}`;
