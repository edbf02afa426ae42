/** What the film that ships with Glad Pan is called in the library. */
export const DEMO_FILM_NAME = "Ferrow Kite Day.mp4";
