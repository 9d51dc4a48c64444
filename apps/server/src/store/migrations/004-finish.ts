/**
 * Ways of a product, mixtures in a recipe, racks of an oven and what its probe taught, programs counted from the metal.
 * Seconds to trim and to paint that nobody had changed are no one's own: they now come from the ways that are followed.
 */
export const up = `
ALTER TABLE products ADD COLUMN ways JSON;
ALTER TABLE recipeLayers ADD COLUMN mix JSON;
ALTER TABLE ovens ADD COLUMN racks JSON;
ALTER TABLE ovens ADD COLUMN learned JSON;
ALTER TABLE bakePrograms ADD COLUMN "from" TEXT NOT NULL DEFAULT 'door' CHECK ("from" IN ('door', 'metal'));
UPDATE settings SET body = json_set(body, '$.ways.trimS', NULL) WHERE json_extract(body, '$.ways.trimS') = 12;
UPDATE settings SET body = json_set(body, '$.ways.coatS', NULL) WHERE json_extract(body, '$.ways.coatS') = 25;
`;
