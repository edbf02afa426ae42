/** What of a shot's picture is not the film's own bars. */
export const migration0006 = `
-- As JSON; null where the picture has no bars.
ALTER TABLE shots ADD COLUMN active TEXT;
`;
