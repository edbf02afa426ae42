import { clsx } from "clsx";
import { Flag, Scissors } from "lucide-react";
import { Hint } from "~/components/common/button";
import { MOVEMENT_TEXT } from "~/core/path/movement";
import { wordsOf } from "~/core/subjects/tracking/track";
import { framesIn, type Rate, rangeLength } from "~/core/time/rate";
import { formatTimecode } from "~/core/time/timecode";
import { type DeskShot, followedIn } from "../../model/desk-types";
import { Letter } from "../../../common/letter";
import { deskTexts } from "~/texts/desk";

const t = deskTexts.shotRow;

interface ShotRowProps {
  shot: DeskShot;
  /** Name of the clip that begins with it; undefined where none does. */
  clip: string | undefined;
  top: number;
  height: number;
  /** Place in the filtered list, from 1, and the list's length. */
  position: number;
  count: number;
  current: boolean;
  selected: boolean;
  rate: Rate;
  aspect: number;
  picture: string | undefined;
  onOpen: (event: React.MouseEvent) => void;
}

/** A row of the shot list: picture, number or name, length, subject, movement and flags. */
export function ShotRow({
  shot,
  clip,
  top,
  height,
  position,
  count,
  current,
  selected,
  rate,
  aspect,
  picture,
  onOpen,
}: ShotRowProps) {
  const unseen = shot.flags.filter(({ isReviewed }) => !isReviewed);
  const hands = shot.handKeys.length;
  const length = rangeLength(shot);
  const left = framesIn(shot.kept);
  const isOut = left === 0;
  const words = shot.tracks.flatMap((track) => wordsOf(track) ?? []);
  return (
    <div
      id={`shot-${shot.id}`}
      role="option"
      aria-selected={selected}
      aria-current={current}
      aria-setsize={count}
      aria-posinset={position}
      onClick={onOpen}
      style={{ top, height }}
      className={clsx(
        "absolute inset-x-0 flex cursor-default gap-3 border-b border-line px-3 py-2",
        selected ? "bg-accent-wash" : current ? "bg-raised" : "hover:bg-raised/60",
        current && "shadow-[inset_3px_0_0_var(--accent)]",
      )}
    >
      <span className={clsx("flex w-14 shrink-0 items-center justify-center bg-well", isOut && "opacity-35")}>
        {picture && (
          <img src={picture} alt="" style={{ aspectRatio: aspect }} className={aspect < 1 ? "max-h-full" : "w-full"} />
        )}
      </span>
      <span className="flex min-w-0 grow flex-col justify-between py-0.5">
        <span className="flex items-baseline gap-2">
          <span className={clsx("truncate font-display font-semibold", isOut && "text-soft line-through")}>
            <span className="sr-only">{t.shot} </span>
            {shot.number}
            {shot.name && <span className="font-sans text-sm font-normal"> {shot.name}</span>}
            {clip && (
              <span title={clip} className="font-sans text-xs font-normal text-soft">
                {" "}
                {clip}
              </span>
            )}
          </span>
          <span className="ml-auto flex items-center gap-1 font-mono text-xs text-soft">
            {!isOut && left < length && (
              <Hint text={t.ofThisShotIsLeft(formatTimecode(length - left, rate).slice(3))}>
                <Scissors className="size-3" aria-label={t.partlyLeftOut} />
              </Hint>
            )}
            {formatTimecode(isOut ? length : left, rate).slice(3)}
          </span>
        </span>
        {words.length > 0 && (
          <span title={t.says(words)} className="truncate text-xs leading-tight text-soft">
            {t.says(words)}
          </span>
        )}
        <span className="flex items-center gap-2 text-xs whitespace-nowrap text-soft">
          {shot.isAnalysed && <Followed shot={shot} />}
          {isOut
            ? t.leftOut
            : shot.isAnalysed
              ? shot.framed && MOVEMENT_TEXT[shot.framed.movement].name
              : t.notAnalysed}
          <span className="ml-auto flex items-center gap-2">
            {hands > 0 && <span className="text-accent">● {hands}</span>}
            {unseen.length > 0 && (
              <Hint text={unseen.map(({ text }) => text).join(". ")}>
                <span className="flex items-center gap-0.5 text-warn">
                  <Flag className="size-3.5" aria-hidden />
                  {unseen.length}
                </span>
              </Hint>
            )}
          </span>
        </span>
      </span>
    </div>
  );
}

function Followed({ shot }: { shot: DeskShot }) {
  const followed = followedIn(shot);
  return followed ? <Letter {...followed} /> : <span>{t.noSubject}</span>;
}
