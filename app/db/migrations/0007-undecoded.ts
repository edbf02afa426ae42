/** Frames whose pictures are in the film's file but could not be decoded. */
export const migration0007 = `
CREATE TABLE undecoded_frames (
  film_id TEXT NOT NULL REFERENCES films (id) ON DELETE CASCADE,
  start_frame INTEGER NOT NULL,
  end_frame INTEGER NOT NULL,
  PRIMARY KEY (film_id, start_frame)
) STRICT;
`;
