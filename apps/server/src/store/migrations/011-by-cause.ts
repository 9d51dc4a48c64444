/**
 * Heads thrown back at the pour, by cause and ticket. Of a pour for one ticket they are known from its cavities; of one
 * for several tickets it was not kept which cause was whose: null. What a product's cavity is cast as, by name; null:
 * as cut, or in the groove that was ground out for its hook, as all were before. And products, materials and molds can
 * be put away; null: they are not.
 */
export const up = `
ALTER TABLE products ADD COLUMN variant TEXT;
ALTER TABLE products ADD COLUMN archived INTEGER;
ALTER TABLE materials ADD COLUMN archived INTEGER;
ALTER TABLE molds ADD COLUMN archived INTEGER;
ALTER TABLE pourTickets ADD COLUMN causes JSON;
UPDATE pourTickets SET causes = (
  SELECT json_group_object(cause, heads) FROM (
    SELECT c.key AS cause, SUM(c.value) AS heads
    FROM pourCavities pc, json_each(pc.rejects) c
    WHERE pc.pourId = pourTickets.pourId AND c.key <> 'second grade' GROUP BY c.key
  )
) WHERE (SELECT COUNT(*) FROM pourTickets other WHERE other.pourId = pourTickets.pourId) = 1;
`;
