import type { Entry } from '@schmelz/core';
import { writeSpan } from '@schmelz/core';
import type { Units } from '../units/Units.tsx';

/** What entries of every kind may carry beside their id, time and kind. */
type Said = Entry & {
  count?: number;
  step?: string;
  cause?: string;
  position?: number;
  positions?: readonly number[];
  goes?: string;
  massKg?: number;
  open?: boolean;
  away?: boolean;
  what?: string;
  left?: number;
  paint?: string;
  coolS?: number;
  setC?: number;
  seconds?: number;
};

const cavity = ({ position }: Said) => (position === undefined ? '' : `, cavity ${position}`);

/** Each kind of entry as a maker would say it. */
const WORDS: Record<string, (said: Said, units: Units) => string> = {
  start: () => 'begun',
  good: ({ count }) => `${count ?? 0} good`,
  reject: (said) =>
    `${said.count ?? 1} not good: ${said.cause ?? 'no cause'}${cavity(said)}${said.goes ? `, to ${said.goes}` : ''}`,
  pause: () => 'pause',
  resume: () => 'on again',
  load: ({ count, setC }, units) =>
    `${count ?? ''} into the oven${setC === undefined ? '' : ` at ${units.temperature(setC)}`}`.trim(),
  unload: ({ coolS }) => `out of the oven${coolS ? `, cooling ${writeSpan(coolS)}` : ''}`,
  warm: () => 'the metal is warm: the clock runs',
  door: ({ open }) => (open ? 'door open' : 'door shut'),
  coat: ({ paint }) => `a coat${paint ? ` of ${paint}` : ''}`,
  spoiled: ({ count }) => `${count ?? 1} of a part broke`,
  mixed: () => 'glue mixed',
  minutes: ({ seconds }) => `${writeSpan(seconds ?? 0)} of work, said by hand`,
  sprue: ({ massKg }, units) => `${units.bulk(massKg ?? 0)} of sprues weighed`,
  take: ({ count }) => `${count ?? 0} taken off the shelf`,
  charge: ({ massKg }, units) => `${units.bulk(massKg ?? 0)} into the pot`,
  feed: ({ massKg }, units) => `${units.bulk(massKg ?? 0)} fed to the pot`,
  blank: () => 'a blank shot',
  shot: ({ positions }) => `poured, ${positions?.length ?? 0} cavities`,
  smoked: () => 'mold smoked',
  blocked: (said) => `left out for tonight${cavity(said)}`,
  mold: ({ away }) => (away ? 'mold put away' : 'mold brought to the pot'),
  hooks: ({ left }) => `${left ?? 0} hooks left, counted`,
  weighed: (said, units) => `${units.head(said.massKg ?? 0)} on the scale${cavity(said)}`,
  checked: () => 'safety list ticked',
  done: ({ what }) => what ?? 'done',
  begin: () => 'session begun',
  stirred: () => 'jar stirred',
  end: () => 'session over',
  close: () => 'closed',
  undo: () => 'taken back',
};

/** An entry in a few words, with the step it was made at. */
export function entryInWords(entry: Entry, units: Units): string {
  const said = entry as Said;
  const words = WORDS[said.kind]?.(said, units) ?? said.kind;
  return said.step ? `${words}, at ${said.step}` : words;
}
