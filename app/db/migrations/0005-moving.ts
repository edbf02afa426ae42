/** A data folder that can be moved, and progress of jobs. */
export const migration0005 = `
-- A film's file is told from the data folder on, where it lies inside it.
UPDATE films SET file = substr(file, instr(file, '/films/' || id || '/') + 1)
WHERE instr(file, '/films/' || id || '/') > 0;

-- How far a job was when it was last begun; null until it says so.
ALTER TABLE jobs ADD COLUMN begun_at_progress REAL;
`;
