import type { TonightPlan } from '@schmelz/core';
import { newId } from '../../api/id.ts';
import { save } from '../../shell/save.ts';
import { isoDay, moment } from '../../units/dates.ts';

/** Gives the evening to whatever the device keeps its days in; what writes it is fetched when it is asked for. */
export async function downloadCalendar(plan: TonightPlan): Promise<void> {
  const { calendarOf } = await import('./calendar.ts');
  save(calendarOf(plan, newId(), moment()), 'text/calendar', `schmelz-${isoDay(plan.startMs)}.ics`);
}
