/**
 * How a pot is poured from: spout, ladle or lip; null: by its bottom spout, as all were reckoned before. And what a
 * closed ticket came to in good heads, beside what was cast for it: the next one is cast for by that. Null in tickets
 * that were closed before.
 */
export const up = `
ALTER TABLE pots ADD COLUMN way TEXT;
ALTER TABLE tickets ADD COLUMN good INTEGER;
`;
