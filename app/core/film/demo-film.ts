/** Name of the demo film in the library. */
export const DEMO_FILM_NAME = "Ferrow Kite Day.mp4";
