import { counted } from "./numbers";

export const keysTexts = {
  /** components/desk/keys/keys-panel.tsx */
  keysPanel: {
    keys: "Keys",
    shot: (number: number, count: number) => `Shot ${number}: ${counted(count, "key")}`,
    tickKeysOfYourOwn: "Tick keys of your own to move, copy or delete several at once.",
    selected: (count: number) => `${counted(count, "key")} selected`,
    copy: "Copy",
    pasteAtPlayhead: "Paste at playhead",
    delete: "Delete",
    right: "Right",
    px: "px",
    down: "Down",
    move: "Move",
  },
  /** components/desk/keys/keys-table.tsx */
  keysTable: {
    time: "Time",
    zoom: "Zoom",
    easing: "Easing",
    selectAllYourKeys: "Select all your keys",
    selectTheKeyAt: (time: string) => `Select the key at ${time}`,
    computed: "Computed",
    frame: (frame: number) => `Frame ${frame}`,
    xAt: (time: string) => `x at ${time}`,
    yAt: (time: string) => `y at ${time}`,
    zoomAt: (time: string) => `Zoom at ${time}`,
  },
  /** components/desk/keys/use-selected-keys.ts */
  useSelectedKeys: {
    copied: (count: number) => `${counted(count, "key")} copied.`,
    wouldLieBeyondTheShot: (lost: number) =>
      `${counted(lost, "key")} fell outside the shot and ${lost === 1 ? "was" : "were"} left out.`,
  },
};
