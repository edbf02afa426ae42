export const compareTexts = {
  /** components/desk/compare/compare-menu.tsx */
  compareMenu: {
    compare: "Compare",
    centreCrop: "Centre crop",
    otherMovements: "This shot in another movement",
    otherVersions: "Other versions",
    checkpoints: "Checkpoints",
    stopComparing: "Stop comparing",
  },
  /** components/desk/compare/compared.tsx */
  compared: {
    versionNotInState: "This version did not exist in that state.",
    now: "Now",
    whatShows: (name: string) => `What "${name}" shows`,
  },
  /** components/desk/compare/comparison.ts */
  comparison: {
    centreCrop: "Centre crop",
  },
  /** components/desk/compare/split-line.tsx */
  splitLine: {
    lineBetweenBeforeAndNow: "Line between before and now",
    movableLine: "movable line",
  },
  /** components/desk/compare/use-sides.ts */
  useSides: {
    checkpointFailed: "The checkpoint could not be loaded.",
  },
};
