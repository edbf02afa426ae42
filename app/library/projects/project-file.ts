/** File extension of saved work, and names in it. */
export const PROJECT_EXTENSION = ".gladpan";
/** The work, as JSON; the film's own file may be beside it. */
export const DOCUMENT = "project.json";
