/** A readable history, and the removal of unused data. */
export const migration0008 = `
-- What an edit did, in a sentence; edits from before have none.
ALTER TABLE edits ADD COLUMN sentence TEXT;

-- Counts what the analysis and marks have found, as 'revision' counts what the editor has changed.
ALTER TABLE films ADD COLUMN findings INTEGER NOT NULL DEFAULT 0;

-- An analysis that goes on reads what it has seen by the names of today.
UPDATE analysis_chunks SET detections = replace(replace(detections, '"carried":', '"propagated":'), '{"looks":', '{"detected":');

ALTER TABLE edits DROP COLUMN created_at;
ALTER TABLE jobs DROP COLUMN heartbeat_at;
ALTER TABLE jobs DROP COLUMN finished_at;
ALTER TABLE shot_tracks DROP COLUMN camera;
`;
