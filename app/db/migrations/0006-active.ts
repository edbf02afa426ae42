/** Letterbox of a shot. */
export const migration0006 = `
-- As JSON; null where the picture has no bars.
ALTER TABLE shots ADD COLUMN active TEXT;
`;
