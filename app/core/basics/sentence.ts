export const withFullStop = (text: string): string => `${text.replace(/\.$/, "")}.`;

/** A message that usually follows others, as a sentence of its own. */
export const asSentence = (text: string): string => withFullStop(`${text.charAt(0).toUpperCase()}${text.slice(1)}`);
