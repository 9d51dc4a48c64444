/** What a product is cast in, where it asks for it; and the only metal that a mold sees. */
export const up = `
ALTER TABLE products ADD COLUMN metal TEXT;
ALTER TABLE molds ADD COLUMN keptFor TEXT;
`;
