/** The difference between two states of a film: how an edit is undone, stored, and sent to the desk. */
import { z } from "zod";
import { byStart, Caption } from "../captions/caption";
import { Clip } from "../clips/clip";
import { PaneNumber, PANES } from "../composition/stack";
import { Box } from "../geometry/box";
import { Id, ShotId, TrackId } from "../basics/ids";
import { HandKey } from "../path/hand-key";
import { Shot } from "../shots/shot";
import { AttentionSettings } from "../subjects/attention/attention-settings";
import type { ThingMark } from "../subjects/marks/marked-things";
import { TrackEdit } from "../subjects/tracking/edit-tracks";
import { Frame } from "../time/rate";
import { isSame, isSameList } from "../basics/structure";
import { type FilmState, PersonEdit, Version, type VersionState } from "../version/film-state";
import { ShotInVersion } from "../version/settle";

export const Difference = z.object({
  sensitivity: z.int().optional(),
  attention: AttentionSettings.optional(),
  /** Removed shots, and new or changed ones. */
  shots: z.object({ removed: z.array(ShotId), put: z.array(Shot) }).optional(),
  versions: z
    .object({
      put: z.array(Version),
      /** All ids of the new state, in order; others are removed. */
      order: z.array(Id),
    })
    .optional(),
  /** A version's settings of a shot; null for none. */
  inVersions: z.array(z.object({ versionId: Id, shotId: ShotId, says: ShotInVersion.nullable() })).optional(),
  /** Of one pane each. */
  handKeys: z
    .array(z.object({ versionId: Id, pane: PaneNumber.default(0), removed: z.array(Frame), put: z.array(HandKey) }))
    .optional(),
  /** The in and out points of clips. */
  clips: z.array(Clip.pick({ id: true, in: true, out: true })).optional(),
  marks: z.array(z.object({ thing: Id, frame: Frame, box: Box.nullable() })).optional(),
  people: z.array(PersonEdit).optional(),
  trackEdits: z.array(z.object({ trackId: TrackId, edit: TrackEdit.nullable() })).optional(),
  captions: z.object({ removed: z.array(Id), put: z.array(Caption) }).optional(),
});
export type Difference = z.infer<typeof Difference>;

type KeyChange = NonNullable<Difference["handKeys"]>[number];
type InVersionChange = NonNullable<Difference["inVersions"]>[number];

const markKey = ({ thing, frame }: Pick<ThingMark, "thing" | "frame">): string => `${thing} ${frame}`;

/** The items of one list that another lacks, and those of the other that are new or different. */
function compare<T, Key>(from: readonly T[], to: readonly T[], keyOf: (item: T) => Key): { removed: T[]; put: T[] } {
  if (from === to) return { removed: [], put: [] };
  const [before, after] = [new Map(from.map((item) => [keyOf(item), item])), new Set(to.map(keyOf))];
  return {
    removed: from.filter((item) => !after.has(keyOf(item))),
    put: to.filter((item) => !isSame(before.get(keyOf(item)), item)),
  };
}

const isEmpty = ({ removed, put }: { removed: unknown[]; put: unknown[] }) => removed.length + put.length === 0;

function inVersionChanges(before: VersionState | undefined, after: VersionState): InVersionChange[] {
  const { removed, put } = compare([...(before?.shots ?? [])], [...after.shots], ([shotId]) => shotId);
  return [
    ...removed.map(([shotId]) => ({ versionId: after.id, shotId, says: null })),
    ...put.map(([shotId, says]) => ({ versionId: after.id, shotId, says })),
  ];
}

function keyChanges(before: VersionState | undefined, after: VersionState): KeyChange[] {
  const { removed, put } = compare(before?.handKeys ?? [], after.handKeys, ({ pane, frame }) => `${pane} ${frame}`);
  return PANES.map((pane) => ({
    versionId: after.id,
    pane,
    removed: removed.filter((key) => key.pane === pane).map(({ frame }) => frame),
    put: put.filter((key) => key.pane === pane),
  })).filter((change) => !isEmpty(change));
}

const said = ({ id, name, mergedInto }: PersonEdit): PersonEdit => ({ id, name, mergedInto });
const plain = ({ shots, handKeys, ...version }: VersionState): Version => version;

/** What turns `from` into `to`, without anything that is the same in both. */
export function differenceBetween(from: FilmState, to: FilmState): Difference {
  const difference: Difference = {};
  if (from.sensitivity !== to.sensitivity) difference.sensitivity = to.sensitivity;

  if (!isSame(from.attention, to.attention)) difference.attention = to.attention;

  const shots = compare(from.shots, to.shots, ({ id }) => id);
  if (!isEmpty(shots)) difference.shots = { removed: shots.removed.map(({ id }) => id), put: shots.put };

  const clips = compare(from.clips, to.clips, ({ id }) => id);
  if (clips.put.length > 0) difference.clips = clips.put.map(({ id, in: first, out }) => ({ id, in: first, out }));

  const versions = compare(from.versions.map(plain), to.versions.map(plain), ({ id }) => id);
  const order = to.versions.map(({ id }) => id);
  const sameOrder = isSame(
    from.versions.map(({ id }) => id),
    order,
  );
  if (!isEmpty(versions) || !sameOrder) difference.versions = { put: versions.put, order };

  const before = new Map(from.versions.map((version) => [version.id, version]));
  const inVersions = to.versions.flatMap((version) => inVersionChanges(before.get(version.id), version));
  if (inVersions.length > 0) difference.inVersions = inVersions;
  const handKeys = to.versions.flatMap((version) => keyChanges(before.get(version.id), version));
  if (handKeys.length > 0) difference.handKeys = handKeys;

  const marks = compare(from.marks, to.marks, markKey);
  if (!isEmpty(marks)) {
    const gone = marks.removed.map(({ thing, frame }) => ({ thing, frame, box: null }));
    difference.marks = [...gone, ...marks.put];
  }
  const people = compare(from.people, to.people, ({ id }) => id);
  if (people.put.length > 0) difference.people = people.put.map(said);
  const edits = compare([...from.trackEdits], [...to.trackEdits], ([trackId]) => trackId);
  if (!isEmpty(edits)) {
    difference.trackEdits = [
      ...edits.removed.map(([trackId]) => ({ trackId, edit: null })),
      ...edits.put.map(([trackId, edit]) => ({ trackId, edit })),
    ];
  }
  const captions = compare(from.captions, to.captions, ({ id }) => id);
  if (!isEmpty(captions)) {
    difference.captions = { removed: captions.removed.map(({ id }) => id), put: captions.put };
  }
  return difference;
}

/** A map with changed entries; null removes one. */
function changed<Key, Value>(map: ReadonlyMap<Key, Value>, entries: readonly (readonly [Key, Value | null])[]) {
  if (entries.length === 0) return map;
  const next = new Map(map);
  for (const [key, value] of entries) {
    if (value === null) next.delete(key);
    else next.set(key, value);
  }
  return next;
}

/** A list with changed and removed items, in order. */
function merged<T, Key>(
  list: readonly T[],
  removed: readonly Key[],
  put: readonly T[],
  keyOf: (item: T) => Key,
  order: (a: T, b: T) => number,
): readonly T[] {
  if (removed.length + put.length === 0) return list;
  const gone = new Set<Key>([...removed, ...put.map(keyOf)]);
  return [...list.filter((item) => !gone.has(keyOf(item))), ...put].sort(order);
}

function withVersions(versions: readonly VersionState[], change: Difference["versions"]): readonly VersionState[] {
  if (!change) return versions;
  const known = new Map(versions.map((version) => [version.id, version]));
  for (const version of change.put) {
    known.set(version.id, { shots: new Map(), handKeys: [], ...known.get(version.id), ...version });
  }
  return change.order.flatMap((id) => known.get(id) ?? []);
}

export const byFrame = (a: { frame: number }, b: { frame: number }): number => a.frame - b.frame;

/** Hand keys after a change of those of one pane. */
function withKeys(keys: readonly HandKey[], { pane, removed, put }: KeyChange): readonly HandKey[] {
  const goes = new Set([...removed, ...put.map(({ frame }) => frame)]);
  return [...keys.filter((key) => key.pane !== pane || !goes.has(key.frame)), ...put].sort(byFrame);
}

function withContents(version: VersionState, { inVersions = [], handKeys = [], shots }: Difference): VersionState {
  const says = inVersions.filter(({ versionId }) => versionId === version.id);
  const keys = handKeys.filter(({ versionId }) => versionId === version.id);
  // A version's settings of a shot are removed with the shot.
  const gone = (shots?.removed ?? []).filter((id) => version.shots.has(id));
  if (says.length === 0 && keys.length === 0 && gone.length === 0) return version;
  return {
    ...version,
    shots: changed(version.shots, [
      ...gone.map((id) => [id, null] as const),
      ...says.map(({ shotId, says }) => [shotId, says] as const),
    ]),
    handKeys: keys.reduce(withKeys, version.handKeys),
  };
}

/** The order of marks. */
export const byThing = (a: ThingMark, b: ThingMark): number =>
  a.thing === b.thing ? a.frame - b.frame : a.thing < b.thing ? -1 : 1;

/** The state after a difference. Parts that are not in the difference stay identical. */
export function applyDifference(state: FilmState, difference: Difference): FilmState {
  const { shots, clips = [], marks = [], people = [], trackEdits = [], captions } = difference;
  const gone = marks.filter(({ box }) => box === null).map(markKey);
  const put = marks.flatMap(({ thing, frame, box }) => (box ? [{ thing, frame, box }] : []));
  const versions = withVersions(state.versions, difference.versions).map((version) =>
    withContents(version, difference),
  );
  return {
    film: state.film,
    sensitivity: difference.sensitivity ?? state.sensitivity,
    attention: difference.attention ?? state.attention,
    shots: shots
      ? merged(
          state.shots,
          shots.removed,
          shots.put,
          ({ id }) => id,
          (a, b) => a.start - b.start,
        )
      : state.shots,
    clips:
      clips.length > 0
        ? state.clips.map((clip) => ({ ...clip, ...clips.find(({ id }) => id === clip.id) }))
        : state.clips,
    versions: isSameList(versions, state.versions) ? state.versions : versions,
    marks: merged(state.marks, gone, put, markKey, byThing),
    people:
      people.length > 0
        ? state.people.map((person) => ({ ...person, ...people.find(({ id }) => id === person.id) }))
        : state.people,
    trackEdits: changed(
      state.trackEdits,
      trackEdits.map(({ trackId, edit }) => [trackId, edit] as const),
    ),
    captions: merged(state.captions, captions?.removed ?? [], captions?.put ?? [], ({ id }) => id, byStart),
  };
}
