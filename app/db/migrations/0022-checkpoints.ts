/** Named states become checkpoints. */
export const migration0022 = `
ALTER TABLE named_states RENAME TO checkpoints;
ALTER TABLE replaced_sources RENAME COLUMN named_states TO checkpoints;
`;
