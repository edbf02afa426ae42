/** People, marks, the camera's motion, and an analysis that goes shot by shot. */
export const migration0003 = `
-- Kept by earlier versions in another form; a film whose analysis was not finished is analysed again.
DELETE FROM analysis_chunks;

ALTER TABLE transition_candidates ADD COLUMN settled INTEGER NOT NULL DEFAULT 0;
ALTER TABLE shot_tracks ADD COLUMN camera TEXT NOT NULL DEFAULT '[]';

-- Whom the analysis has recognised; 'merged_into' is the one whom the editor says they are.
CREATE TABLE people (
  film_id TEXT NOT NULL REFERENCES films (id) ON DELETE CASCADE,
  id TEXT NOT NULL,
  number INTEGER NOT NULL,
  signature TEXT,
  seen INTEGER NOT NULL,
  name TEXT,
  merged_into TEXT,
  PRIMARY KEY (film_id, id)
) STRICT;

-- Boxes that the editor has drawn; those of one thing have its id.
CREATE TABLE marks (
  film_id TEXT NOT NULL REFERENCES films (id) ON DELETE CASCADE,
  thing TEXT NOT NULL,
  frame INTEGER NOT NULL,
  x REAL NOT NULL,
  y REAL NOT NULL,
  width REAL NOT NULL,
  height REAL NOT NULL,
  PRIMARY KEY (film_id, thing, frame)
) STRICT;

-- Tracks of marked things; 'basis' is the shot's range and the marks that a track was made from.
CREATE TABLE mark_tracks (
  film_id TEXT NOT NULL REFERENCES films (id) ON DELETE CASCADE,
  basis TEXT NOT NULL,
  track TEXT NOT NULL,
  PRIMARY KEY (film_id, basis)
) STRICT;

-- Parts of tracks that the editor has taken away, or joined to another.
CREATE TABLE track_edits (
  film_id TEXT NOT NULL REFERENCES films (id) ON DELETE CASCADE,
  track_id TEXT NOT NULL,
  edits TEXT NOT NULL,
  PRIMARY KEY (film_id, track_id)
) STRICT;

CREATE TABLE new_jobs (
  id TEXT PRIMARY KEY,
  film_id TEXT NOT NULL REFERENCES films (id) ON DELETE CASCADE,
  kind TEXT NOT NULL CHECK (kind IN ('proxy', 'analyse', 'follow', 'render')),
  state TEXT NOT NULL CHECK (state IN ('queued', 'running', 'done', 'failed', 'cancelled')),
  payload TEXT NOT NULL,
  step TEXT NOT NULL DEFAULT '',
  progress REAL NOT NULL DEFAULT 0,
  attempts INTEGER NOT NULL DEFAULT 0,
  heartbeat_at INTEGER,
  error TEXT,
  result TEXT,
  created_at INTEGER NOT NULL,
  started_at INTEGER,
  finished_at INTEGER
) STRICT;
INSERT INTO new_jobs SELECT * FROM jobs;
DROP TABLE jobs;
ALTER TABLE new_jobs RENAME TO jobs;
CREATE INDEX jobs_by_state ON jobs (state, created_at);
CREATE INDEX jobs_by_film ON jobs (film_id, created_at);
`;
