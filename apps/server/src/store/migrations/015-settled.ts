/**
 * What benches had taken beyond the shelf went at the price of before; once it comes in, the shelf is settled to what
 * it came for. The movement that settles names the purchase, and goes with it when that is struck out.
 */
export const up = `
ALTER TABLE stockMoves ADD COLUMN settles INTEGER REFERENCES stockMoves(id);
CREATE UNIQUE INDEX stockMoves_settles ON stockMoves(settles);
`;
