import type { Production } from "./produce";

/** What is said on the kite day, by whom, and from which frame of which shot on. */
export const LINES: Production["lines"] = [
  {
    shot: "presenter",
    at: 14,
    person: "nela",
    text: "Good afternoon from Ferrow! The wind came up at noon, and half the town is out on the salt meadows with a kite.",
  },
  { shot: "makers", at: 8, person: "bram", text: "My grandfather cut these spars from willow." },
  { shot: "makers", at: 104, person: "ilse", text: "And I sew the sails, each one by hand." },
  { shot: "makers", at: 196, person: "bram", text: "She does it better than I ever could." },
  { shot: "close-up", at: 8, person: "ilse", text: "A good kite wants to leave you. That is the art." },
  { shot: "farewell", at: 62, person: "nela", text: "That was our kite day. See you next year." },
];
