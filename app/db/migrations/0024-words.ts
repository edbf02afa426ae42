import { renameWords } from "./rename-words";

/** Switches were called turns, ranges left out were dropped stretches; a checkpoint stores a difference. */
export const migration0024 = `
ALTER TABLE shots ADD COLUMN begins_by TEXT NOT NULL DEFAULT 'cut'
  CHECK (begins_by IN ('cut', 'jump', 'dissolve', 'wipe', 'fade', 'switch'));
UPDATE shots SET begins_by = iif(begins = 'turn', 'switch', begins);
ALTER TABLE shots DROP COLUMN begins;
ALTER TABLE shots RENAME COLUMN begins_by TO begins;
ALTER TABLE versions RENAME COLUMN drops TO left_out;
UPDATE shots SET subject = 'switches' || substr(subject, 6) WHERE subject LIKE 'turns:%';
${renameWords([
  ['"kind":"turns","turns":', '"kind":"switches","switches":'],
  ['"turns:[', '"switches:['],
  ['"kind":"turn"', '"kind":"switch"'],
  ['"begins":"turn"', '"begins":"switch"'],
  ['"drops":', '"leftOut":'],
  ['"stretches":', '"ranges":'],
  ['"drop-stretches"', '"leave-out"'],
  ['"keep-stretches"', '"bring-back"'],
])}
ALTER TABLE checkpoints RENAME COLUMN kept TO difference;
UPDATE replaced_sources SET checkpoints = replace(checkpoints, '"kept":', '"difference":');
`;
