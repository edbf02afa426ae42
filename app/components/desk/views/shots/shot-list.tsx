import { useVirtualizer } from "@tanstack/react-virtual";
import { useEffect, useMemo, useRef, useState } from "react";
import { SearchField } from "~/components/common/search-field";
import { wordsOf } from "~/core/subjects/tracking/track";
import { counted } from "~/texts/numbers";
import type { DeskShot } from "../../model/desk-types";
import { SHOT_FILTERS, type ShotFilter, ShotFilterMenu } from "./shot-filter";
import { ShotRow } from "./shot-row";
import { useShotToEdit } from "../../hooks/use-player";
import { useDesk } from "../../hooks/use-desk";
import { useShotPictures } from "./use-shot-pictures";
import { deskTexts } from "~/texts/desk";

const t = deskTexts.shotList;

/** Height of a row in pixels, which must be known before a row is drawn. */
const ROW_HEIGHT = 71;

/** Whether a text in a shot has some words in it, in capitals or not. */
const saysIn = ({ tracks }: DeskShot, words: string): boolean =>
  tracks.some((track) => (wordsOf(track) ?? "").toLowerCase().includes(words.trim().toLowerCase()));

/** The list of shots, each with a picture of the version. Only visible rows are drawn. */
export function ShotList() {
  const { player, shots, selection, film, state, aspect, source, waitFor, version, layered } = useDesk(
    "player",
    "shots",
    "selection",
    "film",
    "state",
    "aspect",
    "source",
    "waitFor",
    "version",
    "layered",
  );
  const { rate, picture } = film;
  const [filter, setFilter] = useState<ShotFilter>("all");
  const [words, setWords] = useState("");
  const scroller = useRef<HTMLDivElement>(null);
  const current = useShotToEdit(player, shots);
  const shown = useMemo(
    () => shots.filter((shot) => SHOT_FILTERS[filter].test(shot) && (filter !== "text" || saysIn(shot, words))),
    [shots, filter, words],
  );
  const clipAt = useMemo(() => new Map(state.clips.map(({ start, name }) => [start, name])), [state.clips]);
  const rows = useVirtualizer({
    count: shown.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW_HEIGHT,
    getItemKey: (index) => shown[index]!.id,
    overscan: 4,
  });
  const items = rows.getVirtualItems();
  const first = items[0]?.index ?? 0;
  const last = items.at(-1)?.index ?? -1;
  const inSight = useMemo(() => shown.slice(first, last + 1), [shown, first, last]);
  const pictures = useShotPictures(source, inSight, picture, aspect, version.layers.length > 0 ? layered : null);
  const index = current ? shown.indexOf(current) : -1;
  const awaited = [...(current ? [current] : []), ...inSight].map(({ id }) => id).join(" ");
  useEffect(() => waitFor(awaited.split(" ")), [waitFor, awaited]);
  useEffect(() => {
    if (index >= 0) rows.scrollToIndex(index, { align: "auto" });
  }, [index, rows]);

  const open = (shot: DeskShot | undefined, extend: boolean) => {
    if (!shot) return;
    if (extend) selection.extend(shot.id, shown);
    else selection.only(shot.id);
    player?.pause();
    player?.seek(shot.start);
  };
  const onKeyDown = (event: React.KeyboardEvent) => {
    // Keys may repeat faster than pictures load: steps count from where the playhead is going.
    const from = shown.findLastIndex(({ start }) => start <= (player?.getTarget() ?? 0));
    const actions: Record<string, () => void> = {
      ArrowDown: () => open(shown[Math.min(shown.length - 1, from + 1)], event.shiftKey),
      ArrowUp: () => open(shown[Math.max(0, from - 1)], event.shiftKey),
      Escape: selection.clear,
    };
    const action =
      event.key === "a" && (event.ctrlKey || event.metaKey) ? () => selection.all(shown) : actions[event.key];
    if (!action) return;
    event.preventDefault();
    event.stopPropagation();
    action();
  };

  return (
    <div className="flex min-h-0 grow flex-col">
      <div className="flex items-center justify-between border-b border-line py-0.5 pr-1 pl-3">
        <h2 className="text-xs text-soft">
          {filter === "all" ? counted(shots.length, "shot") : t.of(shown.length, shots.length)}
        </h2>
        <ShotFilterMenu shots={shots} value={filter} onChange={setFilter} />
      </div>
      {filter === "text" && (
        <div className="border-b border-line p-2">
          <SearchField label={t.wordsInThePicture} value={words} onChange={setWords} className="w-full" />
        </div>
      )}
      <div
        ref={scroller}
        role="listbox"
        aria-label={t.shots}
        aria-multiselectable
        aria-activedescendant={index >= 0 ? `shot-${current!.id}` : undefined}
        tabIndex={0}
        onKeyDown={onKeyDown}
        className="min-h-0 grow overflow-y-auto outline-offset-[-2px] select-none"
      >
        {shown.length === 0 && shots.length > 0 && <p className="px-3 py-3 text-xs text-soft">{t.noMatches}</p>}
        <div role="presentation" className="relative" style={{ height: rows.getTotalSize() }}>
          {items.map((item) => {
            const shot = shown[item.index]!;
            return (
              <ShotRow
                key={shot.id}
                shot={shot}
                clip={clipAt.get(shot.start)}
                top={item.start}
                height={ROW_HEIGHT}
                position={item.index + 1}
                count={shown.length}
                current={shot.id === current?.id}
                selected={selection.ids.has(shot.id)}
                rate={rate}
                aspect={aspect}
                picture={pictures.get(shot.id)}
                onOpen={({ shiftKey, ctrlKey, metaKey }) =>
                  ctrlKey || metaKey ? selection.toggle(shot.id) : open(shot, shiftKey)
                }
              />
            );
          })}
        </div>
      </div>
    </div>
  );
}
