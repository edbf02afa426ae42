/** Films of several clips, and a job that joins these on one grid. */
export const migration0013 = `
CREATE TABLE clips (
  film_id TEXT NOT NULL REFERENCES films (id) ON DELETE CASCADE,
  id TEXT NOT NULL,
  name TEXT NOT NULL,
  -- The clip's own file, and what was found out about it, as JSON.
  file TEXT NOT NULL,
  info TEXT NOT NULL,
  -- In frames of the film.
  start_frame INTEGER NOT NULL,
  end_frame INTEGER NOT NULL,
  -- Counted from the clip's beginning; null for all of it.
  in_frame INTEGER,
  out_frame INTEGER,
  -- A box in the film's picture, as JSON.
  area TEXT NOT NULL,
  PRIMARY KEY (film_id, id)
) STRICT;

CREATE TABLE new_jobs (
  id TEXT PRIMARY KEY,
  film_id TEXT NOT NULL REFERENCES films (id) ON DELETE CASCADE,
  kind TEXT NOT NULL CHECK (kind IN ('join', 'proxy', 'analyse', 'follow', 'match', 'render')),
  state TEXT NOT NULL CHECK (state IN ('queued', 'running', 'done', 'failed', 'cancelled')),
  payload TEXT NOT NULL,
  step TEXT NOT NULL DEFAULT '',
  progress REAL NOT NULL DEFAULT 0,
  attempts INTEGER NOT NULL DEFAULT 0,
  error TEXT,
  result TEXT,
  created_at INTEGER NOT NULL,
  started_at INTEGER,
  begun_at_progress REAL
) STRICT;
INSERT INTO new_jobs SELECT id, film_id, kind, state, payload, step, progress, attempts, error, result, created_at,
  started_at, begun_at_progress FROM jobs;
DROP TABLE jobs;
ALTER TABLE new_jobs RENAME TO jobs;
CREATE INDEX jobs_by_state ON jobs (state, created_at);
CREATE INDEX jobs_by_film ON jobs (film_id, created_at);
`;
