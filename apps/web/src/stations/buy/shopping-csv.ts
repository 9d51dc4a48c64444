import type { Shopping } from '@schmelz/core';
import Papa from 'papaparse';

/** The list as a table that every spreadsheet reads; a name that it would run is kept as text. */
export function shoppingCsv(shopping: Shopping, nameOf: (materialId: string) => string, digits: number): string {
  const money = (minor: number) => (minor / 10 ** digits).toFixed(digits);
  const rows = shopping.bought.map(({ supplier, materialId, packs, quantity, minor }) => [
    ...[supplier, nameOf(materialId), packs, quantity / packs, quantity, money(minor)],
  ]);
  const freight = shopping.freight
    .filter(({ freightMinor }) => freightMinor > 0)
    .map(({ supplier, freightMinor }) => [supplier, 'freight', '', '', '', money(freightMinor)]);
  const fields = ['supplier', 'material', 'packs', 'in a pack', 'quantity', 'price'];
  return Papa.unparse({ fields, data: [...rows, ...freight] }, { escapeFormulae: true });
}
