import type { TonightWishes } from '@schmelz/core';
import { useMemo, useState } from 'react';
import { isoDay, moment } from '../../units/dates.ts';

/** What a maker says of an evening, as it stands in the form. */
export interface EveningForm {
  day: string;
  from: string;
  to: string;
  people: number;
  /** Stations that a person does not do, by their place; left out: they do all. */
  cannot?: readonly (readonly string[])[];
  guns: number;
  atOnce: number;
}
const KEY = 'schmelz.evening';
const HOUR_MS = 3600_000;

/** What was said of the last evening; what something else has written there is nothing. */
function keptForm(): Partial<EveningForm> {
  try {
    return JSON.parse(localStorage.getItem(KEY) ?? '{}') as Partial<EveningForm>;
  } catch {
    return {};
  }
}

/** The next evening: today while it is not past its end, else tomorrow. */
function usual(): EveningForm {
  const kept = keptForm();
  const form = { from: '18:00', to: '22:30', people: 1, guns: 1, atOnce: 1, ...kept, day: isoDay(moment()) };
  return eveningOf(form).toMs > moment() ? form : { ...form, day: isoDay(moment() + 24 * HOUR_MS) };
}

/** From and to in ms; what ends before it begins goes over midnight. */
export function eveningOf({ day, from, to }: EveningForm): { fromMs: number; toMs: number } {
  const at = (time: string) => new Date(`${day}T${time}:00`).getTime();
  const toMs = at(to) > at(from) ? at(to) : at(to) + 24 * HOUR_MS;
  return { fromMs: at(from), toMs };
}

/** Where there is work for hands of an evening. */
export const HAND_STATIONS = ['pour', 'trim', 'paint', 'bake', 'finish'] as const;

/** What a person does; null: whatever there is. */
function canOf({ cannot }: EveningForm, at: number): string[] | null {
  const not = cannot?.[at] ?? [];
  return not.length ? HAND_STATIONS.filter((station) => !not.includes(station)) : null;
}

/** Places for hands of an evening, where nobody has said who works here. */
const PLACES = ['You', 'Second', 'Third', 'Fourth'];
/** As many names as an evening has hands at most: those of the workshop first. */
const namesOf = (people: readonly string[]) => [...people, ...PLACES.slice(people.length)].slice(0, PLACES.length);

/** The wishes of an evening that has begun start now. */
export function wishesOf(
  form: EveningForm,
  leftOut: readonly string[],
  pinned: Readonly<Record<string, number>>,
  names: readonly string[] = PLACES,
): TonightWishes {
  const { fromMs, toMs } = eveningOf(form);
  const now = Math.ceil(moment() / 300_000) * 300_000;
  return {
    evenings: [{ fromMs: now > fromMs && now < toMs ? now : fromMs, toMs }],
    usual: { fromMs, toMs },
    people: names.slice(0, form.people).map((name, at) => ({ name, can: canOf(form, at) })),
    ...{ guns: form.guns, atOnce: form.atOnce, leftOut, pinned },
  };
}

/** What is wished, kept on this device for the next evening; what is pinned and left out is for this one. */
export function useWishes(people: readonly string[] = []) {
  const [form, setForm] = useState(usual);
  const [leftOut, setLeftOut] = useState<readonly string[]>([]);
  const [pinned, setPinned] = useState<Readonly<Record<string, number>>>({});
  const said = people.join('\n');
  const names = useMemo(() => namesOf(said ? said.split('\n') : []), [said]);
  const wishes = useMemo(() => wishesOf(form, leftOut, pinned, names), [form, leftOut, pinned, names]);
  return {
    form,
    names,
    wishes,
    leftOut,
    pinned,
    change(part: Partial<EveningForm>) {
      const next = { ...form, ...part };
      localStorage.setItem(KEY, JSON.stringify(next));
      setForm(next);
      // A pinned beginning is counted from the evening's own.
      setPinned({});
    },
    leave: (id: string) => setLeftOut(leftOut.includes(id) ? leftOut.filter((each) => each !== id) : [...leftOut, id]),
    pin: (taskId: string, startS: number) => setPinned({ ...pinned, [taskId]: Math.max(0, startS) }),
    unpin: (taskId: string) => setPinned(Object.fromEntries(Object.entries(pinned).filter(([id]) => id !== taskId))),
  };
}
export type Wishes = ReturnType<typeof useWishes>;
