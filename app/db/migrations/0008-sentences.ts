/** A history that can be read, and nothing any more that nobody reads. */
export const migration0008 = `
-- What an edit did, in a sentence; edits from before have none.
ALTER TABLE edits ADD COLUMN sentence TEXT;

-- Counts what the analysis and marks have found, as 'revision' counts what the editor has changed.
ALTER TABLE films ADD COLUMN found INTEGER NOT NULL DEFAULT 0;

ALTER TABLE jobs DROP COLUMN heartbeat_at;
ALTER TABLE shot_tracks DROP COLUMN camera;
`;
