import type { Pane } from "~/core/composition/composition";

/** Draws a pane's part of a video, in the video's own pixels, where the pane is. */
export const drawPane = (context: CanvasRenderingContext2D, video: HTMLVideoElement, { source, target }: Pane): void =>
  context.drawImage(
    video,
    ...([source.x, source.y, source.width, source.height] as const),
    ...([target.x, target.y, target.width, target.height] as const),
  );
