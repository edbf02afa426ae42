export const pictureTexts = {
  /** components/desk/views/picture/box-handles.tsx */
  boxHandles: {
    movableBox: "movable box",
    dragHint: (name: string) => `${name}: drag its border or a handle, or use the arrow keys; Alt resizes`,
  },
  /** components/desk/views/picture/crop-window-control.tsx */
  cropWindowControl: {
    movableWindow: "movable window",
    windowLabel: "Crop window: drag it, or move it with the arrow keys",
    trail: "Trail",
  },
  /** components/desk/views/desk-tools.tsx */
  deskTools: {
    showSubjects: "Show subjects",
    markSubject: "Mark a subject: draw a box around it",
    centreWindow: "Centre the window: click what should be in the middle",
    eyesHere: "Eyes here: click at the height where the eyes should be",
    steer: "Steer the window by hand",
  },
  /** components/desk/model/drawing.ts */
  drawing: {
    mark: "Draw a box around the subject",
    protect: "Draw a box around the area to keep in the window",
    activeArea: "Draw a box around the picture inside the letterbox",
    centre: "Click what the window should be centred on",
    eyes: "Click in the window at the height where the eyes should be",
  },
  /** components/desk/views/picture/kept-parts.tsx */
  keptParts: {
    letterbox: "Letterbox",
  },
  /** components/desk/views/picture/other-panes.tsx */
  otherPanes: {
    selectPane: (pane: number) => `Select pane ${pane}`,
  },
  /** components/desk/views/picture/picture.tsx */
  picture: {
    theWholePicture: "The whole picture",
  },
  /** components/desk/views/picture-and-lanes.tsx */
  pictureAndLanes: {
    lane: "Lane",
    laneBesideThePicture: "Lane beside the picture",
  },
  /** components/desk/views/picture/picture-look-panel.tsx */
  pictureLookPanel: {
    thirdsCentreAndEyeLine: "Thirds, centre and eye line",
    subjects: "Subjects",
    trailOfTheWindowsCentre: "Trail of the window's centre",
    safeArea: "Safe area",
    picture: "Picture",
    shadeOutsideTheWindow: "Shade outside the window",
    sizeOfThePicture: "Size of the picture",
    fullSize: "full size",
    open: "open",
    hidden: "hidden",
    smaller: "smaller",
  },
  /** components/desk/views/picture/picture-subjects.tsx */
  pictureSubjects: {
    follow: (name: string) => `Follow ${name}`,
  },
  /** components/desk/views/picture/sound-control.tsx */
  soundControl: {
    volume: "Volume",
    volumeMuted: "Volume: muted",
    volumeOf: (percent: number) => `Volume: ${percent}%`,
    volumeShown: (shown: number) => `Volume ${shown}%`,
    unmute: "Unmute",
    mute: "Mute",
    off: "off",
    full: "full",
  },
  /** components/desk/views/picture/steer-layer.tsx */
  steerLayer: {
    steeringArea: "steering area",
    steerHint: "Steer the window: hold the pointer down and lead it, or hold arrow keys, while the film plays",
  },
  /** components/desk/views/picture/transport.tsx */
  transport: {
    previousCut: "Previous cut",
    oneFrameBack: "One frame back",
    pause: "Pause",
    play: "Play",
    oneFrameOn: "One frame on",
    nextCut: "Next cut",
    stopLooping: "Stop looping",
    loopRange: "Loop the range",
    loopTheShot: "Loop the shot",
    speed: "Speed",
    of: (timecode: string) => `of ${timecode}`,
    timecodeLabel: "Timecode: type one, or a frame number, and press Enter",
    timecodeHint: (keys: string) => `Type a timecode or a frame number, then Enter (${keys})`,
  },
  /** components/desk/hooks/use-piece-stream.ts */
  usePieceStream: {
    preparing: "Preparing this part of the film",
  },
};
