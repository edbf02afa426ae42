import { frameAfter, type PictureAt } from "~/core/composition/picture";
import { seekSeconds } from "~/core/time/rate";
import { ownPicture } from "./own-pictures";
import type { Sound } from "../model/player";

/** Something that can be drawn, with its width in its own pixels. */
export interface Drawable {
  image: HTMLVideoElement | HTMLImageElement;
  width: number;
}

/** The drawable of one of the editor's own pictures; null until it has loaded. */
export type PictureSource = (at: PictureAt) => Drawable | null;

/** The picture itself, or the first frame of a moving one. */
export const firstFrame: PictureSource = ({ picture }) => {
  const image = ownPicture(picture);
  return image && { image, width: image.naturalWidth };
};

/** Frames by which a playing picture may be ahead or behind before it is sought. */
const MOST_DRIFT = 3;

/** Highest playback rate of browsers. */
const MOST_RATE = 16;

/** Playback of the film: its rate, 0 while paused, negative for backwards. */
interface FilmPlaying {
  speed: number;
  sound: Sound;
}

interface Playing {
  video: HTMLVideoElement;
  isUsed: boolean;
}

/**
 * Plays the moving pictures of the result, each with a video element that follows the film: frame by frame while it is
 * paused, and as closely as the browser can while it plays.
 */
export class MovingPictures {
  private readonly playing = new Map<string, Playing>();
  private film: FilmPlaying = { speed: 0, sound: { volume: 1, muted: true } };

  /** @param onArrived called when an awaited frame can be drawn */
  constructor(private readonly onArrived: () => void) {}

  /** Draws with the moving pictures; those not asked for during `draw` are stopped. */
  draw(film: FilmPlaying, draw: (source: PictureSource) => void): void {
    this.film = film;
    for (const one of this.playing.values()) one.isUsed = false;
    draw(this.at);
    for (const { isUsed, video } of this.playing.values()) if (!isUsed) video.pause();
  }

  private readonly at: PictureSource = (at) => {
    if (!at.picture.moving) return firstFrame(at);
    const key = `${at.slot} ${at.picture.id}`;
    const one = this.playing.get(key) ?? { video: this.open(at), isUsed: true };
    this.playing.set(key, one);
    one.isUsed = true;
    this.follow(one.video, at);
    const { video } = one;
    return video.readyState < HTMLMediaElement.HAVE_CURRENT_DATA
      ? firstFrame(at)
      : { image: video, width: video.videoWidth };
  };

  private open({ picture }: PictureAt): HTMLVideoElement {
    const video = document.createElement("video");
    video.preload = "auto";
    video.src = `/media/moving/${picture.id}/light`;
    const tell = () => {
      if (this.film.speed <= 0) this.onArrived();
    };
    const watch = () => {
      tell();
      video.requestVideoFrameCallback(watch);
    };
    video.requestVideoFrameCallback(watch);
    // A picture may be announced while the browser is still seeking; by then another may be wanted.
    video.addEventListener("seeked", tell);
    return video;
  }

  private follow(video: HTMLVideoElement, { picture, playback, frame, sounds }: PictureAt): void {
    const { rate } = picture.moving!;
    const wanted = seekSeconds(frame, rate);
    const frames = Math.abs(video.currentTime - wanted) * (rate.num / rate.den);
    const { speed, sound } = this.film;
    video.muted = !sounds || sound.muted;
    video.volume = sound.volume;
    // One that has ended, or does not play at its own speed, is sought frame by frame.
    const runs = speed > 0 && frame !== frameAfter(picture, { ...playback, loops: false }, Infinity);
    if (runs) {
      video.playbackRate = Math.min(MOST_RATE, playback.speed * speed);
      if (video.paused) void video.play().catch(() => {});
    } else video.pause();
    if (frames > (runs ? MOST_DRIFT : 0.5) && !video.seeking) video.currentTime = wanted;
  }

  dispose(): void {
    for (const { video } of this.playing.values()) {
      video.pause();
      video.removeAttribute("src");
      video.load();
    }
    this.playing.clear();
  }
}
