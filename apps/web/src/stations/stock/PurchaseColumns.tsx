import type { Material } from '@schmelz/contract';
import {
  LIST_UNITS,
  PURCHASE_FIELDS,
  guessPurchases,
  partKind,
  type ListedMaterial,
  type ListUnit,
  type PurchaseField,
  type PurchaseMapping,
} from '@schmelz/core';
import { asOptions, Choice } from '../../design/Field.tsx';
import { ColumnChoices, NameChoices } from '../../lists/ListColumns.tsx';
import type { ListFile } from '../../lists/TakeInList.tsx';

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
  list,
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
  const put = (field: PurchaseField, heading: string | null) => {
    const columns = { ...mapping.columns, [field]: heading };
    const guess = guessPurchases(list.headings, list.rows, listedMaterials(materials), columns);
    onChange({ ...guess, priceIs: mapping.priceIs });
  };
  const known = new Set(materials.map(({ name }) => name));
  const asked = Object.entries(mapping.names).filter(([said, name]) => !known.has(said) || name !== said);
  const left = asked.filter(([, name]) => name === null).length;
  return (
    <div className="flex flex-col gap-4">
      <ColumnChoices
        {...{ list, asks: ASKS, columns: mapping.columns, days: mapping.days }}
        mayMiss={(field) => field === 'lot'}
        onPut={put}
        onDays={(days) => change({ days })}
      >
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
      </ColumnChoices>
      <NameChoices
        says="The list says"
        here={left > 0 ? `In Stock it is (${left} not known yet)` : 'In Stock it is'}
        names={asked.map(([said, name]) => [said, name ?? ''])}
        options={[{ value: '', label: 'left out' }, ...asOptions(materials.map(({ name }) => name))]}
        onChange={(said, value) => change({ names: { ...mapping.names, [said]: value || null } })}
      />
    </div>
  );
}
