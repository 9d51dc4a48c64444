import ICAL from 'ical.js';
import type { TonightPlan } from '@schmelz/core';
import { calendarOf } from './calendar.ts';

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

/** As an outside reader has it. */
function read(of: TonightPlan) {
  const calendar = new ICAL.Component(ICAL.parse(calendarOf(of, 'plan-1', startMs - 60_000)));
  return calendar.getAllSubcomponents('vevent').map((component) => {
    const { summary, description, startDate, endDate, uid } = new ICAL.Event(component);
    const alarms = component.getAllSubcomponents('valarm').map((alarm) => alarm.getFirstPropertyValue('trigger'));
    const minute = (at: { toJSDate(): Date }) => (at.toJSDate().getTime() - startMs) / 60_000;
    return { summary, description, uid, from: minute(startDate), to: minute(endDate), alarms };
  });
}

test('an outside reader finds each stretch at its time, in its words, and an alarm where the oven is done', () => {
  const events = read(plan);
  expect(events.map(({ summary, from, to }) => [summary, from, to])).toEqual([
    [long, 0, 60],
    ['In the oven', 60, 88],
  ]);
  expect(events.map(({ description }) => description)).toEqual([`${long}, 24 heads`, 'In the oven, 24 heads']);
  expect(new Set(events.map(({ uid }) => uid)).size).toBe(2);
  expect(events.map(({ alarms }) => alarms.map(String))).toEqual([[], ['2026-11-27T19:28:00Z']]);
});

test('tasks of one person at one station are one entry, and none is under ten minutes', () => {
  const works: [string, string, number, number, number][] = [
    ['Colour one', 'paint', 0, 15, 0],
    ['Change cups', 'paint', 15, 18, 0],
    ['Colour two', 'paint', 18, 40, 0],
    ['Trim', 'trim', 5, 25, 1],
    ['Bag', 'finish', 40, 43, 0],
    ['Colour one', 'paint', 90, 110, 0],
  ];
  const evening = {
    startMs,
    tasks: works.map(([name, station, from, to], at) => ({ ...task(`${at}`, name, 60 * (to - from), true), station })),
    schedule: {
      placed: works.map(([, , from, to, person], at) => {
        return { taskId: `${at}`, startS: 60 * from, endS: 60 * to, person, tools: {} };
      }),
    },
  } as unknown as TonightPlan;
  expect(read(evening).map(({ summary, from, to }) => [summary, from, to])).toEqual([
    ['Paint: Colour one, Change cups and 1 more', 0, 40],
    ['Trim', 5, 25],
    ['Bag', 40, 50],
    ['Colour one', 90, 110],
  ]);
  expect(read(evening)[0]!.description).toBe('Colour one, 24 heads\nChange cups, 24 heads\nColour two, 24 heads');
});

test('no line is longer than 75 octets, and all end as the standard has it', () => {
  const text = calendarOf(plan, 'plan-1', startMs);
  expect(text.trimEnd().endsWith('END:VCALENDAR')).toBe(true);
  for (const line of text.split('\r\n')) expect(new TextEncoder().encode(line).length).toBeLessThanOrEqual(75);
  expect(text.replace(/\r\n/g, '')).not.toMatch(/[\r\n]/);
});
