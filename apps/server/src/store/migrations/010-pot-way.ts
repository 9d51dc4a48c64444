/** How a pot is poured from: spout, ladle or lip; null: by its bottom spout, as all were reckoned before. */
export const up = `ALTER TABLE pots ADD COLUMN way TEXT;`;
