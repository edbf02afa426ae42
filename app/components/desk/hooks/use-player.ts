import { useEffect, useState, useSyncExternalStore } from "react";
import type { FrameRange, Rate } from "~/core/time/rate";
import { shotAt } from "../model/desk-types";
import { Player, type Sound } from "../model/player";

/** A player on a video element for as long as both are there. */
export function usePlayer(video: HTMLVideoElement | null, rate: Rate, frames: number): Player | null {
  const [player, setPlayer] = useState<Player | null>(null);
  const { num, den } = rate;
  useEffect(() => {
    if (!video) return;
    const created = new Player(video, { num, den }, frames);
    setPlayer(created);
    return () => {
      created.dispose();
      setPlayer(null);
    };
  }, [video, num, den, frames]);
  return player;
}

const never = () => () => {};

/** The frame on screen, as React state. */
export const useFrame = (player: Player | null): number =>
  useSyncExternalStore(player?.subscribe ?? never, player?.getFrame ?? (() => 0), () => 0);

/** Whether this is the frame on screen. */
export const useFrameIs = (player: Player | null, frame: number): boolean =>
  useSyncExternalStore(
    player?.subscribe ?? never,
    () => (player?.getFrame() ?? 0) === frame,
    () => frame === 0,
  );

/** The shot under the playhead: unlike the frame, it stays the same for long. */
export function useShotHere<Shot extends FrameRange>(player: Player | null, shots: readonly Shot[]): Shot | undefined {
  const here = () => shotAt(shots, player?.getFrame() ?? 0);
  return useSyncExternalStore(player?.subscribe ?? never, here, () => shots[0]);
}

export const usePlaying = (player: Player | null): boolean =>
  useSyncExternalStore(player?.subscribe ?? never, player?.getPlaying ?? (() => false), () => false);

/** How quickly it is played: 1, 2, …, less than 0 for backwards, 0 while it is not. */
export const useSpeed = (player: Player | null): number =>
  useSyncExternalStore(player?.subscribe ?? never, player?.getSpeed ?? (() => 0), () => 0);

const SILENT: Sound = { volume: 1, muted: false };

export const useSound = (player: Player | null): Sound =>
  useSyncExternalStore(player?.subscribe ?? never, player?.getSound ?? (() => SILENT), () => SILENT);

/** What is played again and again; null for nothing. */
export const useLoop = (player: Player | null): FrameRange | null =>
  useSyncExternalStore(player?.subscribe ?? never, player?.getLoop ?? (() => null), () => null);

/** Calls back in the moment a picture is presented, and once at first. */
export function useOnFrame(player: Player | null, callback: (frame: number) => void): void {
  useEffect(() => {
    if (!player) return;
    const run = () => callback(player.getFrame());
    run();
    return player.subscribe(run);
  }, [player, callback]);
}
