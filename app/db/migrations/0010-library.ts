/** Films that are put away or deleted, and presets. */
export const migration0010 = `
ALTER TABLE films ADD COLUMN put_away INTEGER NOT NULL DEFAULT 0;
-- Milliseconds since 1970; a deleted film can be brought back for a while.
ALTER TABLE films ADD COLUMN deleted_at INTEGER;

-- Of its file, by which it is known wherever it lies; null while that has not been found out.
ALTER TABLE films ADD COLUMN fingerprint TEXT;

CREATE TABLE house_styles (
  id TEXT PRIMARY KEY,
  name TEXT NOT NULL UNIQUE COLLATE NOCASE,
  -- What versions a film gets, as JSON.
  versions TEXT NOT NULL
) STRICT;
`;
