/** A message that follows others, as a sentence by itself. */
export const asSentence = (text: string): string =>
  `${text.charAt(0).toUpperCase()}${text.slice(1).replace(/\.$/, "")}.`;
