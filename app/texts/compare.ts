export const compareTexts = {
  /** components/desk/views/compare/compare-menu.tsx */
  compareMenu: {
    compare: "Compare",
    centreCrop: "Centre crop",
    otherMovements: "This shot in another movement",
    otherVersions: "Other versions",
    checkpoints: "Checkpoints",
    stopComparing: "Stop comparing",
  },
  /** components/desk/views/compare/compared.tsx */
  compared: {
    versionNotInState: "This version did not exist then.",
    now: "Now",
    whatShows: (name: string) => `What “${name}” shows`,
  },
  /** components/desk/model/comparison.ts */
  comparison: {
    centreCrop: "Centre crop",
  },
  /** components/desk/views/compare/split-line.tsx */
  splitLine: {
    lineBetweenBeforeAndNow: "Line between before and now",
    movableLine: "movable line",
  },
  /** components/desk/views/compare/use-sides.ts */
  useSides: {
    checkpointFailed: "The checkpoint could not be loaded.",
  },
};
