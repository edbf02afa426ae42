import { clsx } from "clsx";
import { useEffect, useRef } from "react";
import { MANNER_TEXT } from "~/core/path/manner";
import type { Rate } from "~/core/time/rate";
import { formatTimecode } from "~/core/time/timecode";
import { type DeskShot, shotAt, subjectColour } from "./desk-types";
import type { Player } from "./player";
import { useFrame } from "./use-player";

interface ShotListProps {
  player: Player | null;
  shots: DeskShot[];
  rate: Rate;
  aspect: number;
  /** A picture of what the version shows of each shot, by shot id. */
  pictures: ReadonlyMap<string, string>;
}

/** The shots from the first to the last, each with what the version shows of it. */
export function ShotList({ player, shots, rate, aspect, pictures }: ShotListProps) {
  const frame = useFrame(player);
  const current = shotAt(shots, frame);
  return (
    <ol aria-label="Shots" className="flex flex-col">
      {shots.map((shot) => (
        <ShotRow
          key={shot.id}
          shot={shot}
          current={shot.id === current?.id}
          rate={rate}
          aspect={aspect}
          picture={pictures.get(shot.id)}
          onOpen={() => player?.seek(shot.start)}
        />
      ))}
    </ol>
  );
}

interface ShotRowProps {
  shot: DeskShot;
  current: boolean;
  rate: Rate;
  aspect: number;
  picture: string | undefined;
  onOpen: () => void;
}

function ShotRow({ shot, current, rate, aspect, picture, onOpen }: ShotRowProps) {
  const row = useRef<HTMLLIElement>(null);
  useEffect(() => {
    if (current) row.current?.scrollIntoView({ block: "nearest" });
  }, [current]);
  const followed = shot.cast.findIndex(({ track }) => track.id === shot.framed?.subjectId);
  const hands = shot.handKeys.length;
  return (
    <li ref={row}>
      <button
        type="button"
        aria-current={current}
        onClick={onOpen}
        className={clsx(
          "flex w-full gap-3 border-b border-line px-3 py-2 text-left outline-offset-[-2px]",
          current ? "bg-raised shadow-[inset_3px_0_0_var(--accent)]" : "hover:bg-raised/60",
        )}
      >
        <span className="flex h-16 w-16 shrink-0 items-center justify-center bg-well">
          {picture && (
            <img src={picture} alt="" style={{ aspectRatio: aspect }} className={aspect < 1 ? "h-full" : "w-full"} />
          )}
        </span>
        <span className="flex min-w-0 grow flex-col justify-between py-0.5">
          <span className="flex items-baseline justify-between gap-2">
            <span className="font-display text-base font-semibold">{shot.number}</span>
            <span className="font-mono text-xs text-soft">{formatTimecode(shot.end - shot.start, rate).slice(3)}</span>
          </span>
          <span className="flex items-center gap-2 text-xs text-soft">
            {followed >= 0 ? (
              <span
                className="inline-flex h-4.5 min-w-4.5 items-center justify-center rounded-sm px-1 text-xs font-bold text-black"
                style={{ background: subjectColour(followed) }}
              >
                {shot.cast[followed]!.letter}
              </span>
            ) : (
              <span>nobody</span>
            )}
            {MANNER_TEXT[shot.manner].name}
            {hands > 0 && <span className="ml-auto text-accent">■ {hands}</span>}
          </span>
        </span>
      </button>
    </li>
  );
}
