export const laneTexts = {
  /** components/desk/views/lane/lane-trim.tsx */
  laneTrim: {
    beforeTheInPoint: "before the in point",
    afterTheOutPoint: "after the out point",
    leftOut: "left out",
  },
  /** components/desk/views/lane/path-lane.tsx */
  pathLane: {
    notAnalysedYet: "  not analysed yet",
  },
};
