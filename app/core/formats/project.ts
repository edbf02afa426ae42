/** All work on a film in one document (docs/formats.md), to be opened on another machine or beside the film. */
import { z } from "zod";
import { Caption } from "../captions/caption";
import { ClipWithFile } from "../clips/clip";
import { MAX_VERSIONS } from "../edits/invariants";
import { PersonEdit, Version } from "../version/film-state";
import { ShotInVersion } from "../version/settle";
import { FilmInfo } from "../film/film-info";
import { Box } from "../geometry/box";
import { Id, ShotId, TrackId } from "../basics/ids";
import { HandKey } from "../path/hand-key";
import { TransitionCandidate } from "../shots/detect-transitions";
import { shotId } from "../shots/reshape";
import { Shot } from "../shots/shot";
import { AttentionSettings, USUAL_ATTENTION } from "../subjects/attention/attention-settings";
import { TrackEdit } from "../subjects/tracking/edit-tracks";
import { PackedTrack } from "../subjects/tracking/packed-tracks";
import { Frame, FrameRange } from "../time/rate";
import { asWrittenToday } from "./older-words";

const VersionInProject = Version.extend({
  /** Its settings of shots. */
  shots: z.array(z.object({ shotId: ShotId, says: ShotInVersion })),
  handKeys: z.array(HandKey),
});

export const Project = z.object({
  format: z.literal("glad-pan/project"),
  version: z.literal(2),
  film: z.object({
    name: z.string().min(1).max(255),
    /** Facts about its file. */
    info: FilmInfo,
    /** Fingerprint of its file, by which it is recognised in any place. */
    fingerprint: z.string(),
    sensitivity: z.int().min(0).max(100),
    attention: AttentionSettings.default(USUAL_ATTENTION),
  }),
  /** The clips of the film, in order; none where it is one file. */
  clips: z.array(ClipWithFile).default([]),
  shots: z.array(Shot).refine((shots) => shots.every(({ start }, i) => i === 0 || start > shots[i - 1]!.start), {
    error: "The shots do not follow each other",
  }),
  versions: z.array(VersionInProject).min(1).max(MAX_VERSIONS),
  marks: z.array(z.object({ thing: Id, frame: Frame, box: Box })),
  people: z.array(PersonEdit.extend({ number: z.int(), signature: z.array(z.number()).nullable(), seen: z.number() })),
  trackEdits: z.array(z.object({ trackId: TrackId, edit: TrackEdit })),
  captions: z.array(Caption).default([]),
  /** What was found in the film, without the editor's settings. */
  analysis: z.object({
    candidates: z.array(TransitionCandidate),
    tracks: z.array(z.object({ range: FrameRange, tracks: z.array(PackedTrack) })),
    markTracks: z.array(z.object({ basis: z.string(), track: PackedTrack })),
    undecoded: z.array(FrameRange),
    /** Activity of each frame, packed by `packActivity`, in base 64; empty where it is unknown. */
    activity: z.string(),
  }),
});
export type Project = z.infer<typeof Project>;

/** The text is no project; the message says what is wrong with it. */
export class ProjectError extends Error {
  override name = "ProjectError";
}

/** @throws ProjectError */
export function readProject(text: string): Project {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw new ProjectError("its project.json is not JSON");
  }
  const parsed = Project.safeParse(asWrittenToday(value));
  if (parsed.success) return parsed.data;
  const [issue] = parsed.error.issues;
  throw new ProjectError(`its project.json makes no sense: ${issue!.path.join(".") || "project"}: ${issue!.message}`);
}

/**
 * The same work for another film, with new ids throughout.
 * @param filmId id of that film
 * @param newId gives an unused id
 */
export function forAnotherFilm(project: Project, filmId: string, newId: () => string): Project {
  const ids = new Map<string, string>();
  for (const { id, start } of project.shots) ids.set(id, shotId(filmId, start, new Set(ids.values())));
  return {
    ...project,
    shots: project.shots.map((shot) => ({ ...shot, id: ids.get(shot.id)! })),
    versions: project.versions.map((version) => ({
      ...version,
      id: newId(),
      shots: version.shots.flatMap(({ shotId: id, says }) => {
        const renamed = ids.get(id);
        return renamed === undefined ? [] : [{ shotId: renamed, says }];
      }),
    })),
  };
}
