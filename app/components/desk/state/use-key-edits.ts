import { useCallback } from "react";
import { toast } from "sonner";
import type { Command } from "~/core/edits/command";
import { boxCentre, type Size } from "~/core/geometry/box";
import { aspectRatio, clampWindow, type CropWindow } from "~/core/geometry/crop-window";
import { carryKey } from "~/core/path/carry-key";
import type { Easing } from "~/core/path/easing";
import { followedTrack, type HandKey } from "~/core/path/solve-version";
import { activeArea } from "~/core/shots/shot";
import { boxAt } from "~/core/subjects/tracking/track";
import { type DeskShot, type DeskVersion, shotAt } from "./desk-types";
import { areaAt } from "../picture/desk-windows";
import type { Edits } from "./use-edits";

/** What can be done to the hand keys of a version. */
export function useKeyEdits(
  edits: Edits,
  shots: readonly DeskShot[],
  version: DeskVersion,
  versions: readonly DeskVersion[],
  picture: Size,
) {
  const aspect = aspectRatio(version);
  const keyAt = useCallback(
    (frame: number) => shotAt(shots, frame)?.handKeys.find((key) => key.frame === frame),
    [shots],
  );

  const placed = useCallback(
    (frame: number, window: CropWindow, fromFrame = frame): Command => {
      const area = areaAt(shots, frame, picture);
      const key = { frame, easing: keyAt(fromFrame)?.easing ?? null, ...clampWindow(window, area, aspect) };
      return fromFrame === frame
        ? { type: "set-key", versionId: version.id, key }
        : { type: "move-key", versionId: version.id, fromFrame, key };
    },
    [keyAt, shots, version.id, picture, aspect],
  );

  /** Puts a key where there is none, or moves the one that is there or was at `fromFrame`, with its easing. */
  const place = useCallback(
    (frame: number, window: CropWindow, fromFrame?: number | null) =>
      edits.send(placed(frame, window, fromFrame ?? undefined)),
    [edits, placed],
  );

  /** Shows the path that a key would make; null for the path as it is. */
  const preview = useCallback(
    (frame: number, window: CropWindow | null, fromFrame?: number | null) =>
      edits.preview(window && placed(frame, window, fromFrame ?? undefined)),
    [edits, placed],
  );

  const release = (frame: number) => {
    if (keyAt(frame)) edits.send({ type: "remove-key", versionId: version.id, frame });
  };

  const ease = (key: HandKey, easing: Easing | null) =>
    edits.send({ type: "set-key", versionId: version.id, key: { ...key, easing } });

  /** Puts a key into the other versions, with the subject at the same place in their windows. */
  const carry = (shot: DeskShot, key: HandKey) => {
    const subject = shot.framed && followedTrack(shot.framed, shot.tracks);
    const box = subject && boxAt(subject, key.frame);
    const others = versions.filter(({ id }) => id !== version.id);
    for (const other of others) {
      const carried = carryKey(key, version, other, activeArea(shot, picture), box && boxCentre(box));
      edits.send({ type: "set-key", versionId: other.id, key: carried });
    }
    toast(`The key is in ${others.map(({ name }) => name).join(", ")} as well.`);
  };

  return { place, preview, release, ease, carry };
}
