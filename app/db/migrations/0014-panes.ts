/** Hand keys of a shot's second and third pane. */
export const migration0014 = `
CREATE TABLE new_hand_keys (
  version_id TEXT NOT NULL REFERENCES versions (id) ON DELETE CASCADE,
  pane INTEGER NOT NULL,
  frame INTEGER NOT NULL,
  x REAL NOT NULL,
  y REAL NOT NULL,
  height REAL NOT NULL,
  easing TEXT,
  PRIMARY KEY (version_id, pane, frame)
) STRICT;
INSERT INTO new_hand_keys SELECT version_id, 0, frame, x, y, height, easing FROM hand_keys;
DROP TABLE hand_keys;
ALTER TABLE new_hand_keys RENAME TO hand_keys;
`;
