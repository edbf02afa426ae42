import { fixed, percent } from "./numbers";

export const stretchesTexts = {
  /** components/desk/trim/length-panel.tsx */
  lengthPanel: {
    howLongTheVersionIs: "How long the version is: in and out points, dropped stretches, and a length limit",
    lengthOfTheVersion: "Length of the version:",
    sTooLong: (over: number) => `${fixed(over, 1)} s too long`,
    length: "Length",
    theWholeFilm: (seconds: string) => `The whole film, ${seconds}.`,
    of: (length: string, whole: string) => `${length} of ${whole}.`,
    overTheLimit: (over: string, limit: number) => `${over} over the limit of ${limit} s.`,
    theVersionBeginsWithThe: "The version begins with the frame under the playhead",
    theVersionEndsWithThe: "The version ends with the frame under the playhead",
    theFilmsBeginning: "the film's beginning",
    theFilmsEnd: "the film's end",
    removeThePoint: (point: string) => `Remove the ${point} point`,
    dropped: "Dropped",
    nothingDragAlongTheStrip:
      "Nothing. Drag along the strip beside the lane to mark a stretch, or mark it with Shift I and Shift O.",
    bringBack: (timecode: string) => `Bring back ${timecode}`,
  },
  /** core/replacement.ts */
  replacement: {
    notInTheNewFile: "not in the new file",
    ofItIsThere: (share: number) => `${percent(share)} of it is there`,
    looksDifferentAlike: (likeness: number) => `looks different (${percent(likeness)} alike)`,
  },
  /** components/desk/reshape/reshape-panel.tsx */
  reshapePanel: {
    steered: "Steered",
    smooth: "Smooth",
    reverse: "Reverse",
    reshapeThePath: "Reshape the path",
    keys: "Keys",
    smoothing: "Smoothing",
    s: "s",
    right: "Right",
    px: "px",
    down: "Down",
    softEnds: "Soft ends",
    tolerance: "Tolerance",
    ofTheWindow: "% of the window",
    howFarTheKeysMay: "How far the keys may stray from the path; higher means fewer keys",
    keep: "Keep",
    discard: "Discard",
  },
  /** components/desk/trim/stretch-bar.tsx */
  stretchBar: {
    smooth: "Smooth",
    shift: "Shift",
    firstFrame: "First frame of the stretch",
    lastFrame: "Last frame of the stretch",
    smoothsOutQuickChangesIn: "Smooths out quick changes in this stretch",
    movesThePathAsideIn: "Moves the path aside in this stretch, softly at its ends",
    reverse: "Reverse",
    reversesTheWindowsMoveIn: "Reverses the window's move in this stretch",
    markedStretch: "Marked stretch",
    leavesThisStretchOutOf: "Leaves this stretch out of the version",
    showsThisStretchInThe: "Shows this stretch in the version again",
    dropThisStretch: "Drop this stretch",
    bringItBack: "Bring it back",
    deletesYourKeysInThis: "Deletes your keys in this stretch; the path is computed there again",
    deleteKeys: "Delete keys",
    clearTheMark: "Clear the mark",
  },
  /** components/desk/trim/what-to-drop.tsx */
  whatToDrop: {
    blankPicture: "blank picture",
    nobodySpeaksNothingMoves: "nobody speaks, nothing moves",
    pauseInSpeech: "pause in speech",
    whatToDrop: "What to drop",
    lookingForIdleStretches: "Looking for idle stretches…",
    thisFilmWasAnalysedBefore:
      "This film was analysed before Glad Pan looked for this. Add it again to see suggestions.",
    suggestionsComeWithTheAnalysis: "Suggestions come with the analysis.",
    noIdleStretchesFound: "No idle stretches found.",
    drop: (timecode: string) => `Drop ${timecode}`,
    dropAll: (count: number, seconds: string) => `Drop all ${count}, ${seconds}`,
  },
};
