import { stationOf, type Placed, type Task, type TonightPlan } from '@schmelz/core';
import ical, { ICalAlarmType, ICalCalendarMethod } from 'ical-generator';

const MS = 1000;
/** Work of one person at one station goes on as one entry across a gap as short as that, and none is shorter. */
const LEAST_S = 600;
/** So many names stand in a heading; what more is done is in the text below it. */
const NAMED = 2;

/** What stands in the calendar as one entry: work of one person at one station, or what works by itself. */
interface Stretch {
  tasks: Task[];
  station: string;
  person: number | null;
  hands: boolean;
  startS: number;
  endS: number;
}

/** Tasks of one person at one station joined, in the order in which they begin; a load of the oven is by itself. */
function stretchesOf(tasks: readonly Task[], placed: readonly Placed[]): Stretch[] {
  const order = tasks.map((_, at) => at).sort((a, b) => placed[a]!.startS - placed[b]!.startS);
  const stretches: Stretch[] = [];
  for (const at of order) {
    const task = tasks[at]!;
    if (task.seconds <= 0) continue;
    const { station, hands } = task;
    const { person, startS, endS } = placed[at]!;
    const before = hands && person !== null ? stretches.findLast((each) => each.hands && each.person === person) : null;
    if (before && before.station === station && startS - before.endS <= LEAST_S) {
      before.tasks.push(task);
      before.endS = Math.max(before.endS, endS);
    } else stretches.push({ tasks: [task], station, person, hands, startS, endS });
  }
  return stretches;
}

/** A stretch in a line: the one thing that is done, or the station with what is done first. */
function headingOf({ tasks, station }: Stretch): string {
  const names = [...new Set(tasks.map(({ name }) => name))];
  if (names.length === 1) return names[0]!;
  const more = names.length > NAMED ? ` and ${names.length - NAMED} more` : '';
  return `${stationOf(station).name}: ${names.slice(0, NAMED).join(', ')}${more}`;
}

/**
 * The evening as a calendar (RFC 5545): each stretch of somebody's hands at one station, and each load of the oven with
 * an alarm at its end. Nothing in it is shorter than ten minutes.
 * @param uid what makes the plan one of its kind; sent twice, a calendar keeps it once
 * @param nowMs when it was made
 */
export function calendarOf({ tasks, schedule, startMs }: TonightPlan, uid: string, nowMs: number): string {
  const calendar = ical({
    prodId: { company: 'Schmelz', product: 'Tonight', language: 'EN' },
    method: ICalCalendarMethod.PUBLISH,
  });
  for (const stretch of stretchesOf(tasks, schedule.placed)) {
    const { startS, endS, hands } = stretch;
    const heads = (task: Task) => (task.heads > 0 ? `, ${task.heads} ${task.heads === 1 ? 'head' : 'heads'}` : '');
    const event = calendar.createEvent({
      id: `${uid}-${stretch.tasks[0]!.id}`.replace(/\s+/g, '-'),
      stamp: new Date(nowMs),
      start: new Date(startMs + MS * startS),
      end: new Date(startMs + MS * Math.max(endS, startS + LEAST_S)),
      summary: headingOf(stretch),
      description: stretch.tasks.map((task) => `${task.name}${heads(task)}`).join('\n'),
    });
    if (!hands) event.createAlarm({ type: ICalAlarmType.display, trigger: new Date(startMs + MS * endS) });
  }
  return calendar.toString();
}
