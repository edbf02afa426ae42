/** How attention switches in a film's shots. */
export const migration0020 = `
-- As JSON; null for what is usual.
ALTER TABLE films ADD COLUMN attention TEXT;
`;
