/** In a column, commands that put shots back then contain settings instead of the movement alone. */
const framingsInstead = (column: "command" | "inverse"): string => `
UPDATE edits SET ${column} = json_set(json_remove(${column}, '$.manners'), '$.framings', (
  SELECT json_group_array(json_object(
    'versionId', json_extract(value, '$.versionId'),
    'shotId', json_extract(value, '$.shotId'),
    'settings', json_object('manner', json_extract(value, '$.manner'))))
  FROM json_each(edits.${column}, '$.manners')))
WHERE json_extract(${column}, '$.type') = 'restore-shots';`;

/** All framing settings of a shot in a version, instead of the movement alone; easings of hand keys. */
export const migration0004 = `
CREATE TABLE shot_framings (
  version_id TEXT NOT NULL REFERENCES versions (id) ON DELETE CASCADE,
  shot_id TEXT NOT NULL REFERENCES shots (id) ON DELETE CASCADE,
  -- What differs from the usual settings, as JSON.
  settings TEXT NOT NULL,
  PRIMARY KEY (version_id, shot_id)
) STRICT;
INSERT INTO shot_framings SELECT version_id, shot_id, json_object('manner', manner) FROM shot_manners;
DROP TABLE shot_manners;

-- A part of the picture that the window keeps inside where it can, as JSON.
ALTER TABLE shots ADD COLUMN protect TEXT;

-- How the window gets from a key to the next one; null leaves it to the solver.
ALTER TABLE hand_keys ADD COLUMN easing TEXT;

-- The changes that can be taken back speak of the same.
UPDATE edits SET command = json_set(
  json_remove(command, '$.manner'),
  '$.type', 'set-framing',
  '$.change', json_object('manner', COALESCE(json_extract(command, '$.manner'), 'auto')))
WHERE json_extract(command, '$.type') = 'set-manner';
${framingsInstead("command")}
${framingsInstead("inverse")}
`;
