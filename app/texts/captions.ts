export const captionsTexts = {
  /** core/captions/read-captions.ts */
  readCaptions: {
    thisBelongsToNoCaption: "This line belongs to no caption.",
    thisCaptionEndsBeforeIt: "This caption ends before it starts",
    thisCaptionIsEmpty: "This caption is empty",
    itIsLeftOut: (why: string) => `${why}; it is left out.`,
    thereIsNoCaptionIn: (name: string) => `${name}: no captions found; choose an SRT or WebVTT file`,
    theCaptionsAreNotIn: "The captions were out of order and have been sorted.",
    thisCaptionOverlapsTheNext: "This caption overlaps the next; it ends where that begins.",
  },
  /** routes/captions.ts */
  captionsRoute: {
    writtenAs: "Captions are written as srt or vtt.",
    aFileIsNeeded: "A file is needed.",
    noText: (name: string) => `${name}: no captions and no text found; choose an SRT, WebVTT or text file.`,
  },
};
