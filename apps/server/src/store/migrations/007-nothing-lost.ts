/**
 * Sessions outlive a restart; a purchase, lot, count or imported log can be struck out; what was imported is known by
 * its contents, so that the same file twice is noticed.
 */
export const up = `
-- An id is keyed with the password of the day: nothing here opens a session.
CREATE TABLE sessions (id TEXT PRIMARY KEY, since INTEGER NOT NULL, until INTEGER NOT NULL);
CREATE TABLE imports (
  id TEXT PRIMARY KEY,
  kind TEXT NOT NULL,
  -- Of a log, as its channels name it.
  name TEXT NOT NULL,
  at INTEGER NOT NULL,
  digest TEXT NOT NULL,
  entries INTEGER NOT NULL,
  struck BOOLEAN NOT NULL DEFAULT 0
);
-- The id that the device gave a purchase or a count: sent twice, it counts once.
ALTER TABLE stockMoves ADD COLUMN saidId TEXT;
CREATE UNIQUE INDEX stockMoves_said ON stockMoves(saidId);
ALTER TABLE stockMoves ADD COLUMN importId TEXT REFERENCES imports(id);
-- The movement that this one takes back.
ALTER TABLE stockMoves ADD COLUMN strikes INTEGER REFERENCES stockMoves(id);
CREATE UNIQUE INDEX stockMoves_strikes ON stockMoves(strikes);
ALTER TABLE leadLots ADD COLUMN struck BOOLEAN NOT NULL DEFAULT 0;
ALTER TABLE channels ADD COLUMN struck BOOLEAN NOT NULL DEFAULT 0;
`;
