/** A maker's own count until a mold is opened. */
export const up = `
ALTER TABLE molds ADD COLUMN ownOpenS REAL;
`;
