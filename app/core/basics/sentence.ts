export const withFullStop = (text: string): string => `${text.replace(/\.$/, "")}.`;

/** A message that follows others, as a sentence by itself. */
export const asSentence = (text: string): string => withFullStop(`${text.charAt(0).toUpperCase()}${text.slice(1)}`);
