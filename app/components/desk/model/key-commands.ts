import { useMemo } from "react";
import { toast } from "sonner";
import { useLatest } from "~/components/common/use-latest";
import type { SingleCommand } from "~/core/edits/command";
import { paneBox } from "~/core/composition/layout";
import type { VersionState } from "~/core/version/film-state";
import { settle } from "~/core/version/settle";
import { type Box, boxCentre, type Size } from "~/core/geometry/box";
import { clampWindow, type CropWindow } from "~/core/geometry/crop-window";
import { copyKey } from "~/core/path/copy-key";
import type { Easing } from "~/core/path/easing";
import type { HandKey } from "~/core/path/hand-key";
import { activeArea } from "~/core/shots/shot";
import { type DeskShot, type DeskVersion, shotAt, subjectBoxAt } from "./desk-types";
import { areaAt, windowAspect } from "./windows";
import type { Edits } from "../hooks/use-edits";
import { deskTexts } from "~/texts/desk";

const t = deskTexts.useKeyEdits;

/** What can be done to the hand keys of a version. */
export interface KeyEdits {
  /** Puts a key where there is none, or moves the one that is there or was at `fromFrame`, with its easing. */
  place: (frame: number, window: CropWindow, fromFrame?: number | null) => void;
  /** Shows the path that a key would make; null for the path as it is. */
  preview: (frame: number, window: CropWindow | null, fromFrame?: number | null) => void;
  release: (frame: number) => void;
  ease: (key: HandKey, easing: Easing | null) => void;
  /** Puts a key into the other versions, with the subject at the same place in their windows; null without others. */
  copyToOthers: ((shot: DeskShot, key: HandKey) => void) | null;
}

export function useKeyEdits(
  edits: Edits,
  shots: readonly DeskShot[],
  version: DeskVersion,
  versions: readonly VersionState[],
  picture: Size,
): KeyEdits {
  const { id, width, height } = version;
  const latest = useLatest({ shots, version, versions });
  const hasOthers = versions.length > 1;
  // Not made anew with every change of the shots: what a drag calls stays the same as long as it goes on.
  return useMemo(() => {
    const versionId = id;
    const keyAt = (frame: number) => shotAt(latest.current.shots, frame)?.handKeys.find((key) => key.frame === frame);
    const placed = (frame: number, window: CropWindow, fromFrame: number): SingleCommand => {
      const { shots } = latest.current;
      const shot = shotAt(shots, frame);
      const area = areaAt(shots, frame, picture);
      const aspect = windowAspect(shot, picture, { width, height });
      const key = {
        pane: shot?.pane ?? 0,
        frame,
        easing: keyAt(fromFrame)?.easing ?? null,
        ...clampWindow(window, area, aspect),
      };
      return fromFrame === frame
        ? { type: "set-key", versionId, key }
        : { type: "move-key", versionId, fromFrame, key };
    };
    const copyToOthers = (shot: DeskShot, key: HandKey) => {
      const { version, versions } = latest.current;
      const others = versions.filter((other) => other.id !== versionId);
      const box = subjectBoxAt(shot, key.frame);
      const area = activeArea(shot, picture);
      const commands = others.map((other): SingleCommand => {
        const { layout } = settle(shot, other.shots.get(shot.id), other.usual).settings;
        const [from, to] = [shot.settings.layout, layout].map((each, i) =>
          paneBox(each, area, i === 0 ? version : other, key.pane),
        ) as [Box, Box];
        const copied = copyKey(key, from, to, area, box && boxCentre(box));
        return { type: "set-key", versionId: other.id, key: copied };
      });
      edits.send({ type: "batch", commands });
      toast(t.keyCopiedTo(others.map(({ name }) => name).join(", ")));
    };
    return {
      place: (frame, window, fromFrame) => edits.send(placed(frame, window, fromFrame ?? frame)),
      preview: (frame, window, fromFrame) => edits.preview(window && placed(frame, window, fromFrame ?? frame)),
      release: (frame) => {
        const key = keyAt(frame);
        if (key) edits.send({ type: "remove-key", versionId, pane: key.pane, frame });
      },
      ease: (key, easing) => edits.send({ type: "set-key", versionId, key: { ...key, easing } }),
      copyToOthers: hasOthers ? copyToOthers : null,
    };
  }, [edits, latest, id, width, height, hasOthers, picture]);
}
