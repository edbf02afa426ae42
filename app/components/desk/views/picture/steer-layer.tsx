import { type KeyboardEvent, type PointerEvent, useCallback, useEffect, useRef } from "react";
import { arrowDirection } from "~/components/common/arrow-step";
import { framesPerSecond } from "~/core/time/rate";
import { steeredWay } from "../../model/reshaping";
import { useDesk } from "../../hooks/use-desk";
import type { Player } from "../../model/player";
import { sourceScale } from "./source-point";
import { useOnFrame, usePlaying } from "../../hooks/use-player";
import { pictureTexts } from "~/texts/picture";

const t = pictureTexts.steerLayer;

/** Windows per second by which a held arrow key steers. */
const KEY_SPEED = 0.5;

/**
 * Covers the picture while the window is steered: it is held from the press of the pointer or the first arrow key on, and
 * led until the pointer is released or playback pauses.
 */
export function SteerLayer({ player }: { player: Player }) {
  const { film, aspect, shots, windowAt, steering, reshape } = useDesk(
    "film",
    "aspect",
    "shots",
    "windowAt",
    "steering",
    "reshape",
  );
  const { picture, rate } = film;
  const pointer = useRef<{ x: number; y: number } | null>(null);
  const arrows = useRef(new Set<string>());
  const cover = useRef<SVGRectElement>(null);
  useEffect(() => cover.current?.focus(), []);

  const begin = () => {
    reshape.discard();
    const window = windowAt(player.getFrame());
    steering.begin(window);
    if (player.getSpeed() <= 0) player.toggle();
  };
  const end = useCallback(() => {
    if (!steering.isLed()) return;
    pointer.current = null;
    arrows.current.clear();
    const led = steering.end();
    player.pause();
    reshape.show(steeredWay(shots, led));
  }, [steering, player, reshape, shots]);

  useOnFrame(
    player,
    useCallback(
      (frame: number) => {
        const height = steering.at(frame)?.height;
        if (height === undefined) return;
        const pace = (KEY_SPEED * Math.abs(player.getSpeed())) / framesPerSecond(rate);
        for (const key of arrows.current) {
          const [x, y] = arrowDirection(key)!;
          steering.lead({ x: x * pace * height * aspect, y: y * pace * height });
        }
        steering.record(frame);
      },
      [steering, player, rate, aspect],
    ),
  );
  const isPlaying = usePlaying(player);
  const wasPlaying = useRef(false);
  useEffect(() => {
    if (wasPlaying.current && !isPlaying) end();
    wasPlaying.current = isPlaying;
  }, [isPlaying, end]);

  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === " " || event.key === "Enter") {
      event.preventDefault();
      if (steering.isLed()) end();
      else begin();
    }
    if (!arrowDirection(event.key)) return;
    event.preventDefault();
    arrows.current.add(event.key);
    if (!steering.isLed()) begin();
  };
  const onPointerMove = (event: PointerEvent<SVGRectElement>) => {
    const from = pointer.current;
    if (!from) return;
    const scale = sourceScale(event.currentTarget, picture);
    steering.lead({ x: (event.clientX - from.x) * scale, y: (event.clientY - from.y) * scale });
    pointer.current = { x: event.clientX, y: event.clientY };
  };
  return (
    <rect
      ref={cover}
      width={picture.width}
      height={picture.height}
      fill="transparent"
      tabIndex={0}
      role="application"
      aria-roledescription={t.steeringArea}
      aria-label={t.steerHint}
      className="cursor-move touch-none outline-none"
      onPointerDown={(event) => {
        if (event.button !== 0) return;
        event.currentTarget.setPointerCapture(event.pointerId);
        pointer.current = { x: event.clientX, y: event.clientY };
        begin();
      }}
      onPointerMove={onPointerMove}
      onPointerUp={end}
      onPointerCancel={end}
      onKeyDown={onKeyDown}
      onKeyUp={({ key }) => arrows.current.delete(key)}
    />
  );
}
