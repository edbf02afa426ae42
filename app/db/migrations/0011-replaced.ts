/** Replacing a film's file with a new export: a job that compares the two, and the film before. */
export const migration0011 = `
CREATE TABLE new_jobs (
  id TEXT PRIMARY KEY,
  film_id TEXT NOT NULL REFERENCES films (id) ON DELETE CASCADE,
  kind TEXT NOT NULL CHECK (kind IN ('proxy', 'analyse', 'follow', 'match', 'render')),
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

-- What a film was before its file was replaced: its work as a project, and what could be undone then, as JSON.
CREATE TABLE replaced_sources (
  film_id TEXT NOT NULL REFERENCES films (id) ON DELETE CASCADE,
  replaced_at INTEGER NOT NULL,
  file TEXT NOT NULL,
  project TEXT NOT NULL,
  edits TEXT NOT NULL,
  PRIMARY KEY (film_id, replaced_at)
) STRICT;
`;
