/** Export settings of a version, and the order of renders. */
export const migration0019 = `
-- As JSON; null for what is usual.
ALTER TABLE versions ADD COLUMN output TEXT;

-- Renders in the order in which they are taken; everything else comes before them.
ALTER TABLE jobs ADD COLUMN position INTEGER NOT NULL DEFAULT 0;
-- Whether it waits until somebody lets it go on.
ALTER TABLE jobs ADD COLUMN paused INTEGER NOT NULL DEFAULT 0;
-- Milliseconds since 1970.
ALTER TABLE jobs ADD COLUMN finished_at INTEGER;
UPDATE jobs SET position = rowid WHERE kind = 'render';
`;
