export const commonTexts = {
  /** components/common/dialog-panel.tsx */
  dialogPanel: {
    close: "Close",
  },
  /** components/common/not-answering.ts */
  notAnswering: {
    gladPanDoesNotAnswer: "Glad Pan is not responding. Check that it is running; this page picks up when it is.",
  },
  /** components/common/number-field.tsx */
  numberField: {
    dragToChange: "Drag to change",
    dragToChangeDoubleClick: (rest: number) => `Drag to change; double click for ${rest}`,
  },
  /** components/common/own-file-picker.tsx */
  ownFilePicker: {
    file: (text: string) => `${text}: file`,
    sending: "Sending…",
  },
  /** routes/own-file.ts */
  ownFileRoute: {
    thereIsNoSuchPicture: "This picture or font is not in your library.",
  },
  /** routes/own-files.ts */
  ownFilesRoute: {
    thereIsNoSuchFilm: "This film is not in your library.",
    nothingSent: "No picture or font was sent.",
    thisIsTooLarge: "This is too large.",
  },
  /** components/common/point-row.tsx */
  pointRow: {
    in: "In",
    out: "Out",
  },
  /** components/common/progress-bar.tsx */
  progressBar: {
    secondsLeft: (seconds: number) => `about ${seconds} s left`,
    minutesLeft: (minutes: number) => `about ${minutes} min left`,
  },
  /** routes/requests.server.ts */
  requestsRoute: {
    isDeletedBringItBack: (name: string) => `${name} is deleted. Bring it back from your library first.`,
    thereIsNoSuchFilm: "This film is not in your library.",
    thisIsTooLarge: "This is too large.",
    needsJsonType: "A change is sent as application/json.",
    thisIsNotJson: "This is not JSON.",
    thisIsNotAForm: "This is not a form.",
    freeSomeSpaceAndTry: (diskIsFull: string) => `${diskIsFull}. Free some space and try again.`,
  },
  /** root.tsx */
  root: {
    thisIsNotHere: "Page not found",
    somethingWentWrong: "Something went wrong",
    backToYourFilms: "Back to your films",
  },
  /** components/common/search-field.tsx */
  searchField: {
    search: "Search",
  },
  /** components/common/send-own-file.ts */
  sendOwnFile: {
    sendingFailed: "The file could not be sent. Try again.",
  },
  /** components/common/side-panel.tsx */
  sidePanel: {
    close: "Close",
  },
  /** components/common/sortable-list.tsx */
  sortableList: {
    move: (name: string) => `Move ${name}`,
    howTo:
      "Press Space to pick it up, the arrow keys to move it, Space to drop it, and Escape to leave it where it was.",
    pickedUp: (name: string) => `${name} picked up`,
    isAt: (name: string, place: number, of: number) => `${name}: ${place} of ${of}`,
    droppedAt: (name: string, place: number, of: number) => `${name} dropped: ${place} of ${of}`,
    leftWhereItWas: (name: string) => `${name} left where it was`,
  },
  /** components/common/wordmark.tsx */
  wordmark: {
    name: "Glad Pan",
  },
};
