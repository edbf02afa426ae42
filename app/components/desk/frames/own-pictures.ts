/** Pictures of the editor's own, loaded once for the page. */
import { useSyncExternalStore } from "react";
import type { Picture } from "~/core/composition/picture";

type Loaded = HTMLImageElement | "loading" | "missing";

const pictures = new Map<string, Loaded>();
const listeners = new Set<() => void>();
let arrived = 0;

function settle(id: string, loaded: Loaded): void {
  pictures.set(id, loaded);
  arrived++;
  for (const tell of listeners) tell();
}

/** A picture that can be drawn, of one that moves its first frame; null until it has come, and for one that is not in the library any more. */
export function ownPicture({ id, moving }: Pick<Picture, "id" | "moving">): HTMLImageElement | null {
  const known = pictures.get(id);
  if (known === undefined) {
    pictures.set(id, "loading");
    const image = new Image();
    image.src = moving ? `/media/moving/${id}/first.png` : `/own-files/${id}`;
    void image.decode().then(
      () => settle(id, image),
      () => settle(id, "missing"),
    );
  }
  return known instanceof HTMLImageElement ? known : null;
}

const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => void listeners.delete(listener);
};

/** How many pictures have come: what was drawn before another one may lack it. */
export const useArrivedPictures = (): number =>
  useSyncExternalStore(
    subscribe,
    () => arrived,
    () => 0,
  );
