import type { Placed, Task, TonightPlan } from '@schmelz/core';

/** Shorter than that nothing stands about, s: cooling in the hand is part of the work. */
const STANDS_S = 300;

/** A row of the evening: a person, a tool, or what stands and waits for nobody. */
interface Lane {
  id: string;
  name: string;
  bars: Bar[];
}
export interface Bar {
  key: string;
  /** What is done; null where nothing is, and heads dry or cool. */
  task: Task | null;
  says: string;
  startS: number;
  endS: number;
}

type Both = { task: Task; placed: Placed };

/** Heads that dry or cool: from the end of what was done to them until the next can be done. */
function standing(all: readonly Both[]): Bar[] {
  const endOf = new Map(all.map(({ task, placed }) => [task.id, placed.endS]));
  return all.flatMap(({ task }) =>
    task.after.flatMap(({ task: before, lagS }): Bar[] => {
      const startS = endOf.get(before);
      if (startS === undefined || lagS < STANDS_S) return [];
      const says = `Stands until ${task.name}`;
      return [{ key: `${before} ${task.id}`, task: null, says, startS, endS: startS + lagS }];
    }),
  );
}

/**
 * The rows of an evening that begin between two times: each person, then what works by itself. The gun has a row where
 * several want it; else the row of the one who holds it says the same.
 */
export function lanesOf(
  { tasks, schedule }: Pick<TonightPlan, 'tasks' | 'schedule'>,
  people: readonly string[],
  fromS: number,
  toS: number,
): Lane[] {
  const whole = tasks.map((task, at): Both => ({ task, placed: schedule.placed[at]! }));
  const within = ({ startS }: { startS: number }) => startS >= fromS && startS < toS;
  const all = whole.filter(({ placed }) => within(placed));
  const own = (of: (both: Both) => boolean, withLead: boolean): Bar[] =>
    all.filter(of).flatMap(({ task, placed: { startS, endS } }) => {
      // A tool is held from its lead on: the pot melts before it is poured.
      const from = startS - (withLead ? (task.leadS ?? 0) : 0);
      return endS > startS ? [{ key: task.id, task, says: task.name, startS: from, endS }] : [];
    });
  const tool = (name: string, unit: number): Bar[] => own(({ placed }) => placed.tools[name] === unit, true);
  const guns = 1 + Math.max(0, ...whole.map(({ placed }) => placed.tools['gun'] ?? 0));
  const lanes: Lane[] = [
    ...people.map((name, who) => ({
      ...{ id: `person ${who}`, name },
      bars: own(({ placed }) => placed.person === who, false),
    })),
    { id: 'pot', name: 'Pot', bars: tool('pot', 0) },
    ...(people.length + guns > 2
      ? Array.from({ length: guns }, (_, unit) => ({
          ...{ id: `gun ${unit}`, name: guns > 1 ? `Gun ${unit + 1}` : 'Gun' },
          bars: tool('gun', unit),
        }))
      : []),
    { id: 'oven', name: 'Oven', bars: tool('oven', 0) },
    { id: 'standing', name: 'Stands', bars: standing(whole).filter(within) },
  ];
  return lanes.filter(({ id, bars }) => bars.length > 0 || id.startsWith('person'));
}

/** What stands in a bar: its lane says the rest. */
export const shortName = ({ says }: Bar, lane: string): string =>
  lane.startsWith('person') ? says : says.replace(/^(In the oven|Pour|Stands until|Paint):? /, '');

/** Bars in the colours of what they are: hands in lead, heat in straw, the pour between them; what stands is open. */
export const look = ({ task }: Bar, lane: string): string => {
  if (task === null) return 'border-dashed bg-sheet';
  if (task.station === 'pour') return lane === 'pot' ? 'bg-straw' : 'bg-lead border-b-4 border-b-straw';
  if (!task.hands || lane.startsWith('gun')) return 'bg-straw';
  return 'bg-lead';
};
