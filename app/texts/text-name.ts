/** What a text in the picture is called: by its words, where they were read. */
export const textName = (words: string | null, mayBeSign = false): string =>
  `${words === null ? "Text" : `“${words}”`}${mayBeSign ? " (may be a sign)" : ""}`;
