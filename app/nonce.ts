import { createContext } from "react-router";

/** The word, new for each answer, without which no script that stands in a page is run. */
export const nonceContext = createContext("");
