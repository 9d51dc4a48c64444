/** What hands took at the steps of a ticket is kept with its figures now: those of before are folded anew. */
export const up = `
DELETE FROM ticketFigures;
`;
