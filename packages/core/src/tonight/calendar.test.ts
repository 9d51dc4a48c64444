import ICAL from 'ical.js';
import { calendarOf, calendarText, utcStamp } from './calendar.ts';
import type { TonightPlan } from './tonight.ts';

const startMs = Date.UTC(2026, 10, 27, 18);
const task = (id: string, name: string, seconds: number, hands: boolean) => ({
  ...{ id, name, seconds, hands, station: hands ? 'paint' : 'bake', holds: [], after: [], works: [], heads: 24 },
});
const long =
  'Paint: Pebble 10 g, roe; gull, ' + 'with a name that is longer than any line may be, é and all, '.repeat(3);
const plan = {
  startMs,
  tasks: [task('b', 'In the oven', 1680, false), task('a', long, 3600, true), task('c', 'Nothing', 0, true)],
  schedule: {
    ...{ endS: 5280, boundS: 5280 },
    placed: [
      { taskId: 'b', startS: 3600, endS: 5280, person: null, tools: {} },
      { taskId: 'a', startS: 0, endS: 3600, person: 0, tools: {} },
      { taskId: 'c', startS: 0, endS: 0, person: 0, tools: {} },
    ],
  },
} as unknown as TonightPlan;

test('an outside reader finds each task at its time, in its words, and an alarm where the oven is done', () => {
  const text = calendarOf(plan, 'plan-1', startMs - 60_000);
  const calendar = new ICAL.Component(ICAL.parse(text));
  const events = calendar.getAllSubcomponents('vevent').map((each) => new ICAL.Event(each));
  expect(events.map(({ summary }) => summary)).toEqual([long, 'In the oven']);
  expect(events.map(({ startDate }) => startDate.toJSDate().getTime())).toEqual([startMs, startMs + 3600_000]);
  expect(events.map(({ endDate }) => endDate.toJSDate().getTime())).toEqual([startMs + 3600_000, startMs + 5280_000]);
  expect(new Set(events.map(({ uid }) => uid)).size).toBe(2);
  const alarms = calendar.getAllSubcomponents('vevent').map((each) => each.getAllSubcomponents('valarm').length);
  expect(alarms).toEqual([0, 1]);
});

test('no line is longer than 75 octets, and all end as the standard has it', () => {
  const text = calendarOf(plan, 'plan-1', startMs);
  expect(text.endsWith('END:VCALENDAR\r\n')).toBe(true);
  for (const line of text.split('\r\n')) expect(new TextEncoder().encode(line).length).toBeLessThanOrEqual(75);
  expect(text.replace(/\r\n/g, '')).not.toMatch(/[\r\n]/);
});

test('what has a meaning is escaped; a time is written in UTC', () => {
  expect(calendarText('a, b; c\\d\ne')).toBe('a\\, b\\; c\\\\d\\ne');
  expect(utcStamp(Date.UTC(2026, 0, 2, 3, 4, 5))).toBe('20260102T030405Z');
});
