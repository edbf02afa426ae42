/** What the desk's model is given from outside: by the server, by what plays, and by what frames the shots. */
import type { ExportPlaces } from "~/components/exports/output-fields";
import type { Lacking } from "~/core/checks/lacking-pictures";
import type { PictureFaults } from "~/core/checks/picture-faults";
import type { ShownAt } from "~/core/composition/composition";
import type { History } from "~/core/edits/answer";
import type { Command } from "~/core/edits/command";
import type { SoundTrack } from "~/core/film/film-info";
import type { ExportView } from "~/core/film/film-status";
import type { FrameRange } from "~/core/time/rate";
import type { FilmState, VersionState } from "~/core/version/film-state";
import type { DeskFilm, DeskShot } from "./desk-types";
import type { EditSession } from "./edit-session";
import type { PictureLook } from "./picture-look";
import type { LightCopy } from "./piece-stream";
import type { Player } from "./player";
import type { StoredLook } from "./result-look";
import type { Steering } from "./steering";
import type { TracksToLoad } from "./track-loader";

/** What the film's file holds, and what of it is used. */
export interface FilmFacts {
  videoCodec: string;
  bytes: number;
  interlaced: boolean;
  fields: boolean;
  audio: { index: number } | null;
  sounds: Pick<SoundTrack, "index" | "codec" | "channels" | "language" | "title">[];
  lacking: Lacking;
}

/** What is known of a film beside its state. */
export interface FilmFindings extends TracksToLoad, Pick<Lacking, "longHolds" | "undecoded"> {
  faults: PictureFaults;
}

/** Makes changes of the film, and takes them back. */
export interface Edits {
  send: (command: Command) => void;
  undo: () => void;
  redo: () => void;
  /** Goes to a step of the history, or to a checkpoint. */
  goBack: EditSession["goBack"];
  /** Shows what a command would do, until another is shown or one is sent; null shows nothing. */
  preview: (command: Command | null) => void;
}

/** What a message offers to do about what it says. */
export interface Offer {
  label: string;
  run: () => void;
  /** How long it stays, in milliseconds; as long as any message if left out. */
  forMs?: number;
}

/** Says something for a few seconds; with what can be done about it. */
export type Tell = (text: string, tone?: "plain" | "error" | "warning", offer?: Offer) => void;

export interface DeskInputs {
  film: DeskFilm;
  facts: FilmFacts;
  /** What is played. */
  source: LightCopy;
  state: FilmState;
  history: History;
  /** The newest revision of the film that the desk knows of. */
  revision: number;
  /** Whether the server has not answered all that was sent. */
  isBusy: () => boolean;
  edits: Edits;
  version: VersionState;
  /** Shows another version of the film. */
  showVersion: (versionId: string) => void;
  /** The shots of the version, as far as they are framed. */
  shots: DeskShot[];
  /** The ranges of the film that the version shows. */
  kept: readonly FrameRange[];
  findings: FilmFindings;
  /** The ranges of the film in which somebody speaks. */
  speech: readonly FrameRange[];
  exports: ExportView[];
  /** What exports of the film can be, and where they can go. */
  out: ExportPlaces;
  player: Player | null;
  video: HTMLVideoElement | null;
  /** What the version shows at a frame. */
  shownAt: ShownAt;
  /** What is shown with the version's layers and captions. */
  layered: (shown: ShownAt) => ShownAt;
  /** How far down the safe area each caption of the version stands, by its id. */
  captionPlaces: ReadonlyMap<string, number>;
  /** Which pane is selected in shots that have it, from 0. */
  pane: number;
  selectPane: (pane: number) => void;
  /** How this browser looks at results. */
  storedLook: StoredLook;
  /** How the picture is looked at. */
  pictureLook: PictureLook;
  setPictureLook: (change: Partial<PictureLook>) => void;
  /** The window while it is led by hand. */
  steering: Steering;
  /** Says which shots are looked at, so that they are framed first. */
  waitFor: (shotIds: string[]) => void;
  tell: Tell;
}
