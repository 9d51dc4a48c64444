import type { Material } from '@schmelz/contract';
import {
  DAY_ORDERS,
  LIST_UNITS,
  PURCHASE_FIELDS,
  guessPurchases,
  partKind,
  type DayOrder,
  type ListedMaterial,
  type ListUnit,
  type PurchaseField,
  type PurchaseMapping,
} from '@schmelz/core';
import { asOptions, Choice } from '../../design/Field.tsx';
import type { ListFile } from '../lists/TakeInList.tsx';

const ASKS: Record<PurchaseField, string> = {
  material: 'What was bought is in',
  quantity: 'How much is in',
  price: 'What was paid is in',
  on: 'The day is in',
  lot: 'Its lot or a note is in',
};

/** What is bought and how it is counted. */
export const listedMaterials = (materials: readonly Material[]): ListedMaterial[] =>
  materials.map(({ name, kind }) => ({ name, byMass: partKind(kind).unit === 'kg' }));

/** Whether every field that must be said has its column. */
export const isMapped = ({ columns }: PurchaseMapping): boolean =>
  PURCHASE_FIELDS.every((field) => field === 'lot' || columns[field] !== null);

/** How a list is read, as guessed; each guess can be said otherwise, and names that Stock does not know are asked. */
export function PurchaseColumns({
  list: { headings, rows },
  mapping,
  materials,
  onChange,
}: {
  list: ListFile;
  mapping: PurchaseMapping;
  materials: readonly Material[];
  onChange: (mapping: PurchaseMapping) => void;
}) {
  const change = (more: Partial<PurchaseMapping>) => onChange({ ...mapping, ...more });
  // A column that is named says anew in which unit it is, and how its days are written.
  const put = (field: PurchaseField, heading: string) => {
    const columns = { ...mapping.columns, [field]: heading || null };
    onChange({ ...guessPurchases(headings, rows, listedMaterials(materials), columns), priceIs: mapping.priceIs });
  };
  const first = (field: PurchaseField) => {
    const heading = mapping.columns[field];
    return heading === null ? undefined : `The first: ${rows[0]?.[heading] || 'nothing'}`;
  };
  const known = new Set(materials.map(({ name }) => name));
  const asked = Object.entries(mapping.names).filter(([said, name]) => !known.has(said) || name !== said);
  const left = asked.filter(([, name]) => name === null).length;
  return (
    <div className="flex flex-col gap-4">
      <div className="grid gap-4 sm:grid-cols-2">
        {PURCHASE_FIELDS.map((field) => (
          <Choice
            key={field}
            label={ASKS[field]}
            hint={first(field)}
            options={[{ value: '', label: field === 'lot' ? 'no column' : 'choose a column' }, ...asOptions(headings)]}
            value={mapping.columns[field] ?? ''}
            onChange={(event) => put(field, event.target.value)}
          />
        ))}
        <Choice
          label="Weights without a unit are in"
          options={asOptions(LIST_UNITS)}
          value={mapping.unit}
          onChange={(event) => change({ unit: event.target.value as ListUnit })}
        />
        <Choice
          label="What was paid is"
          options={asOptions(['for all of it', 'for each'])}
          value={mapping.priceIs}
          onChange={(event) => change({ priceIs: event.target.value as PurchaseMapping['priceIs'] })}
        />
        <Choice
          label="Days are written"
          options={asOptions(DAY_ORDERS)}
          value={mapping.days}
          onChange={(event) => change({ days: event.target.value as DayOrder })}
        />
      </div>
      {asked.length > 0 && (
        <table className="sheet-table">
          <thead>
            <tr>
              <th>The list says</th>
              <th>{left > 0 ? `In Stock it is (${left} not known yet)` : 'In Stock it is'}</th>
            </tr>
          </thead>
          <tbody>
            {asked.map(([said, name]) => (
              <tr key={said}>
                <td>{said}</td>
                <td>
                  <select
                    aria-label={`${said} is`}
                    className="field"
                    value={name ?? ''}
                    onChange={(event) => change({ names: { ...mapping.names, [said]: event.target.value || null } })}
                  >
                    <option value="">left out</option>
                    {materials.map((each) => (
                      <option key={each.id} value={each.name}>
                        {each.name}
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
