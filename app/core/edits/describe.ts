import { assertNever } from "../assert-never";
import { nameOfLayer } from "../composition/layers/layer";
import { counted } from "../counted";
import type { HandKey } from "../path/hand-key";
import { letterOf } from "../subjects/choosing/people";
import { type FrameRange, framesIn, frameToSeconds, inRange } from "../time/rate";
import { timecodeAt } from "../time/timecode";
import type { Command, ShotChange, SingleCommand, VersionChange } from "./command";
import type { FilmState } from "./film-state";
import type { ShotSetting } from "./shot-in-version";

/** A film's state, for speaking about it. What is not in it any more is spoken of in general. */
class Speaker {
  constructor(private readonly state: FilmState) {}

  /** "shot 7", "shots 3 to 5", "12 shots" */
  shots(ids: readonly string[]): string {
    const numbers = ids.map((id) => this.state.shots.findIndex((shot) => shot.id === id) + 1).sort((a, b) => a - b);
    const [first, last] = [numbers[0]!, numbers.at(-1)!];
    if (numbers.length === 1) return first > 0 ? `shot ${first}` : "a shot";
    const inARow = first > 0 && numbers.every((number, i) => number === first + i);
    return inARow ? `shots ${first} to ${last}` : counted(ids.length, "shot");
  }

  shotAt(frame: number): string {
    const shot = this.state.shots.find((range: FrameRange) => inRange(frame, range));
    return shot ? this.shots([shot.id]) : "a shot";
  }

  time(frame: number): string {
    return timecodeAt(frame, this.state.film.clock);
  }

  /** "3.2 seconds" */
  seconds(stretches: readonly FrameRange[]): string {
    const seconds = frameToSeconds(framesIn(stretches), this.state.film.clock.rate);
    return counted(Number(seconds.toFixed(1)), "second");
  }

  version(id: string): string {
    const version = this.state.versions.find((other) => other.id === id);
    return version ? `“${version.name}”` : "a version";
  }

  /** "clip 2" */
  clip(id: string): string {
    const at = this.state.clips.findIndex((clip) => clip.id === id);
    return at < 0 ? "a clip" : `clip ${at + 1}`;
  }

  /** "the text “Ferrow”" */
  layer(versionId: string, id: string): string {
    const layer = this.state.versions.find((version) => version.id === versionId)?.layers.find((one) => one.id === id);
    return layer ? nameOfLayer(layer) : "a layer";
  }

  hasKey(versionId: string, { pane, frame }: Pick<HandKey, "pane" | "frame">): boolean {
    const version = this.state.versions.find(({ id }) => id === versionId);
    return version?.handKeys.some((key) => key.pane === pane && key.frame === frame) ?? false;
  }

  hasMark(thing: string, frame: number): boolean {
    return this.state.marks.some((mark) => mark.thing === thing && mark.frame === frame);
  }

  isMerged(personId: string): boolean {
    return this.state.people.some(({ id, mergedInto }) => id === personId && mergedInto !== null);
  }

  person(id: string): string {
    const person = this.state.people.find((other) => other.id === id);
    return person ? (person.name ?? `person ${letterOf(person.number)}`) : "a person";
  }
}

const SETTING_NAMES: Record<ShotSetting, string> = {
  manner: "manner",
  calm: "calmness",
  zoom: "zoom",
  headroom: "headroom",
  enlargement: "limit of enlargement",
  keepEnd: "end that is kept",
  eyeLine: "eye line",
  offset: "offset",
  layout: "layout",
  panes: "panes",
  backdrop: "backdrop",
  edge: "edge",
  follow: "subject",
  protect: "protected area",
};

const STRETCH_TEXT: Record<Extract<SingleCommand, { type: "replace-keys" }>["how"], string> = {
  deleted: "Deleted the keys",
  steered: "Steered the window",
  smoothed: "Smoothed the path",
  shifted: "Shifted the path",
  reversed: "Reversed the path",
};

type SetFraming = Extract<SingleCommand, { type: "set-framing" }>;

/** "manner and zoom" */
export function settingNames(settings: readonly string[]): string {
  return settings.map((setting) => SETTING_NAMES[setting as ShotSetting]).join(" and ");
}

function framing({ change, reset = [] }: SetFraming, shots: string, version: string): string {
  const changed = Object.keys(change);
  if (changed.length === 0) return `Reset the ${settingNames(reset)} of ${shots} in ${version}`;
  return `Changed the ${settingNames(changed)} of ${shots} in ${version}`;
}

function shotChange(change: ShotChange, shots: string): string {
  if (change.excluded !== undefined) return change.excluded ? `Left out ${shots}` : `Brought back ${shots}`;
  if (change.name !== undefined)
    return change.name ? `Named ${shots} “${change.name}”` : `Removed the name of ${shots}`;
  if (change.follow) return `Changed the subject of ${shots}`;
  if (change.active !== undefined) return `Changed the active area of ${shots}`;
  if (change.protect !== undefined) {
    return change.protect ? `Protected an area in ${shots}` : `Removed the protected area of ${shots}`;
  }
  return `Changed how ${shots} ${shots.startsWith("shot ") || shots.startsWith("a ") ? "begins" : "begin"}`;
}

function versionChange({ name, width, height, limitSeconds, usual, safeArea }: VersionChange, version: string): string {
  if (width !== undefined || height !== undefined) {
    return width && height ? `Changed ${version} to ${width} × ${height}` : `Changed the size of ${version}`;
  }
  if (name !== undefined) return `Renamed ${version} to “${name}”`;
  if (limitSeconds !== undefined) {
    return limitSeconds === null
      ? `Removed the length limit of ${version}`
      : `Limited ${version} to ${counted(limitSeconds, "second")}`;
  }
  if (safeArea !== undefined) return `Changed the safe area of ${version}`;
  return usual ? `Changed what is usual in ${version}` : `Left ${version} as it is`;
}

type TrimVersion = Extract<SingleCommand, { type: "trim-version" }>;

function trimmed({ versionId, in: first, out }: TrimVersion, say: Speaker): string {
  const version = say.version(versionId);
  if (first === null && out === null) return `Removed the in and out points of ${version}`;
  const set = [
    ...(first == null ? [] : [`in point of ${version} to ${say.time(first)}`]),
    ...(out == null ? [] : [`out point of ${version} to ${say.time(out)}`]),
  ];
  if (set.length > 0) return `Set the ${set.join(" and the ")}`;
  return `Removed the ${first === null ? "in" : "out"} point of ${version}`;
}

function single(command: SingleCommand, say: Speaker): string {
  switch (command.type) {
    case "set-key": {
      const { frame } = command.key;
      const verb = say.hasKey(command.versionId, command.key) ? "Changed the" : "Added a";
      return `${verb} key in ${say.shotAt(frame)} at ${say.time(frame)}`;
    }
    case "remove-key":
      return `Deleted the key in ${say.shotAt(command.frame)} at ${say.time(command.frame)}`;
    case "move-key":
      return `Moved a key in ${say.shotAt(command.fromFrame)} to ${say.time(command.key.frame)}`;
    case "replace-keys": {
      const { how, range } = command;
      return `${STRETCH_TEXT[how]} from ${say.time(range.start)} to ${say.time(range.end)}`;
    }
    case "set-framing":
      return framing(command, say.shots(command.shotIds), say.version(command.versionId));
    case "split-shot":
      return command.kind === "turn"
        ? `Added a turn in ${say.shotAt(command.frame)} at ${say.time(command.frame)}`
        : `Split ${say.shotAt(command.frame)} at ${say.time(command.frame)}`;
    case "join-shots":
      return `Joined ${say.shots(command.shotIds)}`;
    case "move-cut":
      return `Moved the cut before ${say.shots([command.shotId])} to ${say.time(command.frame)}`;
    case "change-shots":
      return shotChange(command.change, say.shots(command.shotIds));
    case "set-sensitivity":
      return `Set the sensitivity to cuts to ${command.sensitivity}`;
    case "set-transitions":
      return `Took over ${counted(command.transitions.length, "cut")} from a list`;
    case "put-mark":
      if (!command.box) return `Removed a mark in ${say.shotAt(command.frame)}`;
      return say.hasMark(command.thing, command.frame)
        ? `Corrected a mark in ${say.shotAt(command.frame)} at ${say.time(command.frame)}`
        : `Marked what to follow in ${say.shotAt(command.frame)} at ${say.time(command.frame)}`;
    case "edit-track":
      if (!command.edit) return "Restored a track";
      return command.edit.joinedTo ? "Joined two tracks" : "Removed part of a track";
    case "change-person": {
      const { id, name, mergedInto } = command.person;
      if (mergedInto) return `Merged ${say.person(id)} with ${say.person(mergedInto)}`;
      if (say.isMerged(id)) return `Took ${say.person(id)} apart again`;
      return name ? `Named ${say.person(id)} “${name}”` : `Removed the name of ${say.person(id)}`;
    }
    case "add-version":
      return `Added the version “${command.version.name}”`;
    case "duplicate-version":
      return `Duplicated ${say.version(command.versionId)} as “${command.name}”`;
    case "change-version":
      return versionChange(command.change, say.version(command.versionId));
    case "put-layer": {
      const { versionId, layer } = command;
      const isThere = say.layer(versionId, layer.id) !== "a layer";
      return `${isThere ? "Changed" : "Added"} the ${nameOfLayer(layer)} in ${say.version(versionId)}`;
    }
    case "remove-layer":
      return `Deleted the ${say.layer(command.versionId, command.layerId)} from ${say.version(command.versionId)}`;
    case "move-layer":
      return `Changed the order of the layers in ${say.version(command.versionId)}`;
    case "trim-version":
      return trimmed(command, say);
    case "trim-clip":
      return command.in === null && command.out === null
        ? `Brought all of ${say.clip(command.clipId)} back`
        : `Set the in and out points of ${say.clip(command.clipId)}`;
    case "drop-stretches":
      return `Dropped ${say.seconds(command.stretches)} from ${say.version(command.versionId)}`;
    case "keep-stretches":
      return `Brought ${say.seconds(command.stretches)} back into ${say.version(command.versionId)}`;
    case "remove-version":
      return `Removed the version ${say.version(command.versionId)}`;
    default:
      return assertNever(command);
  }
}

/** What is done to several keys at once, or to one in several versions; null for anything else. */
function severalKeys(commands: readonly SingleCommand[], say: Speaker): string | null {
  if (commands.length < 2) return null;
  const first = commands[0]!;
  if (first.type === "remove-key" && commands.every(({ type }) => type === "remove-key")) {
    return `Deleted ${counted(commands.length, "key")} in ${say.shotAt(first.frame)}`;
  }
  const puts = commands.flatMap((each) => (each.type === "set-key" ? [each] : []));
  const gone = commands.filter(({ type }) => type === "remove-key");
  if (gone.length > 0 && gone.length === puts.length && 2 * gone.length === commands.length) {
    return `Moved ${counted(puts.length, "key")} in ${say.shotAt(puts[0]!.key.frame)}`;
  }
  if (puts.length < commands.length) return null;
  if (puts.some(({ versionId }) => versionId !== puts[0]!.versionId)) {
    return `Copied the key at ${say.time(puts[0]!.key.frame)} to ${counted(puts.length, "other version")}`;
  }
  const done = puts.every(({ versionId, key }) => say.hasKey(versionId, key)) ? "Moved" : "Added";
  return `${done} ${counted(puts.length, "key")} in ${say.shotAt(puts[0]!.key.frame)}`;
}

/**
 * What a command does, as a sentence for the history: "Moved a key in shot 7 to 00:12:04:00".
 *
 * @param state the film before it
 */
export function describeEdit(command: Command, state: FilmState): string {
  const say = new Speaker(state);
  if (command.type !== "batch") return single(command, say);
  const { commands } = command;
  const several = severalKeys(commands, say);
  if (several) return several;
  if (commands.length > 1 && commands.every(({ type }) => type === "add-version")) {
    return `Added ${counted(commands.length, "version")}`;
  }
  // What follows the first command is what it entails, such as following the thing that was marked.
  return single(commands[0]!, say);
}
