import { createContext } from "react-router";

/** Nonce of the content security policy, new for each answer, without which no script in a page runs. */
export const nonceContext = createContext("");
