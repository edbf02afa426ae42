/** What a file with a film's work is, and what is in it. */
export const PROJECT_EXTENSION = ".gladpan";
/** The work, as JSON; the film's own file is beside it, or is not. */
export const DOCUMENT = "project.json";
