import { standing, type Entry, type UndoEntry } from '@schmelz/core';
import { writeDay, writeTime } from '../units/dates.ts';
import { useUnits } from '../units/Units.tsx';
import { entryInWords } from './entry-words.ts';

/** Every entry of a log as it was said, newest first: what was taken back is struck, a time put right says so. */
export function EntryList({ log }: { log: readonly (Entry | UndoEntry)[] }) {
  const units = useUnits();
  if (log.length === 0) return null;
  const stands = new Set(standing(log).map(({ id }) => id));
  // By time: what a ticket's oven loads say is mixed in with its own.
  const said = log.filter(({ kind }) => kind !== 'undo').sort((a, b) => b.at - a.at);
  const back = said.length - stands.size;
  return (
    <details className="mt-8">
      <summary className="cursor-pointer">
        <h2 className="stamp inline text-[17px]">Every entry</h2>
        <span className="quiet ml-4">{back ? `${said.length}, ${back} of them taken back` : said.length}</span>
      </summary>
      <ul className="mt-2 max-w-[680px]">
        {said.map((entry) => (
          <li key={entry.id} className="grid grid-cols-[150px_1fr] gap-x-4 border-b border-rule py-1.5">
            <span className="text-ink-3">
              {writeDay(entry.at)} {writeTime(entry.at)}
            </span>
            <span>
              <span className={stands.has(entry.id) ? '' : 'text-ink-3 line-through'}>
                {entryInWords(entry, units)}
              </span>
              {!stands.has(entry.id) && <span className="sr-only">, taken back</span>}
              {entry.who !== undefined && <span className="quiet ml-3">by {entry.who}</span>}
              {entry.saidAt !== undefined && (
                <span className="quiet ml-3">
                  time put right: that device said {writeDay(entry.saidAt)} {writeTime(entry.saidAt)}
                </span>
              )}
            </span>
          </li>
        ))}
      </ul>
    </details>
  );
}
