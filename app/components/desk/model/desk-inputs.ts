/** What the desk's model is given from outside: by the server, by the player, and by the framing of shots. */
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

/** Facts about the film's file, and which of its streams are used. */
export interface FilmFacts {
  videoCodec: string;
  bytes: number;
  interlaced: boolean;
  fields: boolean;
  audio: { index: number } | null;
  sounds: Pick<SoundTrack, "index" | "codec" | "channels" | "language" | "title">[];
  lacking: Lacking;
}

/** What has been found in a film. */
export interface FilmFindings extends TracksToLoad, Pick<Lacking, "longHolds" | "undecoded"> {
  faults: PictureFaults;
}

/** Changes the film, and undoes changes. */
export interface Edits {
  send: (command: Command) => void;
  undo: () => void;
  redo: () => void;
  /** Goes to a step of the history, or to a checkpoint. */
  goBack: EditSession["goBack"];
  /** Previews a command, until another is previewed or one is sent; null ends the preview. */
  preview: (command: Command | null) => void;
}

/** An action that a message offers. */
export interface Offer {
  label: string;
  run: () => void;
  /** Milliseconds for which it is shown; as long as any message if left out. */
  forMs?: number;
}

/** Shows a message for a few seconds, with what can be done about it. */
export type Tell = (text: string, tone?: "plain" | "error" | "warning", offer?: Offer) => void;

export interface DeskInputs {
  film: DeskFilm;
  facts: FilmFacts;
  /** The proxy that is played. */
  source: LightCopy;
  state: FilmState;
  history: History;
  /** The newest revision of the film that the desk knows of. */
  revision: number;
  /** Whether the server has not yet answered everything that was sent. */
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
  /** The speech segments of the film. */
  speech: readonly FrameRange[];
  exports: ExportView[];
  /** Formats and folders for exports of the film. */
  out: ExportPlaces;
  player: Player | null;
  video: HTMLVideoElement | null;
  /** What the version shows at a frame. */
  shownAt: ShownAt;
  /** Adds the version's layers and captions to what is shown. */
  layered: (shown: ShownAt) => ShownAt;
  /** Place of each of the version's captions in the safe area by its id, 1 at its foot. */
  captionPlaces: ReadonlyMap<string, number>;
  /** Which pane is selected in shots that have it, from 0. */
  pane: number;
  selectPane: (pane: number) => void;
  /** How this browser shows results. */
  storedLook: StoredLook;
  /** How the picture is displayed. */
  pictureLook: PictureLook;
  setPictureLook: (change: Partial<PictureLook>) => void;
  /** Steering of the window by hand. */
  steering: Steering;
  /** Says which shots are on screen, so that they are framed first. */
  waitFor: (shotIds: string[]) => void;
  tell: Tell;
}
