import type { ImportResult, Material } from '@schmelz/contract';
import { guessPurchases, PURCHASE_FIELDS, readPurchases, type PurchaseMapping } from '@schmelz/core';
import { useMemo } from 'react';
import { call } from '../../api/client.ts';
import { useList } from '../../api/queries.ts';
import { writeDay } from '../../units/dates.ts';
import { useUnits } from '../../units/Units.tsx';
import { ROWS_SHOWN, TakeInList, type ListKind } from '../../lists/TakeInList.tsx';
import { isMapped, listedMaterials, PurchaseColumns } from './PurchaseColumns.tsx';

/** What a file would bring in, before it does. */
function Purchases({ result }: { result: ImportResult }) {
  const units = useUnits();
  return (
    <table className="sheet-table">
      <tbody>
        {result.purchases.slice(0, ROWS_SHOWN).map(({ line, material, kind, quantity, priceMinor, on, lot }) => (
          <tr key={line}>
            <td className="text-sm whitespace-nowrap text-ink-3">{writeDay(on)}</td>
            <td>
              {material}
              {lot && <span className="quiet block">{lot}</span>}
            </td>
            <td className="num">{units.part(kind, quantity)}</td>
            <td className="num">{units.money(priceMinor)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

const purchasesFor = (materials: readonly Material[]): ListKind<PurchaseMapping, ImportResult> => ({
  ...{ kind: 'receipts', one: 'purchase', many: 'purchases', columns: PURCHASE_FIELDS },
  guess: ({ headings, rows }) => guessPurchases(headings, rows, listedMaterials(materials)),
  isMapped,
  isUnderstood: ({ names }) => Object.values(names).every((name) => name !== null),
  // In names of Stock, its units and its way to write a day.
  read: ({ rows }, mapping) => readPurchases(rows, mapping, listedMaterials(materials)),
  send: (query) => (body) => call('POST /materials/import', { query, body }),
  ask: (list, mapping, onChange) => <PurchaseColumns {...{ list, mapping, materials, onChange }} />,
  show: (result) => <Purchases result={result} />,
});

/** A list of purchases, whatever its columns are called. */
export function ImportForm() {
  const { data: materials } = useList('materials');
  const kind = useMemo(() => purchasesFor(materials ?? []), [materials]);
  return <TakeInList of={kind} />;
}
