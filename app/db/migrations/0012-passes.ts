/** An analysis that starts from where the editor is. */
export const migration0012 = `
-- The part of the film that the analysis is in; null for all of it.
ALTER TABLE transition_candidates ADD COLUMN pass_start INTEGER;
ALTER TABLE transition_candidates ADD COLUMN pass_end INTEGER;

-- A frame that somebody waits for; null if nobody does.
ALTER TABLE films ADD COLUMN wanted_frame INTEGER;
`;
