/** How many of something there are, in words: "1 shot", "12 shots"; `many` where an s does not do. */
export const counted = (count: number, one: string, many = `${one}s`): string => `${count} ${count === 1 ? one : many}`;
