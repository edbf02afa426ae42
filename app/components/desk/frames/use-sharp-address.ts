import { boxCentre } from "~/core/geometry/box";
import { inRange } from "~/core/time/rate";
import { useDesk } from "../hooks/use-desk";

/** Address of a frame of the version as it will be in the file, as a PNG. */
export function useSharpAddress(): (frame: number) => string {
  const { film, state, version, revision, shownAt, captionPlaces } = useDesk(
    "film",
    "state",
    "version",
    "revision",
    "shownAt",
    "captionPlaces",
  );
  return (frame) => {
    // Another frame, or a path that was laid again, has other windows.
    const windows = shownAt(frame)
      .panes.map(({ source, own }) => {
        const { x, y } = boxCentre(source);
        return own ? "0,0,1" : [x, y, source.height].map((value) => value.toFixed(4)).join();
      })
      .join(";");
    const captions = state.captions
      .filter((caption) => inRange(frame, caption))
      .map(({ id }) => `${id}:${captionPlaces.get(id) ?? 1}`)
      .join();
    return `/media/${film.id}/frame/${version.id}/${frame}.png?windows=${windows}&captions=${captions}&revision=${revision}`;
  };
}
