import { useCallback, useEffect, useState, useSyncExternalStore } from "react";
import type { FrameRange, Rate } from "~/core/time/rate";
import { shotAt } from "../model/desk-types";
import { Player, type Sound } from "../model/player";

interface PlayedVideo {
  video: HTMLVideoElement;
  player: Player;
}

/** A player on the video element that is given to `attach`, for as long as that is there. */
export function useVideo({ num, den }: Rate, frames: number) {
  const [played, setPlayed] = useState<PlayedVideo | null>(null);
  const attach = useCallback(
    (video: HTMLVideoElement | null) => {
      if (!video) return;
      const player = new Player(video, { num, den }, frames);
      setPlayed({ video, player });
      return () => {
        player.dispose();
        setPlayed(null);
      };
    },
    [num, den, frames],
  );
  return { video: played?.video ?? null, player: played?.player ?? null, attach };
}

const never = () => () => {};

/** The frame on screen, as React state. */
export const useFrame = (player: Player | null): number =>
  useSyncExternalStore(player?.subscribe ?? never, player?.getFrame ?? (() => 0), () => 0);

/** A value derived from the frame on screen, as React state: a number or word that seldom changes. */
export const useOfFrame = <T extends number | boolean | string>(
  player: Player | null,
  derive: (frame: number) => T,
): T =>
  useSyncExternalStore(
    player?.subscribe ?? never,
    () => derive(player?.getFrame() ?? 0),
    () => derive(0),
  );

/** Whether this is the frame on screen. */
export const useFrameIs = (player: Player | null, frame: number): boolean =>
  useOfFrame(player, (here) => here === frame);

/** The shot under the playhead, which seldom changes, unlike the frame. */
export function useShotHere<Shot extends FrameRange>(player: Player | null, shots: readonly Shot[]): Shot | undefined {
  const here = () => shotAt(shots, player?.getFrame() ?? 0);
  return useSyncExternalStore(player?.subscribe ?? never, here, () => shots[0]);
}

/**
 * The shot that commands are meant for: the one being sought, before its picture is on screen. Whoever selects a shot and
 * sets something at once means that shot, however long the picture takes.
 */
export function useShotToEdit<Shot extends FrameRange>(
  player: Player | null,
  shots: readonly Shot[],
): Shot | undefined {
  const here = () => shotAt(shots, player?.getTarget() ?? 0);
  return useSyncExternalStore(player?.subscribeToTarget ?? never, here, () => shots[0]);
}

export const usePlaying = (player: Player | null): boolean =>
  useSyncExternalStore(player?.subscribe ?? never, player?.getPlaying ?? (() => false), () => false);

/** Playback rate: 1, 2, …, negative for backwards, 0 while paused. */
export const useSpeed = (player: Player | null): number =>
  useSyncExternalStore(player?.subscribe ?? never, player?.getSpeed ?? (() => 0), () => 0);

const SILENT: Sound = { volume: 1, muted: false };

export const useSound = (player: Player | null): Sound =>
  useSyncExternalStore(player?.subscribe ?? never, player?.getSound ?? (() => SILENT), () => SILENT);

/** The range that is looped; null for none. */
export const useLoop = (player: Player | null): FrameRange | null =>
  useSyncExternalStore(player?.subscribe ?? never, player?.getLoop ?? (() => null), () => null);

/** Calls back whenever a picture is presented, and once at first. */
export function useOnFrame(player: Player | null, callback: (frame: number) => void): void {
  useEffect(() => {
    if (!player) return;
    const run = () => callback(player.getFrame());
    run();
    return player.subscribe(run);
  }, [player, callback]);
}
