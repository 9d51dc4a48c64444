/** The first schema. Masses in kg, temperatures in C, times in s or ms since 1970, money in integer minor units. */
export const up = `
CREATE TABLE settings (
  id INTEGER PRIMARY KEY CHECK (id = 1),
  body JSON NOT NULL,
  version INTEGER NOT NULL DEFAULT 1
);
CREATE TABLE materials (
  id TEXT PRIMARY KEY,
  kind TEXT NOT NULL CHECK (kind IN ('lead', 'hook', 'powder')),
  name TEXT NOT NULL UNIQUE,
  note TEXT NOT NULL,
  metalId TEXT,
  hook JSON,
  powder JSON,
  version INTEGER NOT NULL DEFAULT 1
);
CREATE TABLE molds (
  id TEXT PRIMARY KEY,
  name TEXT NOT NULL UNIQUE,
  bodyKg REAL NOT NULL CHECK (bodyKg > 0),
  version INTEGER NOT NULL DEFAULT 1
);
CREATE TABLE cavities (
  id TEXT PRIMARY KEY,
  moldId TEXT NOT NULL REFERENCES molds(id) ON DELETE CASCADE,
  position INTEGER NOT NULL,
  style TEXT NOT NULL,
  nominalMassKg REAL NOT NULL CHECK (nominalMassKg > 0),
  hookSize TEXT NOT NULL,
  eyeAngleDeg REAL NOT NULL,
  condition TEXT NOT NULL CHECK (condition IN ('good', 'blocked'))
);
CREATE INDEX cavities_mold ON cavities(moldId, position);
CREATE TABLE pots (
  id TEXT PRIMARY KEY, name TEXT NOT NULL UNIQUE, capacityKg REAL NOT NULL, powerW REAL NOT NULL,
  lossWPerK REAL NOT NULL, version INTEGER NOT NULL DEFAULT 1
);
CREATE TABLE ovens (
  id TEXT PRIMARY KEY, name TEXT NOT NULL UNIQUE, places INTEGER NOT NULL, powerW REAL NOT NULL, lagS REAL NOT NULL,
  version INTEGER NOT NULL DEFAULT 1
);
CREATE TABLE recipes (
  id TEXT PRIMARY KEY, name TEXT NOT NULL UNIQUE, eyeColour TEXT, version INTEGER NOT NULL DEFAULT 1
);
CREATE TABLE recipeLayers (
  recipeId TEXT NOT NULL REFERENCES recipes(id) ON DELETE CASCADE,
  position INTEGER NOT NULL,
  powderId TEXT NOT NULL REFERENCES materials(id),
  zone TEXT NOT NULL,
  coats INTEGER NOT NULL,
  PRIMARY KEY (recipeId, position)
);
CREATE TABLE bakePrograms (
  id TEXT PRIMARY KEY, name TEXT NOT NULL UNIQUE, setC REAL NOT NULL, seconds INTEGER NOT NULL,
  preheated BOOLEAN NOT NULL, version INTEGER NOT NULL DEFAULT 1
);
CREATE TABLE products (
  id TEXT PRIMARY KEY,
  name TEXT NOT NULL UNIQUE,
  style TEXT NOT NULL,
  nominalMassKg REAL NOT NULL,
  hookId TEXT NOT NULL REFERENCES materials(id),
  recipeId TEXT REFERENCES recipes(id),
  bakeProgramId TEXT REFERENCES bakePrograms(id),
  priceMinor INTEGER,
  version INTEGER NOT NULL DEFAULT 1
);
CREATE TABLE orders (
  id TEXT PRIMARY KEY,
  number INTEGER NOT NULL UNIQUE,
  customer TEXT NOT NULL,
  dueOn TEXT,
  note TEXT NOT NULL,
  status TEXT NOT NULL CHECK (status IN ('open', 'released', 'done')),
  createdAt INTEGER NOT NULL,
  version INTEGER NOT NULL DEFAULT 1
);
CREATE TABLE orderLines (
  orderId TEXT NOT NULL REFERENCES orders(id) ON DELETE CASCADE,
  position INTEGER NOT NULL,
  productId TEXT NOT NULL REFERENCES products(id),
  quantity INTEGER NOT NULL CHECK (quantity > 0),
  PRIMARY KEY (orderId, position)
);
CREATE TABLE tickets (
  id TEXT PRIMARY KEY,
  number INTEGER NOT NULL UNIQUE,
  orderId TEXT NOT NULL REFERENCES orders(id),
  productId TEXT NOT NULL REFERENCES products(id),
  quantity INTEGER NOT NULL CHECK (quantity > 0),
  route JSON NOT NULL,
  planned JSON NOT NULL,
  createdAt INTEGER NOT NULL,
  closedAt INTEGER,
  version INTEGER NOT NULL DEFAULT 1
);
CREATE INDEX tickets_order ON tickets(orderId);
CREATE TABLE pours (
  id TEXT PRIMARY KEY,
  number INTEGER NOT NULL UNIQUE,
  moldId TEXT NOT NULL REFERENCES molds(id),
  potId TEXT NOT NULL REFERENCES pots(id),
  leadId TEXT NOT NULL REFERENCES materials(id),
  startedAt INTEGER NOT NULL,
  closedAt INTEGER,
  setup JSON NOT NULL,
  planned JSON NOT NULL,
  chargedKg REAL NOT NULL DEFAULT 0,
  shots INTEGER NOT NULL DEFAULT 0,
  shotsSinceSmoked INTEGER,
  version INTEGER NOT NULL DEFAULT 1
);
-- What a pour gave to each of its tickets, kept in step with its log.
CREATE TABLE pourTickets (
  pourId TEXT NOT NULL REFERENCES pours(id),
  ticketId TEXT NOT NULL REFERENCES tickets(id),
  good INTEGER NOT NULL DEFAULT 0,
  rejects INTEGER NOT NULL DEFAULT 0,
  hooksLost INTEGER NOT NULL DEFAULT 0,
  workS REAL NOT NULL DEFAULT 0,
  energyKWh REAL NOT NULL DEFAULT 0,
  drossKg REAL NOT NULL DEFAULT 0,
  unexplainedKg REAL NOT NULL DEFAULT 0,
  PRIMARY KEY (pourId, ticketId)
);
-- What each cavity gave in a pour, kept in step with its log.
CREATE TABLE pourCavities (
  pourId TEXT NOT NULL REFERENCES pours(id),
  cavityId TEXT NOT NULL REFERENCES cavities(id),
  good INTEGER NOT NULL,
  rejects JSON NOT NULL,
  casts INTEGER NOT NULL,
  PRIMARY KEY (pourId, cavityId)
);
-- The logs: appended, never changed. An id counts once.
CREATE TABLE entries (
  seq INTEGER PRIMARY KEY AUTOINCREMENT,
  id TEXT NOT NULL UNIQUE,
  pourId TEXT REFERENCES pours(id),
  ticketId TEXT REFERENCES tickets(id),
  kind TEXT NOT NULL,
  at INTEGER NOT NULL,
  body JSON NOT NULL,
  CHECK ((pourId IS NULL) <> (ticketId IS NULL))
);
CREATE INDEX entries_pour ON entries(pourId, seq);
CREATE INDEX entries_ticket ON entries(ticketId, seq);
CREATE TABLE stockMoves (
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  at INTEGER NOT NULL,
  materialId TEXT NOT NULL REFERENCES materials(id),
  reason TEXT NOT NULL,
  quantity REAL NOT NULL,
  valueMinor INTEGER NOT NULL,
  ticketId TEXT REFERENCES tickets(id),
  lot TEXT NOT NULL DEFAULT ''
);
CREATE INDEX stockMoves_material ON stockMoves(materialId, id);
CREATE INDEX stockMoves_ticket ON stockMoves(ticketId);
`;
