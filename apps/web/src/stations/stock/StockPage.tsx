import { partKind } from '@schmelz/core';
import type { Material } from '@schmelz/contract';
import {
  createColumnHelper,
  flexRender,
  getCoreRowModel,
  getSortedRowModel,
  useReactTable,
  type SortingState,
} from '@tanstack/react-table';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { useList } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { Waiting } from '../../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { Sheet } from '../../design/Sheet.tsx';
import { PutAway } from '../../shell/PutAway.tsx';
import { Swatch } from '../../shell/Swatch.tsx';
import { useLow } from '../../shell/low.ts';
import { useReserved } from '../../shell/reserved.ts';
import { useUnits } from '../../units/Units.tsx';
import { ImportForm } from './ImportForm.tsx';
import { MaterialForm } from './MaterialForm.tsx';
import { MaterialSheet } from './MaterialSheet.tsx';
import { Shelves } from './Shelves.tsx';

const column = createColumnHelper<Material>();

export function StockPage() {
  const { data: materials, error } = useList('materials');
  const units = useUnits();
  const [sorting, setSorting] = useState<SortingState>([{ id: 'kind', desc: true }]);
  const [chosen, setChosen] = useState<string | null>(null);
  const columns = useMemo(
    () => [
      column.accessor('name', {
        header: 'Material',
        cell: ({ row, getValue }) => (
          <button
            type="button"
            className="flex items-center gap-2.5 text-left font-medium hover:underline"
            onClick={() => setChosen(row.original.id)}
          >
            <Swatch material={row.original} /> {getValue()}
          </button>
        ),
      }),
      column.accessor('kind', { header: 'Kind', cell: ({ getValue }) => partKind(getValue()).name }),
      column.accessor('quantity', {
        header: 'Here',
        cell: ({ row: { original } }) => (
          <span className={`font-semibold ${original.quantity < 0 ? 'text-stop' : ''}`}>
            {units.part(original.kind, original.quantity)}
            {original.inPotKg > 0 && (
              <span className="quiet block">{units.bulk(original.inPotKg)} of it in the pot</span>
            )}
          </span>
        ),
      }),
      column.accessor('averageMinor', {
        header: 'Paid, on average',
        cell: ({ row: { original } }) =>
          original.averageMinor === null
            ? '–'
            : partKind(original.kind).unit === 'pieces'
              ? `${units.money(original.averageMinor, 1)} each`
              : `${units.money(original.averageMinor)}/${partKind(original.kind).unit}`,
      }),
      column.accessor('valueMinor', { header: 'Worth', cell: ({ getValue }) => units.money(getValue()) }),
    ],
    [units],
  );
  const [away, setAway] = useState(false);
  const [asList, setAsList] = useState(false);
  const low = useLow(useReserved());
  const listed = useMemo(() => (materials ?? []).filter((each) => Boolean(each.archived) === away), [away, materials]);
  const table = useReactTable({
    data: listed,
    columns,
    state: { sorting },
    onSortingChange: setSorting,
    getCoreRowModel: getCoreRowModel(),
    getSortedRowModel: getSortedRowModel(),
  });
  if (!materials) return <Waiting error={error} />;
  const worth = materials.reduce((sum, each) => sum + each.valueMinor, 0);
  const lead = units.bulkParts(
    materials.filter((each) => each.kind === 'lead').reduce((sum, each) => sum + each.quantity, 0),
  );
  const open = materials.find((each) => each.id === chosen);
  return (
    <Page
      stub={
        <>
          <TheNumber value={lead.figure} unit={lead.unit}>
            of clean lead on the shelf
          </TheNumber>
          <p className="text-ink-2">All that is here was bought for {units.money(worth)}.</p>
          <div className="flex flex-wrap gap-4">
            <Sheet
              title="A new material"
              says="Lead, a hook, a powder, or any other part. What you have of it comes next."
              trigger={<Button look="main">New material</Button>}
            >
              <MaterialForm />
            </Sheet>
            <Sheet
              title="Purchases from a list"
              says="A list out of a spreadsheet, with a line of headings and a row a purchase: what was bought, how much, what was paid, the day."
              trigger={<Button>Import CSV</Button>}
            >
              <ImportForm />
            </Sheet>
          </div>
          <button type="button" className="self-start underline underline-offset-4" onClick={() => setAsList(!asList)}>
            {asList ? 'As it stands there' : 'As a list, with what was paid'}
          </button>
          <Link className="underline underline-offset-4" to="/stock/count">
            Count it, shelf by shelf
          </Link>
          <Link className="underline underline-offset-4" to="/stock/parcel">
            A parcel came
          </Link>
          <Link className="underline underline-offset-4" to="/stock/buy">
            What to buy, and where
          </Link>
          <Link className="underline underline-offset-4" to="/stock/make">
            What can be made of it
          </Link>
          <Link className="underline underline-offset-4" to="/stock/goods">
            Finished heads
          </Link>
          <a className="quiet underline underline-offset-4" href="/api/export/moves.csv">
            All movements as CSV
          </a>
        </>
      }
    >
      <Heading
        aside={
          away || materials.some((each) => each.archived) ? (
            <button type="button" className="underline underline-offset-4" onClick={() => setAway(!away)}>
              {away ? 'What is on the shelf' : `Put away: ${materials.filter((each) => each.archived).length}`}
            </button>
          ) : (
            `${materials.length} materials`
          )
        }
      >
        {away ? 'Put away' : asList ? 'Stock' : 'On the shelves'}
      </Heading>
      {!asList && !away && <Shelves materials={listed} low={low} onOpen={setChosen} />}
      {(asList || away) && (
        <div className="overflow-x-auto">
          <table className="sheet-table min-w-[560px]">
            <thead>
              {table.getHeaderGroups().map((group) => (
                <tr key={group.id}>
                  {group.headers.map((header, index) => (
                    <th
                      key={header.id}
                      className={index > 1 ? 'num' : ''}
                      aria-sort={
                        header.column.getIsSorted() === 'asc'
                          ? 'ascending'
                          : header.column.getIsSorted() === 'desc'
                            ? 'descending'
                            : 'none'
                      }
                    >
                      <button
                        type="button"
                        onClick={header.column.getToggleSortingHandler()}
                        className="hover:text-ink"
                      >
                        {flexRender(header.column.columnDef.header, header.getContext())}
                        {{ asc: ' ↑', desc: ' ↓' }[header.column.getIsSorted() as string] ?? ''}
                      </button>
                    </th>
                  ))}
                </tr>
              ))}
            </thead>
            <tbody>
              {table.getRowModel().rows.map((row) => (
                <tr key={row.id}>
                  {row.getVisibleCells().map((cell, index) => (
                    <td key={cell.id} className={index > 1 ? 'num' : ''}>
                      {flexRender(cell.column.columnDef.cell, cell.getContext())}
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      {materials.length === 0 && (
        <p className="quiet mt-3">Nothing yet. Begin with lead and the hooks you have most of.</p>
      )}
      <Sheet
        open={!!open}
        onOpenChange={(stays) => !stays && setChosen(null)}
        title={open?.name ?? ''}
        says={open?.note}
      >
        {open && (
          <>
            <MaterialSheet material={open} />
            <div className="mt-6">
              <Heading>What it is</Heading>
              <MaterialForm key={open.version} material={open} />
            </div>
            <div className="mt-6">
              <PutAway path="materials" thing={open} onGone={() => setChosen(null)} />
            </div>
          </>
        )}
      </Sheet>
    </Page>
  );
}
