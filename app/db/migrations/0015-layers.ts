/** Layers of a version, and its safe area. */
export const migration0015 = `
-- From back to front, as JSON.
ALTER TABLE versions ADD COLUMN layers TEXT NOT NULL DEFAULT '[]';
-- What is covered at each side of the frame, as JSON; null where nobody has said.
ALTER TABLE versions ADD COLUMN safe_area TEXT;
`;
