/**
 * What is there of each material is added up as it moves, by the tables themselves, and not from all movements that
 * ever were at each tap; likewise what is left of each lot. `said` counts purchases and counts: of a part without any
 * nobody keeps count.
 */
const isSaid = (reason: string) => `${reason} IN ('received', 'counted')`;
const add = (row: 'NEW' | 'OLD', sign: '' | '-') =>
  `INSERT INTO stockBalances VALUES (${row}.materialId, ${sign}${row}.quantity, ${sign}${row}.valueMinor, ${sign}(${isSaid(`${row}.reason`)})) ` +
  `ON CONFLICT(materialId) DO UPDATE SET quantity = quantity + excluded.quantity, valueMinor = valueMinor + excluded.valueMinor, said = said + excluded.said;`;
const use = (row: 'NEW' | 'OLD', sign: '' | '-') =>
  `INSERT INTO lotsUsed VALUES (${row}.receiptId, ${sign}${row}.quantity) ` +
  `ON CONFLICT(receiptId) DO UPDATE SET used = used + excluded.used;`;

export const up = `
CREATE TABLE stockBalances (
  materialId TEXT PRIMARY KEY REFERENCES materials(id),
  quantity REAL NOT NULL,
  valueMinor INTEGER NOT NULL,
  said INTEGER NOT NULL
);
INSERT INTO stockBalances
  SELECT materialId, SUM(quantity), SUM(valueMinor), SUM(${isSaid('reason')}) FROM stockMoves GROUP BY materialId;
CREATE TRIGGER balance_move_in AFTER INSERT ON stockMoves BEGIN ${add('NEW', '')} END;
CREATE TRIGGER balance_move_out AFTER DELETE ON stockMoves BEGIN ${add('OLD', '-')} END;
CREATE TRIGGER balance_move_changed AFTER UPDATE ON stockMoves BEGIN ${add('OLD', '-')} ${add('NEW', '')} END;
CREATE TABLE lotsUsed (receiptId INTEGER PRIMARY KEY REFERENCES stockMoves(id), used REAL NOT NULL);
INSERT INTO lotsUsed SELECT receiptId, SUM(quantity) FROM lotUses GROUP BY receiptId;
CREATE TRIGGER lot_use_in AFTER INSERT ON lotUses BEGIN ${use('NEW', '')} END;
CREATE TRIGGER lot_use_out AFTER DELETE ON lotUses BEGIN ${use('OLD', '-')} END;
CREATE TRIGGER lot_use_changed AFTER UPDATE ON lotUses BEGIN ${use('OLD', '-')} ${use('NEW', '')} END;
-- What was last paid for a part is found without looking at all that was ever taken of it.
CREATE INDEX stockMoves_reason ON stockMoves(materialId, reason, id);
CREATE INDEX pourTickets_ticket ON pourTickets(ticketId);
`;
