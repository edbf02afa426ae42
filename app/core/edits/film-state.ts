import type { Size } from "../geometry/box";
import type { FramingChange } from "../path/framing-settings";
import type { HandKey } from "../path/solve-version";
import type { Shot } from "../shots/shot";
import type { MergedPerson, TrackEdit } from "../subjects/tracking/edit-tracks";
import type { ThingMark } from "../subjects/marks/marked-things";

/** A version with all that the editor has set for it. */
export interface VersionState extends Size {
  id: string;
  name: string;
  /** By shot id; a shot that is not in it is framed as usual. */
  framings: ReadonlyMap<string, FramingChange>;
  /** In order of their frames. */
  handKeys: readonly HandKey[];
}

/** All that can be edited of a film, and what of the film it has to fit. */
export interface FilmState {
  /** Length of the film on its own grid. */
  frames: number;
  picture: Size;
  /** In order. They end with the film, or before it while the analysis has not got there. */
  shots: readonly Shot[];
  versions: readonly VersionState[];
  marks: readonly ThingMark[];
  people: readonly MergedPerson[];
  trackEdits: ReadonlyMap<string, TrackEdit>;
}
