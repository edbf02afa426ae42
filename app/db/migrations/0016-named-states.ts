/** Checkpoints of a film, and times of edits. */
export const migration0016 = `
-- Milliseconds since 1970; edits from before have none.
ALTER TABLE edits ADD COLUMN made_at INTEGER;

CREATE TABLE named_states (
  film_id TEXT NOT NULL REFERENCES films (id) ON DELETE CASCADE,
  id TEXT NOT NULL,
  name TEXT NOT NULL,
  made_at INTEGER NOT NULL,
  -- One that is deleted can be put back.
  deleted INTEGER NOT NULL DEFAULT 0,
  -- All that was set in the film, as JSON.
  kept TEXT NOT NULL,
  PRIMARY KEY (film_id, id)
) STRICT;

-- What had a name when the file was replaced, as JSON.
ALTER TABLE replaced_sources ADD COLUMN named_states TEXT NOT NULL DEFAULT '[]';
`;
