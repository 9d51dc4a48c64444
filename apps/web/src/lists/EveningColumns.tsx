import {
  guessEvenings,
  TIME_UNITS,
  type EveningField,
  type EveningMapping,
  type NamedThing,
  type TimeUnit,
} from '@schmelz/core';
import { asOptions, Choice } from '../design/Field.tsx';
import { ColumnChoices, NameChoices } from './ListColumns.tsx';
import type { ListFile } from './TakeInList.tsx';

const ASKS: Record<EveningField, string> = {
  on: 'The day is in',
  what: 'The mold or the head is in',
  good: 'Good heads are in',
  bad: 'Bad ones are in',
  casts: 'All that was cast is in',
  time: 'How long it took is in',
  note: 'A note is in',
};

/** Whether the day and some heads have their columns. */
export const isMapped = ({ columns }: EveningMapping): boolean =>
  columns.on !== null && (columns.good !== null || columns.casts !== null);

const keyOf = (thing: NamedThing | null) => (thing ? `${thing.kind} ${thing.name}` : '');

/** How a log is read, as guessed; each guess can be said otherwise, and names that are not known are asked. */
export function EveningColumns({
  list,
  mapping,
  things,
  onChange,
}: {
  list: ListFile;
  mapping: EveningMapping;
  things: readonly NamedThing[];
  onChange: (mapping: EveningMapping) => void;
}) {
  const change = (more: Partial<EveningMapping>) => onChange({ ...mapping, ...more });
  return (
    <div className="flex flex-col gap-4">
      <ColumnChoices
        {...{ list, asks: ASKS, columns: mapping.columns, days: mapping.days }}
        mayMiss={(field) => field !== 'on'}
        // A column that is named says anew how its days and its times are written.
        onPut={(field, heading) =>
          onChange(guessEvenings(list.headings, list.rows, things, { ...mapping.columns, [field]: heading }))
        }
        onDays={(days) => change({ days })}
      >
        <Choice
          label="Times without a unit are in"
          options={asOptions(TIME_UNITS)}
          value={mapping.time}
          onChange={(event) => change({ time: event.target.value as TimeUnit })}
        />
      </ColumnChoices>
      <NameChoices
        says="The log says"
        here="Here it is"
        names={Object.entries(mapping.names).map(([said, thing]) => [said, keyOf(thing)])}
        options={[
          { value: '', label: 'none of these: kept by its name' },
          ...things.map((each) => ({
            value: keyOf(each),
            label: each.kind === 'mold' ? `the mold ${each.name}` : each.name,
          })),
        ]}
        onChange={(said, value) => {
          const meant = things.find((each) => keyOf(each) === value) ?? null;
          change({ names: { ...mapping.names, [said]: meant } });
        }}
      />
    </div>
  );
}
