import { counted } from "./numbers";

export const keysTexts = {
  /** components/desk/views/keys/keys-panel.tsx */
  keysPanel: {
    keys: "Keyframes",
    shot: (number: number, count: number) => `Shot ${number}: ${counted(count, "keyframe")}`,
    selectHint: "Tick keyframes of your own to move, copy or delete several at once.",
    selected: (count: number) => `${counted(count, "keyframe")} selected`,
    copy: "Copy",
    pasteAtPlayhead: "Paste at playhead",
    delete: "Delete",
    right: "Right",
    px: "px",
    down: "Down",
    move: "Move",
  },
  /** components/desk/views/keys/keys-table.tsx */
  keysTable: {
    time: "Time",
    zoom: "Zoom",
    easing: "Easing",
    selectAll: "Select all your keyframes",
    selectKeyframe: (time: string) => `Select the keyframe at ${time}`,
    computed: "Computed",
    frame: (frame: number) => `Frame ${frame}`,
    xAt: (time: string) => `x at ${time}`,
    yAt: (time: string) => `y at ${time}`,
    zoomAt: (time: string) => `Zoom at ${time}`,
  },
  /** components/desk/model/selected-keys.ts */
  selectedKeys: {
    copied: (count: number) => `${counted(count, "keyframe")} copied.`,
    outsideShot: (lost: number) =>
      `${counted(lost, "keyframe")} fell outside the shot and ${lost === 1 ? "was" : "were"} left out.`,
  },
};
