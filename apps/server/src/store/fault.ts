/** Something outside Schmelz that keeps it from working, in words, with what to do about it. */
export class Fault extends Error {
  constructor(message: string) {
    super(message);
    this.name = 'Fault';
  }
}

interface SystemError extends Error {
  code?: string;
  path?: string;
  /** What Sequelize wraps. */
  original?: Error & { code?: string };
}

const WORDS: Record<string, string> = {
  EACCES: 'this user may not use it; give it the right to, or set SCHMELZ_DATA to another folder',
  EPERM: 'this user may not use it; give it the right to, or set SCHMELZ_DATA to another folder',
  EROFS: 'the disk is read-only; make it writable, or set SCHMELZ_DATA to another folder',
  ENOTDIR: 'a part of its path is a file; set SCHMELZ_DATA to another folder',
  EEXIST: 'it is a file; set SCHMELZ_DATA to another folder',
  EISDIR: 'a folder lies where a file of it should be; put it elsewhere',
  ENOENT: 'it is not there; put it back, or set SCHMELZ_DATA to another folder',
  ENOSPC: 'the disk is full; free some space',
  SQLITE_FULL: 'the disk is full; free some space',
  SQLITE_READONLY: 'its files may not be written; give this user the right to',
  SQLITE_CANTOPEN: 'a file of it cannot be opened; look whether it is there and this user may write it',
  SQLITE_IOERR: 'the disk does not read or write as it should; look after it, and copy the folder while it still can',
  SQLITE_CORRUPT: 'its database is damaged; stop Schmelz and put back the newest copy from its folder backups',
  SQLITE_NOTADB: 'its database is damaged; stop Schmelz and put back the newest copy from its folder backups',
};

/** What an error of the system or of SQLite means for the data folder; null where it is none of those. */
export function faultIn(error: unknown, folder: string): Fault | null {
  if (error instanceof Fault) return error;
  const { code, original } = error as SystemError;
  const known = WORDS[original?.code ?? code ?? ''];
  return known ? new Fault(`The data folder ${folder} cannot be used: ${known}.`) : null;
}
