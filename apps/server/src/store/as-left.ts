import { existsSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { answers } from '../openapi/answers.ts';
import { createHash } from 'node:crypto';
import { databaseIn } from './inspect.ts';

const markIn = (folder: string) => join(folder, 'as-left.json');

/** What pages read today: a newer Schmelz may read more, and looks again. */
const PAGES = createHash('sha256').update(JSON.stringify(answers.definitions)).digest('hex').slice(0, 16);

/** A database by its size and the time at which it was last written; null while its log lies beside it. */
function markOf(folder: string): string | null {
  const file = databaseIn(folder);
  if (!existsSync(file) || existsSync(`${file}-wal`)) return null;
  const { size, mtimeMs } = statSync(file);
  return JSON.stringify({ size, mtimeMs, pages: PAGES });
}

/** Whether a database is as it was when {@link leave} was said of it. */
export function isAsLeft(folder: string): boolean {
  const mark = markIn(folder);
  return existsSync(mark) && readFileSync(mark, 'utf8') === markOf(folder);
}

/** Marks a database that was closed, so that it is seen who wrote to it since; one without a mark is read whole. */
export function leave(folder: string): void {
  const mark = markOf(folder);
  try {
    if (mark !== null) writeFileSync(markIn(folder), mark, { mode: 0o600 });
  } catch {
    // A folder that is gone, or a full disk: the next start reads it as a whole.
  }
}
