/** The editor's own pictures, loaded once for the page. */
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

/**
 * A picture that can be drawn, the first frame of a moving one; null until it has loaded, and if it is no longer in the
 * library.
 */
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

/** How many pictures have loaded: a drawing made before the newest may lack it. */
export const useArrivedPictures = (): number =>
  useSyncExternalStore(
    subscribe,
    () => arrived,
    () => 0,
  );
