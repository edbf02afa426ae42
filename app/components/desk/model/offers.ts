/** Layouts offered at a flag, and what taking them sends. */
import { nanoid } from "nanoid";
import type { Flag } from "~/core/checks/flag";
import { type LayoutOffer, layoutOffers } from "~/core/checks/layout-offers";
import type { SafeArea } from "~/core/composition/layers/safe-area";
import type { SingleCommand } from "~/core/edits/command";
import type { Size } from "~/core/geometry/box";
import type { CropWindow } from "~/core/geometry/crop-window";
import { activeArea } from "~/core/shots/shot";
import { boxAt, extentOf } from "~/core/subjects/tracking/track";
import type { DeskShot } from "./desk-types";

/** The version that is framed, and its film's picture. */
export interface OfferedTo {
  version: Size & { id: string; safeArea: SafeArea | null };
  picture: Size;
  windowAt: (frame: number) => CropWindow;
}

/** The layouts that would show what a flag is about. */
export function offersAt(shot: DeskShot, flag: Flag, { version, picture, windowAt }: OfferedTo): LayoutOffer[] {
  const other = shot.tracks.find(({ id }) => id === flag.otherId);
  const cut = flag.kind === "text-cut" ? other : undefined;
  return layoutOffers(flag, {
    settings: shot.settings,
    start: shot.start,
    area: activeArea(shot, picture),
    frame: version,
    window: windowAt(flag.frame),
    cut: flag.kind === "protected-cut" ? shot.protect : cut ? boxAt(cut, flag.frame) : null,
    other: other ? boxAt(other, flag.frame) : null,
    text: cut?.kind === "text" ? { range: extentOf(cut), words: cut.words ?? null } : null,
    safeArea: version.safeArea,
  });
}

/** What taking an offer changes; its layers get ids of their own. */
export function commandsOf(
  { change, keys, layers = [] }: LayoutOffer,
  shot: DeskShot,
  versionId: string,
): SingleCommand[] {
  return [
    ...layers.map((layer) => ({ type: "put-layer" as const, versionId, layer: { ...layer, id: nanoid(10) } })),
    ...(Object.keys(change).length > 0
      ? [{ type: "set-framing" as const, versionId, shotIds: [shot.id], change }]
      : []),
    ...keys.map((key) => ({ type: "set-key" as const, versionId, key })),
  ];
}

/** Texts of a film that are cut off, were read whole, and can be replaced where they are. */
export function replaceableTexts(shots: readonly DeskShot[], to: OfferedTo): { shot: DeskShot; offer: LayoutOffer }[] {
  return shots.flatMap((shot) => {
    const flags = shot.flags.filter(({ kind, isReviewed }) => kind === "text-cut" && !isReviewed);
    // A text that is cut off twice is covered for as long as it is there.
    const texts = new Map(flags.toReversed().map((flag) => [flag.otherId, flag]));
    return [...texts.values()].flatMap((flag) => {
      const { words } = shot.tracks.find(({ id }) => id === flag.otherId) ?? {};
      const offer = words && !words.isPart && offersAt(shot, flag, to).find(({ id }) => id === "replace");
      return offer ? [{ shot, offer }] : [];
    });
  });
}
