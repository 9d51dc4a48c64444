/** What stands over the gates of a blank shot, weighed; null: as usual. */
export const up = `ALTER TABLE molds ADD COLUMN barKg REAL;`;
