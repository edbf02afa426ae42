import { percent } from "./numbers";

export const resultTexts = {
  /** components/desk/views/result/pane-handle.tsx */
  paneHandle: {
    dragToPlaceThePicture: "Drag to place the picture; hold Shift to place it freely",
    movablePicture: "movable picture",
    placeOfThePicture: (share: number, way: string) => `Place of the picture: ${percent(share)} ${way}`,
    topToBottom: "from top to bottom",
    leftToRight: "from left to right",
  },
  /** components/desk/views/result.tsx */
  result: {
    result: "Result",
  },
  /** components/desk/views/result-bar.tsx */
  resultBar: {
    beside: "Beside",
    sideBySide: "Side by side",
    split: "Split",
    splitHint: "One over the other, with a dividing line",
    flip: "Flip",
    oneAtATime: "One at a time",
    stopComparing: "Stop comparing",
    leaveFullScreen: "Leave full screen",
    fullScreen: "Full screen",
    trueSizeHint: "True size: one pixel of the frame for one of the screen",
    asOnAPhone: "As on a phone",
    compareBy: "Compare by",
    showTheOther: "Show the other",
  },
  /** components/desk/views/result/single-result.tsx */
  singleResult: {
    whatShows: (name: string) => `What “${name}” shows`,
  },
  /** components/desk/views/result/stack-handles.tsx */
  stackHandles: {
    selectPane: (pane: number) => `Select pane ${pane}: its subject, path and keyframes`,
    pane: (pane: number) => `Pane ${pane}`,
    borderHint: "Drag to give one pane more of the frame; hold Shift to place it freely",
    movableBorder: "movable border",
    paneBorder: (pane: number, next: number) => `Border between panes ${pane} and ${next}`,
  },
};
