/**
 * Who sells what in which packs, the tools that were bought, and local rules, as the maker writes them down; how many
 * heads of a product are to lie on the shelf.
 */
export const up = `
CREATE TABLE suppliers (
  id TEXT PRIMARY KEY,
  name TEXT NOT NULL UNIQUE,
  freightMinor INTEGER NOT NULL,
  freeAboveMinor INTEGER,
  days INTEGER NOT NULL,
  note TEXT NOT NULL DEFAULT '',
  offers JSON NOT NULL,
  version INTEGER NOT NULL
);
CREATE TABLE tools (
  id TEXT PRIMARY KEY,
  name TEXT NOT NULL UNIQUE,
  priceMinor INTEGER NOT NULL,
  boughtOn TEXT NOT NULL,
  lifeHeads INTEGER,
  productIds JSON NOT NULL,
  note TEXT NOT NULL DEFAULT '',
  version INTEGER NOT NULL
);
CREATE TABLE rules (
  id TEXT PRIMARY KEY,
  "where" TEXT NOT NULL UNIQUE,
  fromKg REAL,
  belowKg REAL,
  noLead INTEGER NOT NULL,
  note TEXT NOT NULL DEFAULT '',
  version INTEGER NOT NULL
);
ALTER TABLE products ADD COLUMN keepHeads INTEGER;
`;
