/** In and out points of versions, length limits, settings for all shots; activity of each frame. */
export const migration0009 = `
-- The first frame shown, and the first that is not shown any more; null for the film's own.
ALTER TABLE versions ADD COLUMN in_frame INTEGER;
ALTER TABLE versions ADD COLUMN out_frame INTEGER;
-- Ranges of frames, as JSON.
ALTER TABLE versions ADD COLUMN drops TEXT NOT NULL DEFAULT '[]';
ALTER TABLE versions ADD COLUMN limit_seconds REAL;
-- Settings, as JSON.
ALTER TABLE versions ADD COLUMN usual TEXT NOT NULL DEFAULT '{}';

-- What goes on in each frame, as 'packActivity' packs it, a row for every stretch that was watched in one go.
CREATE TABLE activity (
  film_id TEXT NOT NULL REFERENCES films (id) ON DELETE CASCADE,
  start_frame INTEGER NOT NULL,
  samples BLOB NOT NULL,
  PRIMARY KEY (film_id, start_frame)
) STRICT;
`;
