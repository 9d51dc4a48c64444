import { DAY_ORDERS, type DayOrder } from '@schmelz/core';
import type { ReactNode } from 'react';
import { asOptions, Choice } from '../design/Field.tsx';
import type { ListFile } from './TakeInList.tsx';

/** Which column each field of a list is under, with the first cell below it; and how its days are written. */
export function ColumnChoices<F extends string>({
  list: { headings, rows },
  asks,
  columns,
  mayMiss,
  days,
  onPut,
  onDays,
  children,
}: {
  list: ListFile;
  /** What is asked of each field, in the order of asking. */
  asks: Record<F, string>;
  columns: Record<F, string | null>;
  /** Whether a list may be without it. */
  mayMiss: (field: F) => boolean;
  days: DayOrder;
  onPut: (field: F, heading: string | null) => void;
  onDays: (days: DayOrder) => void;
  /** What else is asked of this kind of list. */
  children?: ReactNode;
}) {
  const first = (field: F) => {
    const heading = columns[field];
    return heading === null ? undefined : `The first: ${rows[0]?.[heading] || 'nothing'}`;
  };
  return (
    <div className="grid gap-4 sm:grid-cols-2">
      {(Object.keys(asks) as F[]).map((field) => (
        <Choice
          key={field}
          label={asks[field]}
          hint={first(field)}
          options={[{ value: '', label: mayMiss(field) ? 'no column' : 'choose a column' }, ...asOptions(headings)]}
          value={columns[field] ?? ''}
          onChange={(event) => onPut(field, event.target.value || null)}
        />
      ))}
      {children}
      <Choice
        label="Days are written"
        options={asOptions(DAY_ORDERS)}
        value={days}
        onChange={(event) => onDays(event.target.value as DayOrder)}
      />
    </div>
  );
}

/** What names of a list mean here, each to be chosen. */
export function NameChoices({
  says,
  here,
  names,
  options,
  onChange,
}: {
  /** The headings: what the list says, and what it is here. */
  says: string;
  here: string;
  /** By what the list says; empty where none is chosen. */
  names: readonly (readonly [said: string, value: string])[];
  options: readonly { value: string; label: string }[];
  onChange: (said: string, value: string) => void;
}) {
  if (names.length === 0) return null;
  return (
    <table className="sheet-table">
      <thead>
        <tr>
          <th>{says}</th>
          <th>{here}</th>
        </tr>
      </thead>
      <tbody>
        {names.map(([said, value]) => (
          <tr key={said}>
            <td>{said}</td>
            <td>
              <select
                aria-label={`${said} is`}
                className="field"
                value={value}
                onChange={(event) => onChange(said, event.target.value)}
              >
                {options.map((option) => (
                  <option key={option.value} value={option.value}>
                    {option.label}
                  </option>
                ))}
              </select>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
