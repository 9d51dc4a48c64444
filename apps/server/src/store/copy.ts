import { makeWhole, type Backup } from './copies-on-disk.ts';
import { quoted, withDatabase, type Ask } from './database.ts';
import { Fault } from './fault.ts';
import { quickCheck } from './inspect.ts';

/** What comes and goes by itself, so that two counts of it need not be the same. */
const PASSING: readonly string[] = ['sessions', 'ticketFigures', 'readingTail', 'readingBlocks', 'sqlite_sequence'];

/** How many rows each table has, and the last of them. */
async function rowsIn(ask: Ask): Promise<string> {
  const tables = await ask<{ name: string }>("SELECT name FROM sqlite_master WHERE type = 'table' ORDER BY name");
  const counts: string[] = [];
  for (const { name } of tables) {
    if (PASSING.includes(name)) continue;
    const [row] = await ask<{ rows: number }>(`SELECT COUNT(*) AS rows FROM ${quoted(name)}`);
    counts.push(`${name} ${row!.rows}`);
  }
  return counts.join(', ');
}

/**
 * Writes what a database holds into an empty file and looks whether all of it is there: what came to it meanwhile may
 * stand in one and not in the other, and is told from a copy that is not whole by doing it again.
 * @returns whether the copy is known to be whole
 */
export async function copied(source: Ask, file: string): Promise<boolean> {
  const before = await rowsIn(source);
  await source('VACUUM INTO ?', [file]);
  const after = await rowsIn(source);
  return withDatabase(file, async ({ ask }) => {
    await quickCheck(ask, { called: 'The copy that was just made', advice: () => 'Look after the disk.' });
    const there = await rowsIn(ask);
    return there === before || there === after;
  });
}

export const NOT_WHOLE = 'The copy that was just made does not hold what the workshop holds: look after the disk.';

/** Copies a database before anything is changed in it; nobody else writes to it. */
export const copyBefore = (folder: string, why: `before-${string}`, source: Ask): Promise<Backup> =>
  makeWhole(folder, why, async (file) => {
    if (!(await copied(source, file))) throw new Fault(NOT_WHOLE);
  });
