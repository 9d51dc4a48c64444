/** Metals, molds and pots as heat and flow see them; dated notes, lots of lead, parts that go round, probe readings. */
export const up = `
ALTER TABLE materials ADD COLUMN composition JSON;
ALTER TABLE molds ADD COLUMN metal TEXT NOT NULL DEFAULT 'aluminium';
ALTER TABLE molds ADD COLUMN sootSchool TEXT NOT NULL DEFAULT 'fifty';
ALTER TABLE molds ADD COLUMN warmSchool TEXT NOT NULL DEFAULT 'blank shots';
ALTER TABLE molds ADD COLUMN learned JSON;
ALTER TABLE cavities ADD COLUMN bend TEXT NOT NULL DEFAULT 'round';
ALTER TABLE cavities ADD COLUMN wire TEXT NOT NULL DEFAULT 'standard';
ALTER TABLE cavities ADD COLUMN pin JSON;
ALTER TABLE cavities ADD COLUMN keeper BOOLEAN NOT NULL DEFAULT 0;
ALTER TABLE cavities ADD COLUMN openBelow BOOLEAN NOT NULL DEFAULT 0;
ALTER TABLE cavities ADD COLUMN variants JSON NOT NULL DEFAULT '[]';
ALTER TABLE pots ADD COLUMN learned JSON;
CREATE TABLE parts (
  id TEXT PRIMARY KEY, name TEXT NOT NULL UNIQUE, kind TEXT NOT NULL, diameterM REAL, owned INTEGER NOT NULL,
  places JSON NOT NULL, version INTEGER NOT NULL DEFAULT 1
);
-- A delivery of lead. Its clean metal is a movement of stock under the same label.
CREATE TABLE leadLots (
  id TEXT PRIMARY KEY,
  materialId TEXT NOT NULL REFERENCES materials(id),
  label TEXT NOT NULL UNIQUE,
  source TEXT NOT NULL,
  "on" TEXT NOT NULL,
  grossKg REAL NOT NULL CHECK (grossKg > 0),
  priceMinor INTEGER NOT NULL,
  brinell REAL,
  note TEXT NOT NULL,
  cleanKg REAL,
  cleanedOn TEXT,
  ingots INTEGER NOT NULL DEFAULT 0,
  version INTEGER NOT NULL DEFAULT 1
);
-- Dated notes upon a thing: care of a mold, a hook tried, a mark of a dial. Struck out, never erased.
CREATE TABLE records (
  id TEXT PRIMARY KEY,
  kind TEXT NOT NULL,
  thingId TEXT NOT NULL,
  at INTEGER NOT NULL,
  body JSON NOT NULL,
  struck BOOLEAN NOT NULL DEFAULT 0
);
CREATE INDEX records_thing ON records(kind, thingId, at);
CREATE TABLE channels (
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  source TEXT NOT NULL,
  name TEXT NOT NULL,
  place TEXT NOT NULL,
  UNIQUE (source, name)
);
-- Readings come in here, tenths of a degree, and are packed into blocks of a thousand.
CREATE TABLE readingTail (
  channelId INTEGER NOT NULL REFERENCES channels(id),
  at INTEGER NOT NULL,
  tenths INTEGER NOT NULL,
  PRIMARY KEY (channelId, at)
) WITHOUT ROWID;
CREATE TABLE readingBlocks (
  id INTEGER PRIMARY KEY,
  channelId INTEGER NOT NULL REFERENCES channels(id),
  fromAt INTEGER NOT NULL,
  toAt INTEGER NOT NULL,
  count INTEGER NOT NULL,
  low INTEGER NOT NULL,
  high INTEGER NOT NULL,
  sum INTEGER NOT NULL,
  data BLOB NOT NULL
);
-- Holds all that a chart of a long stretch asks for, so that it need not touch the packed data.
CREATE INDEX readingBlocks_chart ON readingBlocks(channelId, fromAt, toAt, count, low, high, sum);
`;
