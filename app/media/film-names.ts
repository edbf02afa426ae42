/** File names of films and projects; probing every file would take long. */
const FILM_NAMES =
  /\.(mp4|m4v|mov|qt|mkv|webm|avi|divx|ts|mts|m2ts|mpe?g|vob|m2v|mxf|gxf|wmv|asf|flv|f4v|og[vm]|dv|3gp|3g2|nut|ivf|y4m|h26[45]|hevc|gif|gladpan)$/i;

/** Whether a file is a film, or saved work, by its name. */
export const isFilmName = (name: string): boolean => FILM_NAMES.test(name);
