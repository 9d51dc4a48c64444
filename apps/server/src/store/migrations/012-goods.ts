/**
 * Finished heads have a shelf. What was made before lay on none: it is booked as made and, by its order, as handed over
 * on the day the ticket was closed, at the price that the product has now. Heads that became bare heads on the shelf of
 * parts are booked there.
 */
export const up = `
CREATE TABLE goodsMoves (
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  at INTEGER NOT NULL,
  productId TEXT NOT NULL REFERENCES products(id),
  grade TEXT NOT NULL,
  reason TEXT NOT NULL,
  pieces INTEGER NOT NULL,
  valueMinor INTEGER NOT NULL,
  priceMinor INTEGER,
  ticketId TEXT REFERENCES tickets(id),
  orderId TEXT REFERENCES orders(id),
  party TEXT NOT NULL DEFAULT '',
  note TEXT NOT NULL DEFAULT '',
  saidId TEXT,
  struck INTEGER NOT NULL DEFAULT 0
);
CREATE INDEX goods_product ON goodsMoves(productId, grade);
CREATE INDEX goods_ticket ON goodsMoves(ticketId);
CREATE INDEX goods_order ON goodsMoves(orderId);
CREATE INDEX goods_said ON goodsMoves(saidId);
CREATE TABLE madeBefore AS
  SELECT t.id AS ticketId, t.closedAt AS at, t.productId, t.orderId, o.customer,
         COALESCE(t.good, json_extract(f.body, '$.onList.good')) AS good,
         COALESCE((SELECT -SUM(m.valueMinor) FROM stockMoves m WHERE m.ticketId = t.id), 0) AS spent,
         p.priceMinor AS price
  FROM tickets t JOIN orders o ON o.id = t.orderId JOIN products p ON p.id = t.productId
  LEFT JOIN ticketFigures f ON f.ticketId = t.id
  WHERE t.closedAt IS NOT NULL AND t.becomesId IS NULL;
INSERT INTO goodsMoves (at, productId, grade, reason, pieces, valueMinor, ticketId)
  SELECT at, productId, 'good', 'made', good, spent, ticketId FROM madeBefore WHERE good > 0 ORDER BY at;
INSERT INTO goodsMoves (at, productId, grade, reason, pieces, valueMinor, priceMinor, ticketId, orderId, party, note, saidId)
  SELECT at, productId, 'good', 'sold', -good, -spent, price * good, ticketId, orderId, customer,
         'from before finished heads were counted', lower(substr(hex(randomblob(16)), 1, 8) || '-' ||
         substr(hex(randomblob(8)), 1, 4) || '-4' || substr(hex(randomblob(8)), 1, 3) || '-8' ||
         substr(hex(randomblob(8)), 1, 3) || '-' || substr(hex(randomblob(8)), 1, 12))
  FROM madeBefore WHERE good > 0 ORDER BY at;
DROP TABLE madeBefore;
-- What is kept of a ticket holds its causes from now on: it is folded once more.
DELETE FROM ticketFigures;
`;
