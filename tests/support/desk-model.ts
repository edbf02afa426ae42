import type { DeskInputs } from "~/components/desk/model/desk-inputs";
import { createDesk, type DeskModel } from "~/components/desk/model/desk-model";
import { deskShot, foundShot } from "~/components/desk/model/desk-shot";
import type { DeskFlag } from "~/components/desk/model/desk-types";
import { readPictureLook } from "~/components/desk/model/picture-look";
import type { Player } from "~/components/desk/model/player";
import { Steering } from "~/components/desk/model/steering";
import { NO_FAULTS } from "~/core/checks/picture-faults";
import { compose } from "~/core/composition/composition";
import { layOut } from "~/core/composition/layout";
import { applyEdit } from "~/core/edits/apply";
import type { Command } from "~/core/edits/command";
import { USUAL_FRAMING } from "~/core/path/framing-settings";
import { framesPerSecond } from "~/core/time/rate";
import { inRange } from "~/core/time/rate";
import type { FilmState } from "~/core/version/film-state";
import { shotSettings } from "~/core/version/shot-settings";
import { keptRanges } from "~/core/version/trim";
import { TWO_SHOTS } from "./film-state";

const RATE = { num: 30, den: 1 };

/** A desk without a page, a server or a worker: what is sent is done at once, and no shot is framed. */
export class TestDesk {
  readonly sent: Command[] = [];
  readonly previewed: (Command | null)[] = [];
  readonly told: string[] = [];
  /** The version that was shown last, and whether the last change was taken back. */
  shownVersion: string | null = null;
  undone = 0;
  frame = 0;
  flags: Readonly<Record<string, DeskFlag[]>> = {};
  speech: DeskInputs["speech"] = [];
  private readonly store;

  constructor(private state: FilmState = TWO_SHOTS) {
    this.store = createDesk(this.inputs());
  }

  get now(): DeskModel {
    return this.store.getState();
  }

  /** Lets the model have what is different now. */
  renew(): void {
    this.now.give(this.inputs());
  }

  /** Makes a change as somebody else would. */
  apply(command: Command): void {
    this.state = applyEdit(this.state, command).state;
    this.renew();
  }

  private readonly player = {
    getFrame: () => this.frame,
    getTarget: () => this.frame,
    seek: (frame: number) => void (this.frame = frame),
    pause: () => {},
  } as Player;

  private readonly edits: DeskInputs["edits"] = {
    send: (command) => {
      this.sent.push(command);
      this.apply(command);
    },
    preview: (command) => void this.previewed.push(command),
    undo: () => void this.undone++,
    redo: () => {},
    goBack: () => {},
  };

  private inputs(): DeskInputs {
    const { state } = this;
    const [version] = state.versions;
    const { picture, frames, clock, id } = state.film;
    const at = { size: version!, fps: framesPerSecond(RATE) };
    const shots = shotSettings(state, version!).map((set, i) =>
      deskShot(
        foundShot(set, null, true, at, () => []),
        {
          number: i + 1,
          selectedPane: 0,
          marks: state.marks.filter(({ frame }) => inRange(frame, set.shot)),
          flags: this.flags[set.shot.id] ?? [],
          picture,
          people: state.people,
        },
      ),
    );
    const area = { x: 0, y: 0, ...picture };
    const shownAt = () => compose([{ x: 960, y: 540, height: 1080 }], layOut(USUAL_FRAMING, area, version!), version!);
    return {
      film: { id, name: "Kite.mp4", picture, rate: RATE, frames, bitDepth: 8, clock },
      facts: {
        videoCodec: "h264",
        bytes: 1,
        interlaced: false,
        fields: false,
        audio: null,
        sounds: [],
        lacking: { held: 0, longHolds: [], undecoded: [], cutOff: 0 },
      },
      source: { pieceUrl: () => "", rate: RATE, frames, hasSound: false },
      state,
      version: version!,
      shots,
      revision: 0,
      isBusy: () => false,
      edits: this.edits,
      history: { undo: null, redo: null },
      showVersion: (versionId) => void (this.shownVersion = versionId),
      kept: keptRanges(version!.trim, frames, state),
      findings: { analysed: [{ start: 0, end: frames }], marks: [], longHolds: [], undecoded: [], faults: NO_FAULTS },
      speech: this.speech,
      exports: [],
      out: { formats: [], folders: [], beside: false },
      player: this.player,
      video: null,
      shownAt,
      layered: (shown) => shown,
      captionPlaces: new Map(),
      pane: 0,
      selectPane: () => {},
      storedLook: { view: "fit", setView: () => {}, comparisonView: "beside", setComparisonView: () => {} },
      pictureLook: readPictureLook(null),
      setPictureLook: () => {},
      steering: new Steering((_frame, window) => window),
      waitFor: () => {},
      tell: (text, _tone, action) => {
        this.told.push(text);
        this.offered = action?.run ?? null;
      },
    };
  }

  /** What the last message offers to do. */
  offered: (() => void) | null = null;
}
