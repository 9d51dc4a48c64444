import type { ReactNode } from 'react';
import { Head } from '../../drawing/Head.tsx';
import { BARE } from '../../drawing/paint.ts';
import type { Catalogue } from '../../shell/catalogue.ts';
import type { GridColumn, GridRow } from './grid.ts';

/** Heads down, paints across: what is said of each cell is the caller's. */
export function HeadGrid({
  rows,
  columns,
  catalogue,
  label,
  cell,
}: {
  rows: readonly GridRow[];
  columns: readonly GridColumn[];
  catalogue: Catalogue;
  label: string;
  cell: (row: GridRow, column: GridColumn) => ReactNode;
}) {
  return (
    <div className="overflow-x-auto">
      <table className="border-collapse" aria-label={label}>
        <thead>
          <tr>
            <td />
            {columns.map(({ key, name, recipe }) => (
              <th key={key} scope="col" className="w-[92px] px-1 pb-2 align-bottom text-left text-sm font-medium">
                <Head
                  {...{ style: 'ball', massKg: 0.01, hookSize: null, eyeAngleDeg: 60 }}
                  paint={recipe ? catalogue.paintOfRecipe(recipe) : BARE}
                  state={recipe ? 'baked' : 'blank'}
                  scale={2.4}
                  className="mb-1 block"
                />
                {name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.key} className="border-t border-rule">
              <th scope="row" className="min-w-[250px] py-1.5 pr-4 text-left font-medium">
                <span className="flex items-center gap-3">
                  <span className="grid w-[76px] shrink-0 justify-items-start">
                    <Head {...row.spec} paint={BARE} state="blank" scale={1.3} className="max-h-11 max-w-full" />
                  </span>
                  <span>
                    {row.name}
                    <span className="quiet block whitespace-nowrap">
                      {row.hookId ? catalogue.materials.get(row.hookId)?.name : 'no hook'}
                    </span>
                  </span>
                </span>
              </th>
              {columns.map((column) => (
                <td key={column.key} className="px-1 py-1.5">
                  {cell(row, column)}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
