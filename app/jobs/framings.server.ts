import type { Manner } from "~/core/path/manner";
import type { Shot } from "~/core/shots/shot";
import type { HandKey, ShotFraming } from "~/core/path/solve-version";
import { followRule } from "~/core/subjects/follow-rule";
import type { Db } from "~/db/database.server";
import { listShots } from "~/db/shots.server";
import { listHandKeys, listManners } from "~/db/versions.server";
import { foundTracks } from "./found-tracks.server";

/** How the window moves in a shot for which nobody has chosen a manner. */
const DEFAULT_MANNER: Manner = "glide";

export interface VersionSettings {
  shots: (Shot & { manner: Manner })[];
  handKeys: HandKey[];
}

/** What an editor has set for a version, and the shots it is set for. */
export function loadSettings(db: Db, filmId: string, versionId: string): VersionSettings {
  const manners = listManners(db, versionId);
  return {
    shots: listShots(db, filmId).map((shot) => ({ ...shot, manner: manners.get(shot.id) ?? DEFAULT_MANNER })),
    handKeys: listHandKeys(db, versionId),
  };
}

/** Everything that decides the paths of a version, shot by shot, and which shots are left out of it. */
export function loadFramings(db: Db, filmId: string, versionId: string): (ShotFraming & { excluded: boolean })[] {
  const { shots, handKeys } = loadSettings(db, filmId, versionId);
  const tracks = foundTracks(db, filmId, shots);
  return shots.map((shot, i) => ({
    range: { start: shot.start, end: shot.end },
    manner: shot.manner,
    tracks: tracks[i]!,
    rule: followRule(shot.subject),
    carry: shot.carry,
    excluded: shot.excluded,
    handKeys: handKeys.filter((key) => key.frame >= shot.start && key.frame < shot.end),
  }));
}
