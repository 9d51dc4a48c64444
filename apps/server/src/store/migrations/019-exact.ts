/**
 * What a ticket takes is worth fractions of a cent: they are kept with each movement, so that what it has taken
 * altogether is rounded once, whatever keys it was counted with. Movements of before are worth what was written.
 */
const isSaid = (reason: string) => `${reason} IN ('received', 'counted')`;
const add = (row: 'NEW' | 'OLD', sign: '' | '-') =>
  `INSERT INTO stockBalances (materialId, quantity, valueMinor, said, exactMinor) VALUES (${row}.materialId, ${sign}${row}.quantity, ${sign}${row}.valueMinor, ${sign}(${isSaid(`${row}.reason`)}), ${sign}COALESCE(${row}.exactMinor, ${row}.valueMinor)) ` +
  `ON CONFLICT(materialId) DO UPDATE SET quantity = quantity + excluded.quantity, valueMinor = valueMinor + excluded.valueMinor, said = said + excluded.said, exactMinor = exactMinor + excluded.exactMinor;`;

export const up = `
ALTER TABLE stockMoves ADD COLUMN exactMinor REAL;
ALTER TABLE stockBalances ADD COLUMN exactMinor REAL NOT NULL DEFAULT 0;
UPDATE stockBalances SET exactMinor = valueMinor;
DROP TRIGGER balance_move_in;
DROP TRIGGER balance_move_out;
DROP TRIGGER balance_move_changed;
CREATE TRIGGER balance_move_in AFTER INSERT ON stockMoves BEGIN ${add('NEW', '')} END;
CREATE TRIGGER balance_move_out AFTER DELETE ON stockMoves BEGIN ${add('OLD', '-')} END;
CREATE TRIGGER balance_move_changed AFTER UPDATE ON stockMoves BEGIN ${add('OLD', '-')} ${add('NEW', '')} END;
`;
