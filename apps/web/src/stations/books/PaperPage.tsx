import type { EveningOnPaper, EveningsResult, PaperView } from '@schmelz/contract';
import { guessEvenings, readEvenings, wilson, type EveningMapping, type NamedThing } from '@schmelz/core';
import { useInfiniteQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { call } from '../../api/client.ts';
import { useList } from '../../api/queries.ts';
import { Button } from '../../design/Button.tsx';
import { Waiting } from '../../design/Notice.tsx';
import { Heading, Page, TheNumber } from '../../design/Page.tsx';
import { writeDay } from '../../units/dates.ts';
import { EveningColumns, isMapped } from '../../lists/EveningColumns.tsx';
import { ROWS_SHOWN, TakeInList, type ListKind } from '../../lists/TakeInList.tsx';
import { BooksRooms } from './rooms.tsx';
import { ShareColumn } from './ShareColumn.tsx';

const COLUMNS = ['on', 'name', 'mold', 'product', 'good', 'casts', 'minutes', 'note'];

const whatSays = ({ name, mold, product }: EveningOnPaper) => mold ?? product ?? (name || 'not said');

/** An evening in a row: what it was, how many came out, of how many, how long. */
function EveningRow({ evening }: { evening: EveningOnPaper }) {
  const { on, name, good, casts, minutes, note } = evening;
  const what = whatSays(evening);
  return (
    <tr>
      <td className="whitespace-nowrap text-ink-3">{writeDay(on)}</td>
      <td>
        {what}
        {name && name.toLowerCase() !== what.toLowerCase() && <span className="quiet"> as “{name}”</span>}
        {note && <span className="quiet block">{note}</span>}
      </td>
      <td className="num">{good}</td>
      <td className="num">{casts ?? '–'}</td>
      <td className="num">{minutes === null ? '–' : `${Math.round(minutes)} min`}</td>
    </tr>
  );
}

function Evenings({ evenings }: { evenings: readonly (EveningOnPaper & { id?: string; line?: number })[] }) {
  return (
    <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="Evenings on paper">
      <table className="sheet-table min-w-[420px]">
        <thead>
          <tr>
            <th>Evening</th>
            <th>What</th>
            <th className="num">Good</th>
            <th className="num">Cast</th>
            <th className="num">Took</th>
          </tr>
        </thead>
        <tbody>
          {evenings.map((evening) => (
            <EveningRow key={evening.id ?? evening.line} evening={evening} />
          ))}
        </tbody>
      </table>
    </div>
  );
}

const logOf = (things: readonly NamedThing[]): ListKind<EveningMapping, EveningsResult> => ({
  ...{ kind: 'evenings', one: 'evening', many: 'evenings', columns: COLUMNS },
  guess: ({ headings, rows }) => guessEvenings(headings, rows, things),
  isMapped,
  isUnderstood: ({ names, columns }) => columns.what !== null && Object.values(names).every((thing) => thing !== null),
  read: ({ rows }, mapping) => readEvenings(rows, mapping),
  send: (query) => (body) => call('POST /evenings/import', { query, body }),
  ask: (list, mapping, onChange) => <EveningColumns {...{ list, mapping, things, onChange }} />,
  show: ({ evenings }) => <Evenings evenings={evenings.slice(0, ROWS_SHOWN)} />,
});

/** What the evenings come to, mold by mold: how many filled, and how long a head took. */
function ByName({ byName }: Pick<PaperView, 'byName'>) {
  const judged = byName.filter((each) => each.judged.casts > 0);
  const timed = byName.filter((each) => each.timed.good > 0 && each.timed.minutes > 0);
  return (
    <>
      {judged.length > 0 && (
        <section>
          <Heading aside="of evenings with all casts on them; below, how many were cast">How many were good</Heading>
          <ul className="flex flex-wrap gap-y-3" aria-label="How many were good">
            {judged.map(({ name, moldId, judged: { good, casts } }) => (
              <ShareColumn
                key={`${name} ${moldId}`}
                named
                name={name || 'not said'}
                share={good / casts}
                {...wilson(good / casts, casts)}
              >
                <p className="quiet">of {casts}</p>
              </ShareColumn>
            ))}
          </ul>
        </section>
      )}
      {timed.length > 0 && (
        <section>
          <Heading aside="of evenings with their time on them">How long a good head took</Heading>
          <ul className="max-w-[520px]">
            {timed.map(({ name, moldId, timed: { good, minutes } }) => (
              <li key={`${name} ${moldId}`} className="flex items-baseline justify-between border-b border-rule py-1.5">
                <span>{name || 'not said'}</span>
                <b className="fig text-[19px]">{Math.round((60 * minutes) / good)} s</b>
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  );
}

/** Three lines of an invented log, so that one knows what to type. */
const LIKE_THIS = [
  ['14.3.', 'ball, five up', '96', '14', '2:30', 'first with the new pot'],
  ['20.3.', 'ball, five up', '110', '4', '2:10', ''],
  ['2.4.', 'lent mold', '40', '', '', 'one hook box short'],
];

function LikeThis() {
  return (
    <figure aria-label="What a log may look like">
      <figcaption className="quiet mb-1">
        A line for each evening, as in any spreadsheet, saved as CSV. Columns may be called whatever you like, and cells
        may be empty.
      </figcaption>
      <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="A log, wider than a phone">
        <table className="sheet-table">
          <thead>
            <tr>
              {['Evening', 'What', 'Good', 'Bad', 'Took', 'Note'].map((heading) => (
                <th key={heading}>{heading}</th>
              ))}
            </tr>
          </thead>
          <tbody className="text-ink-2">
            {LIKE_THIS.map((row) => (
              <tr key={row[0]}>
                {row.map((cell, at) => (
                  <td key={`${row[0]} ${at}`} className="whitespace-nowrap">
                    {cell}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </figure>
  );
}

/** Evenings that were kept on paper before there was this: typed up, they come in whatever their columns are called. */
export function PaperPage() {
  const { data: molds } = useList('molds');
  const { data: products } = useList('products');
  const { data, error, fetchNextPage, hasNextPage, isFetchingNextPage } = useInfiniteQuery({
    queryKey: ['evenings', 'paper'],
    queryFn: ({ pageParam }) => call('GET /evenings/paper', { query: { skip: pageParam || undefined } }),
    initialPageParam: 0,
    getNextPageParam: (last, all) =>
      last.more ? all.reduce((sum, { evenings }) => sum + evenings.length, 0) : undefined,
  });
  const kind = useMemo(
    () =>
      logOf([
        ...(molds ?? []).map(({ name }): NamedThing => ({ kind: 'mold', name })),
        ...(products ?? []).map(({ name }): NamedThing => ({ kind: 'product', name })),
      ]),
    [molds, products],
  );
  const [first] = data?.pages ?? [];
  if (!first || !molds || !products) return <Waiting error={error} />;
  const evenings = data!.pages.flatMap((page) => page.evenings);
  return (
    <Page
      stub={
        <>
          {evenings.length > 0 ? (
            <TheNumber value={String(first.total.good)}>
              good heads of {first.total.evenings} {first.total.evenings === 1 ? 'evening' : 'evenings'} on paper
            </TheNumber>
          ) : (
            <h1 className="voice text-[25px]">What is in your notebook counts here too</h1>
          )}
          <p>
            A log from before, typed up: a line for each evening, with its day and its heads. Bad ones, the mold, the
            time and a note come along where they were written down.
          </p>
          <p className="quiet">
            They count in Months, and a mold that was never cast in here is planned by them. Nothing is taken off a
            shelf for them.
          </p>
        </>
      }
    >
      <BooksRooms />
      {/* Until there is something to read, taking it in is all there is to do. */}
      <div
        className={`grid gap-x-9 gap-y-7 ${evenings.length > 0 ? 'xl:grid-cols-[minmax(0,5fr)_minmax(0,4fr)]' : 'max-w-[680px]'}`}
      >
        <div className="flex min-w-0 flex-col gap-7">
          {evenings.length > 0 ? (
            <section>
              <Heading aside="newest first">Evening by evening</Heading>
              <Evenings evenings={evenings} />
              {hasNextPage && (
                <Button className="mt-3" disabled={isFetchingNextPage} onClick={() => void fetchNextPage()}>
                  Older ones
                </Button>
              )}
            </section>
          ) : (
            <LikeThis />
          )}
          <ByName byName={first.byName} />
        </div>
        <section className="min-w-0">
          <Heading>Take a log in</Heading>
          <TakeInList of={kind} />
        </section>
      </div>
    </Page>
  );
}
