import { frameAfter, type PictureAt } from "~/core/composition/picture";
import { seekSeconds } from "~/core/time/rate";
import { ownPicture } from "./own-pictures";
import type { Sound } from "../model/player";

/** A picture that can be drawn, and its width in its own pixels. */
export interface Drawable {
  image: HTMLVideoElement | HTMLImageElement;
  width: number;
}

/** What is drawn of a picture of the editor's own; null until it has come. */
export type PictureSource = (at: PictureAt) => Drawable | null;

/** The picture itself, or the first frame of one that moves. */
export const firstFrame: PictureSource = ({ picture }) => {
  const image = ownPicture(picture);
  return image && { image, width: image.naturalWidth };
};

/** Frames by which a picture that is playing may be ahead or behind. */
const MOST_DRIFT = 3;

/** The quickest that a browser plays. */
const MOST_RATE = 16;

/** How the film is played: in times of its own speed, 0 while it stands, less for backwards. */
interface FilmPlaying {
  speed: number;
  sound: Sound;
}

interface Playing {
  video: HTMLVideoElement;
  isUsed: boolean;
}

/**
 * Plays the pictures that move on the result, each use with a video element of its own that follows the film: frame by
 * frame while it stands, and as well as the browser can while it plays.
 */
export class MovingPictures {
  private readonly playing = new Map<string, Playing>();
  private film: FilmPlaying = { speed: 0, sound: { volume: 1, muted: true } };

  /** @param onArrived a frame that was waited for can be drawn */
  constructor(private readonly onArrived: () => void) {}

  /** Draws with what moves; what is not asked for meanwhile stops. */
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
    // A picture may be told of while the browser still seeks; by then somebody may want another one.
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
    // One that has come to its end, or is not played by its own speed at all, is led frame by frame.
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
