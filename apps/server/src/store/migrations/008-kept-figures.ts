/** What a closed ticket came to is kept beside it; a row that it comes from drops it by itself when it changes. */
const drop = (name: string, on: string, tickets: string) =>
  `CREATE TRIGGER ${name} AFTER ${on} BEGIN DELETE FROM ticketFigures WHERE ticketId IN (${tickets}); END;`;

export const up = `
CREATE TABLE ticketFigures (ticketId TEXT PRIMARY KEY REFERENCES tickets(id), body JSON NOT NULL);
-- The oven of the day it was closed: another one later does not change what was spent.
ALTER TABLE tickets ADD COLUMN ovenPowerW REAL;
UPDATE tickets SET ovenPowerW = (SELECT powerW FROM ovens ORDER BY rowid LIMIT 1) WHERE closedAt IS NOT NULL;
CREATE INDEX tickets_closed ON tickets(closedAt);
${drop('figures_move_in', 'INSERT ON stockMoves', 'NEW.ticketId')}
${drop('figures_move_changed', 'UPDATE ON stockMoves', 'NEW.ticketId, OLD.ticketId')}
${drop('figures_move_out', 'DELETE ON stockMoves', 'OLD.ticketId')}
${drop('figures_said', "INSERT ON entries WHEN NEW.logKind <> 'pour'", 'NEW.logId')}
${drop('figures_run_said', "INSERT ON entries WHEN NEW.logKind NOT IN ('pour', 'ticket')", 'SELECT ticketId FROM runTickets WHERE runId = NEW.logId')}
${drop('figures_poured', 'INSERT ON pourTickets', 'NEW.ticketId')}
${drop('figures_pour_changed', 'UPDATE ON pourTickets', 'NEW.ticketId')}
${drop('figures_pour_out', 'DELETE ON pourTickets', 'OLD.ticketId')}
${drop('figures_run_in', 'INSERT ON runTickets', 'NEW.ticketId')}
${drop('figures_run_out', 'DELETE ON runTickets', 'OLD.ticketId')}
${drop('figures_ticket', 'UPDATE ON tickets', 'NEW.id')}
`;
