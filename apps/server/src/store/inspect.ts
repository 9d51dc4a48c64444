import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { newestCopy } from './copies-on-disk.ts';
import type { Ask } from './database.ts';
import { Fault } from './fault.ts';
import { wrongWithFile } from './wrong-with-file.ts';

export const databaseIn = (folder: string) => join(folder, 'schmelz.sqlite');

/** A database as messages name it, and what can be done where it cannot be used. */
export interface Named {
  called: string;
  advice(): string;
}

/** The workshop of a data folder. */
export const workshopIn = (folder: string): Named => ({
  called: databaseIn(folder),
  advice() {
    const newest = newestCopy(folder);
    return newest
      ? `Put the newest copy in its place: ${newest}.`
      : 'There is no copy in its folder backups: put back one of your own.';
  },
});

/**
 * Looks at a database before anything opens it: what is empty beside a copy, cut or no database at all is not written
 * over.
 * @throws Fault in words, with what to do
 */
export function inspectFile(file: string, { called, advice }: Named, mayBeNew: boolean): void {
  if (!existsSync(file)) return;
  const wrong = wrongWithFile(file);
  if (wrong === null) return;
  if (wrong === 'is empty' && mayBeNew) return; // SQLite makes a new one of it, and nothing was there
  throw new Fault(`${called} ${wrong}. ${advice()}`);
}

/** Asks SQLite itself whether the pages of a database hang together. @throws Fault in words, with what to do */
export async function quickCheck(ask: Ask, { called, advice }: Named): Promise<void> {
  let answer = '';
  try {
    const [row] = await ask<{ quick_check: string }>('PRAGMA quick_check(1)');
    answer = row?.quick_check ?? 'no answer';
  } catch (error) {
    answer = (error as Error).message;
  }
  const says = answer.replaceAll(/\*{3}[^*]*\*{3}|\s+/g, ' ').trim();
  if (answer !== 'ok') throw new Fault(`${called} is damaged (${says}). ${advice()}`);
}
