import { paneBox } from "~/core/composition/layout";
import type { SingleCommand } from "~/core/edits/command";
import { type Box, boxCentre } from "~/core/geometry/box";
import { clampWindow, type CropWindow } from "~/core/geometry/crop-window";
import { copyKey } from "~/core/path/copy-key";
import type { Easing } from "~/core/path/easing";
import type { HandKey } from "~/core/path/hand-key";
import { activeArea } from "~/core/shots/shot";
import { settle } from "~/core/version/settle";
import { deskTexts } from "~/texts/desk";
import type { DeskPort } from "./desk-model";
import { deskSelector } from "./desk-selector";
import { type DeskShot, shotAt, subjectBoxAt } from "./desk-types";
import { areaAt, windowAspect } from "./windows";

const t = deskTexts.keyCommands;

/** Commands on the hand keys of a version. */
export interface KeyCommands {
  /** Places a key, or moves the one at this frame or at `fromFrame`, with its easing. */
  place: (frame: number, window: CropWindow, fromFrame?: number | null) => void;
  /** Previews the path with a key there; null ends the preview. */
  preview: (frame: number, window: CropWindow | null, fromFrame?: number | null) => void;
  release: (frame: number) => void;
  ease: (key: HandKey, easing: Easing | null) => void;
  /**
   * Copies a key to the other versions, with the subject at the same place in their windows; null without other versions.
   */
  copyToOthers: ((shot: DeskShot, key: HandKey) => void) | null;
}

export function keyCommands({ get }: DeskPort) {
  const keyAt = (frame: number) => shotAt(get().shots, frame)?.handKeys.find((key) => key.frame === frame);
  const placed = (frame: number, window: CropWindow, fromFrame: number): SingleCommand => {
    const { shots, version, film } = get();
    const shot = shotAt(shots, frame);
    const area = areaAt(shots, frame, film.picture);
    const aspect = windowAspect(shot, film.picture, version);
    const key = {
      pane: shot?.pane ?? 0,
      frame,
      easing: keyAt(fromFrame)?.easing ?? null,
      ...clampWindow(window, area, aspect),
    };
    return fromFrame === frame
      ? { type: "set-key", versionId: version.id, key }
      : { type: "move-key", versionId: version.id, fromFrame, key };
  };
  const commands: Omit<KeyCommands, "copyToOthers"> = {
    place: (frame, window, fromFrame) => get().edits.send(placed(frame, window, fromFrame ?? frame)),
    preview: (frame, window, fromFrame) => get().edits.preview(window && placed(frame, window, fromFrame ?? frame)),
    release: (frame) => {
      const { edits, version } = get();
      const key = keyAt(frame);
      if (key) edits.send({ type: "remove-key", versionId: version.id, pane: key.pane, frame });
    },
    ease: (key, easing) => {
      const { edits, version } = get();
      edits.send({ type: "set-key", versionId: version.id, key: { ...key, easing } });
    },
  };
  const copyToOthers = (shot: DeskShot, key: HandKey) => {
    const { version, state, film, edits, tell } = get();
    const others = state.versions.filter((other) => other.id !== version.id);
    const box = subjectBoxAt(shot, key.frame);
    const area = activeArea(shot, film.picture);
    const copies = others.map((other): SingleCommand => {
      const { layout } = settle(shot, other.shots.get(shot.id), other.usual).settings;
      const [from, to] = [shot.settings.layout, layout].map((each, i) =>
        paneBox(each, area, i === 0 ? version : other, key.pane),
      ) as [Box, Box];
      const copied = copyKey(key, from, to, area, box && boxCentre(box));
      return { type: "set-key", versionId: other.id, key: copied };
    });
    edits.send({ type: "batch", commands: copies });
    tell(t.keyCopiedTo(others.map(({ name }) => name).join(", ")));
  };
  return deskSelector([(desk) => desk.state.versions.length > 1], (hasOthers): KeyCommands => ({
    ...commands,
    copyToOthers: hasOthers ? copyToOthers : null,
  }));
}
