/** What held up a pour is kept, and of what hands took at a step its day: those of before are folded anew. */
export const up = `
ALTER TABLE pours ADD COLUMN heldUp JSON;
DELETE FROM ticketFigures;
`;
