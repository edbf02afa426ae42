/** Captions of a film, and their settings in its versions. */
export const migration0017 = `
CREATE TABLE captions (
  film_id TEXT NOT NULL REFERENCES films (id) ON DELETE CASCADE,
  id TEXT NOT NULL,
  -- The first frame, and the first that it is not there any more.
  start INTEGER NOT NULL,
  end INTEGER NOT NULL,
  text TEXT NOT NULL,
  speaker TEXT,
  PRIMARY KEY (film_id, id)
) STRICT;

-- As JSON; null for what is usual.
ALTER TABLE versions ADD COLUMN captions TEXT;
`;
