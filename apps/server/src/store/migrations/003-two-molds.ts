/**
 * A pour may have several molds: what was one mold's stands in a table of its own, and every log entry names its mold.
 */
export const up = `
CREATE TABLE pourMolds (
  pourId TEXT NOT NULL REFERENCES pours(id),
  moldId TEXT NOT NULL REFERENCES molds(id),
  shots INTEGER NOT NULL DEFAULT 0,
  blanks INTEGER NOT NULL DEFAULT 0,
  shotsSinceSmoked INTEGER,
  PRIMARY KEY (pourId, moldId)
);
INSERT INTO pourMolds (pourId, moldId, shots, blanks, shotsSinceSmoked)
  SELECT p.id, p.moldId, MAX(0, p.shots - b.blanks), b.blanks, p.shotsSinceSmoked
  FROM pours p JOIN (
    SELECT pours.id, COUNT(entries.id) AS blanks FROM pours
    LEFT JOIN entries ON entries.pourId = pours.id AND entries.kind = 'blank'
    GROUP BY pours.id
  ) b ON b.id = p.id;
UPDATE entries SET body = json_set(body, '$.moldId', (SELECT moldId FROM pours WHERE pours.id = entries.pourId))
  WHERE pourId IS NOT NULL AND kind IN ('shot', 'blank', 'smoked', 'blocked');
UPDATE pours SET setup = json_object(
  'molds', json_array(json_object(
    'moldId', moldId,
    'plannedBlanks', json_extract(setup, '$.plannedBlanks'),
    'plannedShots', shots,
    'openS', json_extract(planned, '$.openS'),
    'inspectS', 3, 'loadS', 8
  )),
  'atOnce', 1,
  'loads', (
    SELECT json_group_array(json_set(value, '$.moldId', pours.moldId, '$.inserts', json('[]'), '$.hookKg', 0))
    FROM json_each(setup, '$.loads')
  ),
  'needs', json_extract(setup, '$.needs'),
  'hooksOut', json('{}')
);
UPDATE pours SET planned = json_set(planned, '$.plannedS', 3600);
ALTER TABLE pourTickets ADD COLUMN secondGrade INTEGER NOT NULL DEFAULT 0;
`;
