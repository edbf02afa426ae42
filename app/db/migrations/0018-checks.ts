/** Limits of a version's checks, and its reviewed flags. */
export const migration0018 = `
-- As JSON; null for what is usual.
ALTER TABLE versions ADD COLUMN check_limits TEXT;
ALTER TABLE versions ADD COLUMN seen_looks TEXT NOT NULL DEFAULT '[]';
`;
