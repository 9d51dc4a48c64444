import type { TonightPlan } from './tonight.ts';

/** RFC 5545: lines end in CRLF and are folded before the 75th octet. */
const EOL = '\r\n';
const FOLD = 73;
const MS = 1000;

/** A time as UTC, as RFC 5545 3.3.5 writes it. @example utcStamp(0) // '19700101T000000Z' */
export const utcStamp = (atMs: number): string => `${new Date(atMs).toISOString().replace(/[-:]/g, '').slice(0, 15)}Z`;

/** Text with what has a meaning in the format escaped (3.3.11). @example calendarText('two heads') // 'two heads' */
export const calendarText = (text: string): string =>
  text.replace(/\\/g, '\\\\').replace(/;/g, '\\;').replace(/,/g, '\\,').replace(/\r?\n/g, '\\n');

/** Of one letter in UTF-8. */
const octetsOf = (letter: string): number => {
  const code = letter.codePointAt(0)!;
  return code < 0x80 ? 1 : code < 0x800 ? 2 : code < 0x10000 ? 3 : 4;
};

function folded(line: string): string {
  const parts: string[] = [];
  let part = '';
  let octets = 0;
  for (const letter of line) {
    const size = octetsOf(letter);
    if (octets + size > FOLD) {
      parts.push(part);
      [part, octets] = ['', 0];
    }
    part += letter;
    octets += size;
  }
  return [...parts, part].join(`${EOL} `);
}

/**
 * The evening as a calendar (RFC 5545): each stretch of hands, and each load of the oven with an alarm at its end.
 * @param uid what makes the plan one of its kind; sent twice, a calendar keeps it once
 * @param nowMs when it was made
 * @example calendarOf(planTonight(asked, wishes, castsOfTonight(asked, wishes, solve), { tries: 20 }), 'evening',
 *   0).split('\r\n')[0] // 'BEGIN:VCALENDAR'
 */
export function calendarOf(plan: TonightPlan, uid: string, nowMs: number): string {
  const { tasks, schedule, startMs } = plan;
  const order = tasks.map((_, at) => at).sort((a, b) => schedule.placed[a]!.startS - schedule.placed[b]!.startS);
  const events = order.flatMap((at) => {
    const { id, name, seconds, hands, station, heads } = tasks[at]!;
    if (seconds <= 0) return [];
    const { startS, endS } = schedule.placed[at]!;
    const alarm = hands
      ? []
      : [
          'BEGIN:VALARM',
          'ACTION:DISPLAY',
          'TRIGGER;RELATED=END:PT0S',
          `DESCRIPTION:${calendarText(name)}`,
          'END:VALARM',
        ];
    return [
      'BEGIN:VEVENT',
      `UID:${calendarText(`${uid} ${id}`).replace(/\s/g, '-')}`,
      `DTSTAMP:${utcStamp(nowMs)}`,
      `DTSTART:${utcStamp(startMs + MS * startS)}`,
      `DTEND:${utcStamp(startMs + MS * endS)}`,
      `SUMMARY:${calendarText(name)}`,
      `DESCRIPTION:${calendarText(heads > 0 ? `${heads} heads` : station)}`,
      ...alarm,
      'END:VEVENT',
    ];
  });
  const lines = ['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//Schmelz//Tonight//EN', ...events, 'END:VCALENDAR'];
  return lines.map((line) => folded(line) + EOL).join('');
}
