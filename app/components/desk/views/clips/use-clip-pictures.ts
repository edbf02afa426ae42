import { cutOut } from "~/core/composition/composition";
import { useMemo } from "react";
import { shownOfClip } from "~/core/clips/clip";
import { wholeOf } from "~/core/geometry/box";
import { type Still, useStills } from "../../frames/use-stills";
import { useDesk } from "../../hooks/use-desk";

/** Pixels of the longer side. */
const SIDE = 96;

/** A small picture of each of the film's clips, by clip id; for a film that is one file, by film id. */
export function useClipPictures(): ReadonlyMap<string, string> {
  const { film, state, source } = useDesk("film", "state", "source");
  const { id: filmId, picture } = film;
  const { clips } = state;
  const wanted = useMemo(() => {
    const places =
      clips.length > 0
        ? clips.map((clip) => ({ id: clip.id, frame: shownOfClip(clip).start, box: clip.area }))
        : [{ id: filmId, frame: 0, box: wholeOf(picture) }];
    return places.map(({ box, ...place }): Still => {
      const scale = SIDE / Math.max(box.width, box.height);
      const size = { width: Math.round(box.width * scale), height: Math.round(box.height * scale) };
      return { ...place, shown: cutOut(box), size };
    });
  }, [filmId, picture, clips]);
  return useStills(source, wanted, picture);
}
