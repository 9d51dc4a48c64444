import { calendarOf, type TonightPlan } from '@schmelz/core';
import { newId } from '../../api/id.ts';
import { save } from '../../shell/save.ts';
import { isoDay, moment } from '../../units/dates.ts';

/** Gives the evening to whatever the device keeps its days in. */
export function downloadCalendar(plan: TonightPlan): void {
  save(calendarOf(plan, newId(), moment()), 'text/calendar', `schmelz-${isoDay(plan.startMs)}.ics`);
}
