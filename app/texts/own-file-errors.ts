/** Why one of the editor's own pictures, films or fonts cannot be used. Each follows the file's name and a colon. */
export const ownFileErrors = {
  /** media/own/read-picture.server.ts, media/own/moving/animation.server.ts */
  picture: {
    notAPicture: "this is not a picture. Use a PNG, JPEG, WebP or SVG file.",
    tooManyBytes: (megabytes: number) => `a picture has at most ${megabytes} MB. Make it smaller.`,
    tooManyPixels: (width: number, height: number, most: number) =>
      `this picture is ${width} × ${height}; at most ${most} pixels a side. Make it smaller.`,
    damaged: "this picture is damaged. Save it again.",
    drawingUnreadable: "this drawing cannot be read. Save it again, or as PNG.",
    drawingReachesOut: "this drawing has references to something outside of it. Save it without, or as PNG.",
    drawingRepeats: "this drawing has parts that are repeated too often. Save it without, or as PNG.",
    drawingHas: (what: string) => `this drawing has ${what}. Save it without, or as PNG.`,
    animationDamaged: "this animation is damaged. Save it again.",
    animationTooLarge: "this animation is too large. Save it smaller, or as a film.",
    otherSize: (size: string, first: string, firstSize: string) => `it is ${size}, and ${first} is ${firstSize}.`,
  },
  /** media/own/moving/moving-file.server.ts, library/own/own-moving.server.ts */
  film: {
    tooManyBytes: (gigabytes: number) => `a film that is placed has at most ${gigabytes} GB. Export a smaller one.`,
    tooLong: (minutes: number) =>
      `a film that is placed has at most ${minutes} minutes. Export the part that you need.`,
    madeOfClips: "it is made of clips. Export it, or place one of its clips.",
  },
  /** media/own/read-font.server.ts */
  font: {
    notAFont: "this is not a font. Use a TTF, OTF or WOFF2 file.",
    tooManyBytes: (megabytes: number) => `a font has at most ${megabytes} MB.`,
    damaged: "this font is damaged. Download it again.",
  },
  /** media/apart/apart.server.ts */
  reading: {
    takesTooLong: (name: string) => `${name}: this file takes too long to read; save it again, or make it simpler`,
  },
};
