import { assertNever } from "../basics/assert-never";
import { nameOfLayer } from "../composition/layers/layer";
import { counted } from "../../texts/numbers";
import type { HandKey } from "../path/hand-key";
import { letterOf } from "../subjects/choosing/people";
import { type FrameRange, framesIn, frameToSeconds, inRange } from "../time/rate";
import { timecodeAt } from "../time/timecode";
import type { Command, ShotChange, SingleCommand, VersionChange } from "./command";
import type { FilmState } from "../version/film-state";
import type { ShotSetting } from "../version/settle";
import { editsTexts } from "../../texts/edits";

const t = editsTexts.describe;

/** Names things in a film's state for sentences. Things that no longer exist are named in general. */
class Speaker {
  constructor(private readonly state: FilmState) {}

  /** "shot 7", "shots 3 to 5", "12 shots" */
  shots(ids: readonly string[]): string {
    const numbers = ids.map((id) => this.state.shots.findIndex((shot) => shot.id === id) + 1).sort((a, b) => a - b);
    const [first, last] = [numbers[0]!, numbers.at(-1)!];
    if (numbers.length === 1) return first > 0 ? t.shot(first) : t.aShot;
    const inARow = first > 0 && numbers.every((number, i) => number === first + i);
    return inARow ? t.shotsTo(first, last) : counted(ids.length, "shot");
  }

  shotAt(frame: number): string {
    const shot = this.state.shots.find((range: FrameRange) => inRange(frame, range));
    return shot ? this.shots([shot.id]) : t.aShot;
  }

  time(frame: number): string {
    return timecodeAt(frame, this.state.film.clock);
  }

  /** "3.2 seconds" */
  seconds(ranges: readonly FrameRange[]): string {
    const seconds = frameToSeconds(framesIn(ranges), this.state.film.clock.rate);
    return counted(Number(seconds.toFixed(1)), "second");
  }

  version(id: string): string {
    const version = this.state.versions.find((other) => other.id === id);
    return version ? `“${version.name}”` : t.aVersion;
  }

  /** "clip 2" */
  clip(id: string): string {
    const at = this.state.clips.findIndex((clip) => clip.id === id);
    return at < 0 ? t.aClip : t.clip(at + 1);
  }

  /** "the text “Ferrow”" */
  layer(versionId: string, id: string): string {
    const layer = this.state.versions.find((version) => version.id === versionId)?.layers.find((one) => one.id === id);
    return layer ? nameOfLayer(layer) : t.aLayer;
  }

  hasLayer(versionId: string, id: string): boolean {
    return this.state.versions.some(
      (version) => version.id === versionId && version.layers.some((one) => one.id === id),
    );
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
    return person ? (person.name ?? t.person(letterOf(person.number))) : t.aPerson;
  }
}

type SetFraming = Extract<SingleCommand, { type: "set-framing" }>;

/** "movement and zoom" */
export function settingNames(settings: readonly string[]): string {
  return settings.map((setting) => t.settings[setting as ShotSetting]).join(" and ");
}

function framing({ change, reset = [] }: SetFraming, shots: string, version: string): string {
  const changed = Object.keys(change);
  if (changed.length === 0) return t.resetSettings(settingNames(reset), shots, version);
  return t.changedSettings(settingNames(changed), shots, version);
}

function shotChange(change: ShotChange, shots: string): string {
  if (change.excluded !== undefined) return change.excluded ? t.leftOut(shots) : t.broughtBack(shots);
  if (change.name !== undefined) return change.name ? t.namedShots(shots, change.name) : t.unnamedShots(shots);
  if (change.follow) return t.changedSubject(shots);
  if (change.active !== undefined) return t.changedLetterbox(shots);
  if (change.protect !== undefined) {
    return change.protect ? t.protectedAnArea(shots) : t.removedProtectedArea(shots);
  }
  return t.changedHow(shots, shots.startsWith("shot ") || shots.startsWith("a "));
}

function versionChange(change: VersionChange, version: string): string {
  const { name, width, height, limitSeconds, usual, safeArea, captions, checkLimits, reviewedFlags, output } = change;
  if (width !== undefined || height !== undefined) {
    return width && height ? t.changedTo(version, width, height) : t.changedSize(version);
  }
  if (name !== undefined) return t.renamedTo(version, name);
  if (limitSeconds !== undefined) {
    return limitSeconds === null ? t.removedLengthLimit(version) : t.limitedTo(version, limitSeconds);
  }
  if (captions) return t.changedCaptions(version);
  if (checkLimits) return t.changedThresholds(version);
  if (reviewedFlags) return t.reviewedFlags(version);
  if (output) return t.changedExportSettings(version);
  if (safeArea !== undefined) return t.changedSafeArea(version);
  return usual ? t.changedDefaults(version) : t.unchanged(version);
}

type TrimVersion = Extract<SingleCommand, { type: "trim-version" }>;

function trimmed({ versionId, in: first, out }: TrimVersion, say: Speaker): string {
  const version = say.version(versionId);
  if (first === null && out === null) return t.removedInAndOut(version);
  if (first != null && out != null) return t.setInAndOut(version, say.time(first), say.time(out));
  if (first != null) return t.setIn(version, say.time(first));
  if (out != null) return t.setOut(version, say.time(out));
  return t.removedPoint(first === null, version);
}

type ChangeCaptions = Extract<SingleCommand, { type: "change-captions" }>;

/** "Moved 3 captions", "Split the caption at 00:00:12:04" */
function captionChange({ how, removed, put }: ChangeCaptions, say: Speaker): string {
  const count = how === "deleted" || how === "merged" ? removed.length : put.length;
  const first = put[0];
  return count === 1 && first ? t.captionAt[how](say.time(first.start)) : t.captions[how](count);
}

function single(command: SingleCommand, say: Speaker): string {
  switch (command.type) {
    case "set-key": {
      const { frame } = command.key;
      const isThere = say.hasKey(command.versionId, command.key);
      return (isThere ? t.changedKeyframe : t.addedKeyframe)(say.shotAt(frame), say.time(frame));
    }
    case "remove-key":
      return t.deletedKeyframe(say.shotAt(command.frame), say.time(command.frame));
    case "move-key":
      return t.movedKeyframe(say.shotAt(command.fromFrame), say.time(command.key.frame));
    case "replace-keys": {
      const { how, range } = command;
      return t.reshaped[how](say.time(range.start), say.time(range.end));
    }
    case "set-framing":
      return framing(command, say.shots(command.shotIds), say.version(command.versionId));
    case "split-shot":
      return command.kind === "switch"
        ? t.addedSwitch(say.shotAt(command.frame), say.time(command.frame))
        : t.splitAt(say.shotAt(command.frame), say.time(command.frame));
    case "join-shots":
      return t.joined(say.shots(command.shotIds));
    case "move-cut":
      return t.movedCut(say.shots([command.shotId]), say.time(command.frame));
    case "change-shots":
      return shotChange(command.change, say.shots(command.shotIds));
    case "set-attention":
      return t.changedSwitching;
    case "set-sensitivity":
      return t.setCutSensitivity(command.sensitivity);
    case "set-transitions":
      return t.importedCuts(command.transitions.length);
    case "put-mark":
      if (!command.box) return t.removedMark(say.shotAt(command.frame));
      return say.hasMark(command.thing, command.frame)
        ? t.correctedMark(say.shotAt(command.frame), say.time(command.frame))
        : t.markedSubject(say.shotAt(command.frame), say.time(command.frame));
    case "edit-track":
      if (!command.edit) return t.restoredATrack;
      return command.edit.joinedTo ? t.joinedTwoTracks : t.removedPartOfATrack;
    case "change-person": {
      const { id, name, mergedInto } = command.person;
      if (mergedInto) return t.mergedWith(say.person(id), say.person(mergedInto));
      if (say.isMerged(id)) return t.unmerged(say.person(id));
      return name ? t.namedPerson(say.person(id), name) : t.unnamedPerson(say.person(id));
    }
    case "add-version":
      return t.addedVersion(command.version.name);
    case "duplicate-version":
      return t.duplicatedAs(say.version(command.versionId), command.name);
    case "change-version":
      return versionChange(command.change, say.version(command.versionId));
    case "put-layer": {
      const { versionId, layer } = command;
      const isThere = say.hasLayer(versionId, layer.id);
      return t.changedOrAddedLayer(isThere, nameOfLayer(layer), say.version(versionId));
    }
    case "remove-layer":
      return t.deletedLayer(say.layer(command.versionId, command.layerId), say.version(command.versionId));
    case "move-layer":
      return t.reorderedLayers(say.version(command.versionId));
    case "trim-version":
      return trimmed(command, say);
    case "trim-clip":
      return command.in === null && command.out === null
        ? t.resetClipPoints(say.clip(command.clipId))
        : t.setClipPoints(say.clip(command.clipId));
    case "leave-out":
      return t.leftOutOf(say.seconds(command.ranges), say.version(command.versionId));
    case "bring-back":
      return t.broughtBackInto(say.seconds(command.ranges), say.version(command.versionId));
    case "change-captions":
      return captionChange(command, say);
    case "remove-version":
      return t.removedVersion(say.version(command.versionId));
    default:
      return assertNever(command);
  }
}

/** Keys changed together, or one key in several versions; null for anything else. */
function severalKeys(commands: readonly SingleCommand[], say: Speaker): string | null {
  if (commands.length < 2) return null;
  const first = commands[0]!;
  if (first.type === "remove-key" && commands.every(({ type }) => type === "remove-key")) {
    return t.deletedIn(commands.length, say.shotAt(first.frame));
  }
  const puts = commands.flatMap((each) => (each.type === "set-key" ? [each] : []));
  const gone = commands.filter(({ type }) => type === "remove-key");
  if (gone.length > 0 && gone.length === puts.length && 2 * gone.length === commands.length) {
    return t.movedIn(puts.length, say.shotAt(puts[0]!.key.frame));
  }
  if (puts.length < commands.length) return null;
  if (puts.some(({ versionId }) => versionId !== puts[0]!.versionId)) {
    return t.copiedKeyframe(say.time(puts[0]!.key.frame), puts.length);
  }
  const areThere = puts.every(({ versionId, key }) => say.hasKey(versionId, key));
  return (areThere ? t.movedIn : t.addedIn)(puts.length, say.shotAt(puts[0]!.key.frame));
}

/**
 * A command as a sentence for the history: "Moved a key in shot 7 to 00:12:04:00".
 * @param state the film before it
 */
export function describeEdit(command: Command, state: FilmState): string {
  const say = new Speaker(state);
  if (command.type !== "batch") return single(command, say);
  const { commands } = command;
  const several = severalKeys(commands, say);
  if (several) return several;
  if (commands.length > 1 && commands.every(({ type }) => type === "add-version")) {
    return t.addedVersions(commands.length);
  }
  // Commands after the first are consequences, such as following the thing that was marked.
  return single(commands[0]!, say);
}
