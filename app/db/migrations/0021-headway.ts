/** Progress of a job that was begun more than once. */
export const migration0021 = `
-- 0 to 1: a start that gets further than this got somewhere.
ALTER TABLE jobs ADD COLUMN headway REAL NOT NULL DEFAULT 0;
`;
