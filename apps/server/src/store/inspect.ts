import { closeSync, existsSync, openSync, readdirSync, readSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { QueryTypes, type Sequelize } from 'sequelize';
import { Fault } from './fault.ts';

export const databaseIn = (folder: string) => join(folder, 'schmelz.sqlite');
export const backupsIn = (folder: string) => join(folder, 'backups');

const MAGIC = 'SQLite format 3\0';

/** The newest copy beside a database, in words. */
function copiesOf(folder: string): string {
  const backups = backupsIn(folder);
  const [newest] = existsSync(backups)
    ? readdirSync(backups)
        .filter((name) => name.endsWith('.sqlite'))
        .map((name) => ({ name, at: statSync(join(backups, name)).mtimeMs }))
        .sort((a, b) => b.at - a.at)
    : [];
  return newest
    ? `Put the newest copy in its place: ${join(backups, newest.name)}.`
    : 'There is no copy in its folder backups: put back one of your own.';
}

/**
 * Looks at a database before anything opens it: what is empty beside a copy, cut or no database at all is not written
 * over.
 * @throws Fault in words, with what to do
 */
export function inspectFile(folder: string): void {
  const file = databaseIn(folder);
  if (!existsSync(file)) return;
  const { size } = statSync(file);
  if (size === 0) {
    if (existsSync(backupsIn(folder))) throw new Fault(`${file} is empty. ${copiesOf(folder)}`);
    return; // SQLite makes a new one of it, and nothing was there
  }
  const head = Buffer.alloc(100);
  const opened = openSync(file, 'r');
  const read = readSync(opened, head, 0, 100, 0);
  closeSync(opened);
  if (read < 100 || head.toString('latin1', 0, 16) !== MAGIC) {
    throw new Fault(`${file} is damaged, or no database of Schmelz. ${copiesOf(folder)}`);
  }
  // File format of SQLite 3, section 1.3: page size at 16 (1 means 65536), pages at 28, valid where 24 equals 92.
  const pageSize = head.readUInt16BE(16) === 1 ? 65_536 : head.readUInt16BE(16);
  const counted = head.readUInt32BE(24) === head.readUInt32BE(92);
  if (counted && !existsSync(`${file}-wal`) && size < pageSize * head.readUInt32BE(28)) {
    throw new Fault(
      `${file} is cut short: ${size} bytes are there, ${pageSize * head.readUInt32BE(28)} were. ${copiesOf(folder)}`,
    );
  }
}

/** Asks SQLite itself whether its pages hang together. */
export async function quickCheck(sequelize: Sequelize, folder: string): Promise<void> {
  let answer = '';
  try {
    const [row] = await sequelize.query<{ quick_check: string }>('PRAGMA quick_check(1)', { type: QueryTypes.SELECT });
    answer = row?.quick_check ?? 'no answer';
  } catch (error) {
    answer = (error as Error).message;
  }
  const says = answer.replaceAll(/\*{3}[^*]*\*{3}|\s+/g, ' ').trim();
  if (answer !== 'ok') throw new Fault(`${databaseIn(folder)} is damaged (${says}). ${copiesOf(folder)}`);
}
