/** Films, findings, versions, the editor's work, and jobs. */
export const migration0001 = `
CREATE TABLE films (
  id TEXT PRIMARY KEY,
  name TEXT NOT NULL,
  file TEXT NOT NULL,
  info TEXT NOT NULL,
  revision INTEGER NOT NULL DEFAULT 0,
  created_at INTEGER NOT NULL
) STRICT;

CREATE TABLE jobs (
  id TEXT PRIMARY KEY,
  film_id TEXT NOT NULL REFERENCES films (id) ON DELETE CASCADE,
  kind TEXT NOT NULL CHECK (kind IN ('proxy', 'analyse', 'render')),
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
CREATE INDEX jobs_by_state ON jobs (state, created_at);
CREATE INDEX jobs_by_film ON jobs (film_id, created_at);

-- What an analysis has seen so far; it goes on from the last chunk when it is interrupted.
CREATE TABLE analysis_chunks (
  film_id TEXT NOT NULL REFERENCES films (id) ON DELETE CASCADE,
  start_frame INTEGER NOT NULL,
  end_frame INTEGER NOT NULL,
  features BLOB NOT NULL,
  detections TEXT NOT NULL,
  PRIMARY KEY (film_id, start_frame)
) STRICT;

-- Tracks of each shot as it is finished.
CREATE TABLE shot_tracks (
  film_id TEXT NOT NULL REFERENCES films (id) ON DELETE CASCADE,
  start_frame INTEGER NOT NULL,
  end_frame INTEGER NOT NULL,
  tracks TEXT NOT NULL,
  PRIMARY KEY (film_id, start_frame, end_frame)
) STRICT;

CREATE TABLE shots (
  id TEXT PRIMARY KEY,
  film_id TEXT NOT NULL REFERENCES films (id) ON DELETE CASCADE,
  start_frame INTEGER NOT NULL,
  end_frame INTEGER NOT NULL CHECK (end_frame > start_frame),
  -- 'auto', 'none', or 'track:' and the track's id
  subject TEXT NOT NULL DEFAULT 'auto'
) STRICT;
CREATE INDEX shots_by_film ON shots (film_id, start_frame);

CREATE TABLE versions (
  id TEXT PRIMARY KEY,
  film_id TEXT NOT NULL REFERENCES films (id) ON DELETE CASCADE,
  name TEXT NOT NULL,
  width INTEGER NOT NULL,
  height INTEGER NOT NULL,
  position INTEGER NOT NULL
) STRICT;
CREATE INDEX versions_by_film ON versions (film_id, position);

CREATE TABLE shot_manners (
  version_id TEXT NOT NULL REFERENCES versions (id) ON DELETE CASCADE,
  shot_id TEXT NOT NULL REFERENCES shots (id) ON DELETE CASCADE,
  manner TEXT NOT NULL CHECK (manner IN ('still', 'glide', 'chase')),
  PRIMARY KEY (version_id, shot_id)
) STRICT;

CREATE TABLE hand_keys (
  version_id TEXT NOT NULL REFERENCES versions (id) ON DELETE CASCADE,
  frame INTEGER NOT NULL,
  x REAL NOT NULL,
  y REAL NOT NULL,
  height REAL NOT NULL,
  PRIMARY KEY (version_id, frame)
) STRICT;

-- Every change with what takes it back; undone ones wait for redo until something new is done.
CREATE TABLE edits (
  film_id TEXT NOT NULL REFERENCES films (id) ON DELETE CASCADE,
  sequence INTEGER NOT NULL,
  command TEXT NOT NULL,
  inverse TEXT NOT NULL,
  undone INTEGER NOT NULL DEFAULT 0,
  created_at INTEGER NOT NULL,
  PRIMARY KEY (film_id, sequence)
) STRICT;
`;
