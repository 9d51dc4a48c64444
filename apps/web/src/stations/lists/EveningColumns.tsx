import {
  DAY_ORDERS,
  EVENING_FIELDS,
  guessEvenings,
  TIME_UNITS,
  type DayOrder,
  type EveningField,
  type EveningMapping,
  type NamedThing,
  type TimeUnit,
} from '@schmelz/core';
import { asOptions, Choice } from '../../design/Field.tsx';
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
  list: { headings, rows },
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
  // A column that is named says anew how its days and its times are written.
  const put = (field: EveningField, heading: string) =>
    onChange(guessEvenings(headings, rows, things, { ...mapping.columns, [field]: heading || null }));
  const first = (field: EveningField) => {
    const heading = mapping.columns[field];
    return heading === null ? undefined : `The first: ${rows[0]?.[heading] || 'nothing'}`;
  };
  const names = Object.entries(mapping.names);
  return (
    <div className="flex flex-col gap-4">
      <div className="grid gap-4 sm:grid-cols-2">
        {EVENING_FIELDS.map((field) => (
          <Choice
            key={field}
            label={ASKS[field]}
            hint={first(field)}
            options={[{ value: '', label: 'no column' }, ...asOptions(headings)]}
            value={mapping.columns[field] ?? ''}
            onChange={(event) => put(field, event.target.value)}
          />
        ))}
        <Choice
          label="Days are written"
          options={asOptions(DAY_ORDERS)}
          value={mapping.days}
          onChange={(event) => change({ days: event.target.value as DayOrder })}
        />
        <Choice
          label="Times without a unit are in"
          options={asOptions(TIME_UNITS)}
          value={mapping.time}
          onChange={(event) => change({ time: event.target.value as TimeUnit })}
        />
      </div>
      {names.length > 0 && (
        <table className="sheet-table">
          <thead>
            <tr>
              <th>The log says</th>
              <th>Here it is</th>
            </tr>
          </thead>
          <tbody>
            {names.map(([said, thing]) => (
              <tr key={said}>
                <td>{said}</td>
                <td>
                  <select
                    aria-label={`${said} is`}
                    className="field"
                    value={keyOf(thing)}
                    onChange={(event) => {
                      const meant = things.find((each) => keyOf(each) === event.target.value) ?? null;
                      change({ names: { ...mapping.names, [said]: meant } });
                    }}
                  >
                    <option value="">none of these: kept by its name</option>
                    {things.map((each) => (
                      <option key={keyOf(each)} value={keyOf(each)}>
                        {each.kind === 'mold' ? `the mold ${each.name}` : each.name}
                      </option>
                    ))}
                  </select>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </div>
  );
}
