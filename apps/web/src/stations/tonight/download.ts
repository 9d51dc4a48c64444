import { calendarOf, type TonightPlan } from '@schmelz/core';
import { newId } from '../../api/id.ts';
import { isoDay, moment } from '../../units/dates.ts';

/** Gives the evening to whatever the device keeps its days in. */
export function downloadCalendar(plan: TonightPlan): void {
  const blob = new Blob([calendarOf(plan, newId(), moment())], { type: 'text/calendar' });
  const link = document.createElement('a');
  link.href = URL.createObjectURL(blob);
  link.download = `schmelz-${isoDay(plan.startMs)}.ics`;
  link.click();
  URL.revokeObjectURL(link.href);
}
