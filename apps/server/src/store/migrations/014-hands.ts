/**
 * Who poured what, from the names on its shots; pours of before have none. And evenings that were kept on paper, typed
 * up and taken in: what was cast on which day, as far as it was written down.
 */
export const up = `
ALTER TABLE pours ADD COLUMN hands JSON;
CREATE TABLE paperPours (
  id TEXT PRIMARY KEY,
  at INTEGER NOT NULL,
  name TEXT NOT NULL,
  moldId TEXT REFERENCES molds(id),
  productId TEXT REFERENCES products(id),
  casts INTEGER,
  good INTEGER NOT NULL,
  seconds INTEGER,
  note TEXT NOT NULL DEFAULT '',
  importId TEXT NOT NULL REFERENCES imports(id)
);
CREATE INDEX paper_import ON paperPours(importId);
CREATE INDEX paper_mold ON paperPours(moldId);
`;
