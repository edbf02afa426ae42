/** Shots that the editor can change: transitions, names, exclusion; and the evidence for cuts. */
export const migration0002 = `
ALTER TABLE shots ADD COLUMN begins TEXT NOT NULL DEFAULT 'cut'
  CHECK (begins IN ('cut', 'jump', 'dissolve', 'wipe', 'fade', 'turn'));
ALTER TABLE shots ADD COLUMN mixed_from INTEGER NOT NULL DEFAULT 0;
ALTER TABLE shots ADD COLUMN mixed_to INTEGER NOT NULL DEFAULT 0;
ALTER TABLE shots ADD COLUMN carry INTEGER NOT NULL DEFAULT 0;
ALTER TABLE shots ADD COLUMN name TEXT;
ALTER TABLE shots ADD COLUMN excluded INTEGER NOT NULL DEFAULT 0;

-- How ready to see transitions, 0 to 100.
ALTER TABLE films ADD COLUMN sensitivity INTEGER NOT NULL DEFAULT 50;

-- Everything that may be a transition, with how much speaks for it.
CREATE TABLE transition_candidates (
  film_id TEXT PRIMARY KEY REFERENCES films (id) ON DELETE CASCADE,
  candidates TEXT NOT NULL
) STRICT;
`;
