import { type FramingSettings, USUAL_FRAMING } from "~/core/path/framing-settings";
import type { Shot } from "~/core/shots/shot";
import type { HandKey, ShotFraming } from "~/core/path/solve-version";
import { followRule } from "~/core/subjects/choosing/follow-rule";
import { inRange } from "~/core/time/rate";
import type { Db } from "~/db/database.server";
import { listShots } from "~/db/shots.server";
import { listFramings, listHandKeys } from "~/db/versions.server";
import { foundTracks } from "./found-tracks.server";

export interface VersionSettings {
  shots: (Shot & { settings: FramingSettings })[];
  handKeys: HandKey[];
}

/** What an editor has set for a version, and the shots it is set for. */
export function loadSettings(db: Db, filmId: string, versionId: string): VersionSettings {
  const framings = listFramings(db, versionId);
  return {
    shots: listShots(db, filmId).map((shot) => ({
      ...shot,
      settings: { ...USUAL_FRAMING, ...framings.get(shot.id) },
    })),
    handKeys: listHandKeys(db, versionId),
  };
}

/** Everything that decides the paths of a version, shot by shot, and which shots are left out of it. */
export function loadFramings(db: Db, filmId: string, versionId: string): (ShotFraming & { excluded: boolean })[] {
  const { shots, handKeys } = loadSettings(db, filmId, versionId);
  const tracks = foundTracks(db, filmId, shots);
  return shots.map((shot, i) => ({
    range: { start: shot.start, end: shot.end },
    settings: shot.settings,
    tracks: tracks[i]!,
    rule: followRule(shot.subject),
    carry: shot.carry,
    protect: shot.protect,
    active: shot.active,
    excluded: shot.excluded,
    handKeys: handKeys.filter(({ frame }) => inRange(frame, shot)),
  }));
}
