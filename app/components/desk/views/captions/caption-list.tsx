import { clamped } from "~/core/numbers/clamped";
import { useVirtualizer } from "@tanstack/react-virtual";
import { clsx } from "clsx";
import { TriangleAlert } from "lucide-react";
import { type KeyboardEvent, useEffect, useRef } from "react";
import { paceOf } from "~/core/captions/caption-faults";
import type { Caption } from "~/core/captions/caption";
import { inRange } from "~/core/time/rate";
import { timecodeAt } from "~/core/time/timecode";
import { captionsTexts } from "~/texts/captions";
import { useFrame } from "../../hooks/use-player";
import { useDesk } from "../../hooks/use-desk";

const t = captionsTexts.captionList;

/** Height of a row in pixels. */
const ROW_HEIGHT = 44;
/** Largest height of the list. */
const MOST_HEIGHT = 4 * ROW_HEIGHT;

/** The film's captions with times and pace; the one at the playhead is highlighted. */
export function CaptionList({ faulty }: { faulty: readonly Caption[] }) {
  const { film, state, player, captionCommands } = useDesk("film", "state", "player", "captionCommands");
  const { captions } = state;
  const { selected, select, remove } = captionCommands;
  const frame = useFrame(player);
  const scroller = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({
    count: captions.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW_HEIGHT,
    getItemKey: (index) => captions[index]!.id,
    overscan: 4,
  });
  const here = captions.findIndex((caption) => inRange(frame, caption));
  const selectedIndex = selected ? captions.indexOf(selected) : -1;
  const followed = here >= 0 ? here : selectedIndex;
  useEffect(() => {
    if (followed >= 0) rows.scrollToIndex(followed, { align: "auto" });
  }, [followed, rows]);
  const open = (caption: Caption | undefined) => {
    if (!caption) return;
    select(caption.id);
    player?.pause();
    player?.seek(caption.start);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const step = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (step) open(captions[clamped(selectedIndex + step, 0, captions.length - 1)]);
    else if (event.key === "Delete" && selected) remove([selected.id]);
    else if (event.key === "Escape") select(null);
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  const isFaulty = new Set(faulty);
  return (
    <div>
      <h2 className="flex justify-between pb-1 text-xs text-soft">
        <span>{t.count(captions.length)}</span>
        {faulty.length > 0 && <span className="text-warn">{t.faulty(faulty.length)}</span>}
      </h2>
      <div
        ref={scroller}
        role="listbox"
        aria-label={t.captions}
        aria-activedescendant={selected ? `caption-${selected.id}` : undefined}
        tabIndex={0}
        onKeyDown={onKeyDown}
        style={{ height: Math.min(MOST_HEIGHT, rows.getTotalSize() + 2) }}
        className="overflow-y-auto rounded-md border border-line bg-raised outline-offset-[-2px] select-none"
      >
        <div role="presentation" className="relative" style={{ height: rows.getTotalSize() }}>
          {rows.getVirtualItems().map((item) => {
            const caption = captions[item.index]!;
            return (
              <div
                key={caption.id}
                id={`caption-${caption.id}`}
                role="option"
                aria-selected={caption === selected}
                aria-setsize={captions.length}
                aria-posinset={item.index + 1}
                onClick={() => open(caption)}
                style={{ top: item.start, height: ROW_HEIGHT }}
                className={clsx(
                  "absolute inset-x-0 flex flex-col justify-center border-b border-line px-2",
                  caption === selected ? "bg-accent/15" : "hover:bg-well",
                  item.index === here && "border-l-2 border-l-accent",
                )}
              >
                <span className="truncate text-sm">
                  {caption.speaker && <b className="font-semibold">{t.speaker(caption.speaker)} </b>}
                  {caption.text.replaceAll("\n", " ") || <i className="text-soft">{t.noText}</i>}
                </span>
                <span className="flex items-center gap-2 font-mono text-xs text-soft">
                  {timecodeAt(caption.start, film.clock)}
                  <span>{t.pace(paceOf(caption, film.rate))}</span>
                  {isFaulty.has(caption) && <TriangleAlert className="size-3 text-warn" aria-label={t.breaksARule} />}
                </span>
              </div>
            );
          })}
        </div>
      </div>
    </div>
  );
}
