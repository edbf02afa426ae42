import { fixed, percent } from "./numbers";

export const stretchesTexts = {
  /** components/desk/trim/length-panel.tsx */
  lengthPanel: {
    howLongTheVersionIs: "How long the version is: in and out points, ranges left out, and a length limit",
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
    dropped: "Left out",
    nothingDragAlongTheStrip:
      "Nothing. Drag along the strip beside the lane to mark a range, or press comma and full stop at its ends.",
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
    keys: "Keyframes",
    smoothing: "Smoothing",
    s: "s",
    right: "Right",
    px: "px",
    down: "Down",
    softEnds: "Soft ends",
    tolerance: "Tolerance",
    ofTheWindow: "% of the window",
    howFarTheKeysMay: "How far the keyframes may stray from the path; higher means fewer keyframes",
    keep: "Keep",
    discard: "Discard",
  },
  /** components/desk/trim/stretch-bar.tsx */
  stretchBar: {
    smooth: "Smooth",
    shift: "Shift",
    firstFrame: "First frame of the range",
    lastFrame: "Last frame of the range",
    smoothsOutQuickChangesIn: "Smooths out quick changes in this range",
    movesThePathAsideIn: "Moves the path aside in this range, softly at its ends",
    reverse: "Reverse",
    reversesTheWindowsMoveIn: "Reverses the window's move in this range",
    markedStretch: "Range",
    leavesThisStretchOutOf: "Leaves this range out of the version",
    showsThisStretchInThe: "Shows this range in the version again",
    dropThisStretch: "Leave out this range",
    bringItBack: "Bring it back",
    deletesYourKeysInThis: "Deletes your keyframes in this range; the path is computed there again",
    deleteKeys: "Delete keyframes",
    clearTheMark: "Clear the range",
  },
  /** components/desk/trim/what-to-drop.tsx */
  whatToDrop: {
    blankPicture: "blank picture",
    nobodySpeaksNothingMoves: "nobody speaks, nothing moves",
    pauseInSpeech: "pause in speech",
    whatToDrop: "What to leave out",
    lookingForIdleStretches: "Looking for idle ranges…",
    thisFilmWasAnalysedBefore:
      "This film was analysed before Glad Pan looked for this. Add it again to see suggestions.",
    suggestionsComeWithTheAnalysis: "Suggestions come with the analysis.",
    noIdleStretchesFound: "No idle ranges found.",
    drop: (timecode: string) => `Leave out ${timecode}`,
    dropAll: (count: number, seconds: string) => `Leave out all ${count}, ${seconds}`,
  },
};
