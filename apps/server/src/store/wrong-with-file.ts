import { closeSync, existsSync, openSync, readSync, statSync } from 'node:fs';

const MAGIC = 'SQLite format 3\0';

/**
 * What is wrong with a database file, by its head and its length alone, as a sentence goes on after its name; null
 * where nothing can be seen.
 */
export function wrongWithFile(file: string): string | null {
  const { size } = statSync(file);
  if (size === 0) return 'is empty';
  const head = Buffer.alloc(100);
  const opened = openSync(file, 'r');
  const read = readSync(opened, head, 0, 100, 0);
  closeSync(opened);
  if (read < 100 || head.toString('latin1', 0, 16) !== MAGIC) return 'is damaged, or no database of Schmelz';
  // File format of SQLite 3, section 1.3: page size at 16 (1 means 65536), pages at 28, valid where 24 equals 92.
  const pageSize = head.readUInt16BE(16) === 1 ? 65_536 : head.readUInt16BE(16);
  const counted = head.readUInt32BE(24) === head.readUInt32BE(92);
  const bytes = pageSize * head.readUInt32BE(28);
  if (counted && !existsSync(`${file}-wal`) && size < bytes) {
    return `is cut short: ${size} bytes are there, ${bytes} were`;
  }
  return null;
}
