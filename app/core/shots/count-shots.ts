/** So many shots, in words: "1 shot", "12 shots". */
export const countShots = (count: number): string => `${count} ${count === 1 ? "shot" : "shots"}`;
