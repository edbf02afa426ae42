export const shapesTexts = {
  /** core/geometry/frame-shapes.ts */
  frameShapes: {
    vertical916: "Vertical 9:16",
    portrait45: "Portrait 4:5",
    square11: "Square 1:1",
    classic43: "Classic 4:3",
    wide169: "Wide 16:9",
    cinema219: "Cinema 21:9",
  },
  /** core/composition/layers/layer.ts */
  layer: {
    picture: (name: string) => `picture “${name}”`,
    text: (line: string) => `text “${line}”`,
    bar: "bar",
  },
  /** core/composition/layers/safe-area.ts */
  safeArea: {
    evenMargin: "Even margin",
    wideMargin: "Wide margin",
    textBelow: "Text below",
    textAndButtons: "Text below, buttons on the right",
  },
};
