/** What is worth a second look in a version, and what of it has been seen. */
export const migration0018 = `
-- As JSON; null for what is usual.
ALTER TABLE versions ADD COLUMN check_limits TEXT;
ALTER TABLE versions ADD COLUMN seen_looks TEXT NOT NULL DEFAULT '[]';
`;
