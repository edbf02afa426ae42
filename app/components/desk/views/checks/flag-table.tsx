import { useVirtualizer } from "@tanstack/react-virtual";
import { clsx } from "clsx";
import { useMemo, useRef } from "react";
import { Letter } from "~/components/common/letter";
import { TickBox } from "~/components/common/tick-box";
import { cutOut } from "~/core/composition/composition";
import { wholeOf, type Size } from "~/core/geometry/box";
import { timecodeAt } from "~/core/time/timecode";
import { type Still, useStills } from "../../frames/use-stills";
import { useDesk } from "../../hooks/use-desk";
import { followedIn } from "../../model/desk-types";
import type { FlagRow } from "../../model/checks";
import { WindowOutline } from "./window-outline";
import { checksTexts } from "~/texts/checks";

const t = checksTexts.flagTable;

/** Height of a row in pixels, which must be known before a row is drawn. */
const ROW_HEIGHT = 92;
const PICTURE_HEIGHT = 76;
const COLUMNS = "grid grid-cols-[9.5rem_5.5rem_minmax(0,1fr)_5.5rem_3rem] items-center gap-3 px-4";

/** Size of a small picture in a column of some width. */
const fitted = ({ width, height }: Size, mostWidth: number): Size => {
  const scale = Math.min(PICTURE_HEIGHT / height, mostWidth / width);
  return { width: Math.round(scale * width), height: Math.round(scale * height) };
};
const FILM_WIDTH = 136;
const VERSION_WIDTH = 88;

/** A row per flag: the film with the window, the version's frame, place, reason, severity, and whether it was reviewed. */
export function FlagTable() {
  const { checks, film, version, source, shownAt } = useDesk("checks", "film", "version", "source", "shownAt");
  const { rows, current, go, mark } = checks;
  const scroller = useRef<HTMLDivElement>(null);
  const list = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW_HEIGHT,
    getItemKey: (index) => rows[index]!.print,
    overscan: 3,
  });
  const items = list.getVirtualItems();
  const [first, last] = [items[0]?.index ?? 0, items.at(-1)?.index ?? -1];
  const whole = fitted(film.picture, FILM_WIDTH);
  const framed = fitted(version, VERSION_WIDTH);
  const stills = useMemo(
    () =>
      rows.slice(first, last + 1).flatMap(({ print, frame }): Still[] => [
        { id: `film ${print}`, frame, shown: cutOut(wholeOf(film.picture)), size: fitted(film.picture, FILM_WIDTH) },
        { id: `version ${print}`, frame, shown: shownAt(frame), size: fitted(version, VERSION_WIDTH) },
      ]),
    [rows, first, last, film.picture, version, shownAt],
  );
  const pictures = useStills(source, stills, film.picture);
  return (
    <div
      className="flex min-h-0 grow flex-col"
      role="table"
      aria-label={checksTexts.checkView.flagList}
      aria-rowcount={rows.length + 1}
    >
      <div role="row" className={clsx(COLUMNS, "border-b border-line py-1 text-xs text-soft")}>
        <span role="columnheader">{t.film}</span>
        <span role="columnheader">{t.version}</span>
        <span role="columnheader">{t.reason}</span>
        <span role="columnheader">{t.howBad}</span>
        <span role="columnheader">{t.seen}</span>
      </div>
      <div ref={scroller} role="rowgroup" className="min-h-0 grow overflow-y-auto">
        <div className="relative" style={{ height: list.getTotalSize() }}>
          {items.map(({ key, index, start }) => {
            const row = rows[index]!;
            const place = timecodeAt(row.frame, film.clock);
            return (
              <div
                key={key}
                role="row"
                aria-rowindex={index + 2}
                aria-current={row.print === current ? "true" : undefined}
                style={{ height: ROW_HEIGHT, transform: `translateY(${start}px)` }}
                className={clsx(
                  COLUMNS,
                  "absolute inset-x-0 top-0 border-b border-line aria-[current]:bg-accent-wash",
                  row.isReviewed && "text-soft",
                )}
              >
                <span role="cell">
                  <button
                    type="button"
                    aria-label={t.goTo(place)}
                    onClick={() => go(row)}
                    className="relative block bg-well"
                    style={whole}
                  >
                    <Picture url={pictures.get(`film ${row.print}`)} alt={t.ofTheFilm(place)} />
                    <WindowOutline panes={shownAt(row.frame).panes} picture={film.picture} />
                  </button>
                </span>
                <span role="cell">
                  <span className="block bg-well" style={framed}>
                    <Picture url={pictures.get(`version ${row.print}`)} alt={t.ofTheVersion(place)} />
                  </span>
                </span>
                <span role="cell" className="min-w-0">
                  <button type="button" onClick={() => go(row)} className="block text-left text-sm hover:underline">
                    {row.text}
                  </button>
                  <span className="flex items-center gap-2 text-xs text-soft">
                    <span className="font-mono">{place}</span>
                    <ShotOf row={row} />
                  </span>
                </span>
                <span role="cell" title={t.severity(row.severity)} className="block h-1.5 rounded-full bg-well">
                  <span className="block h-full rounded-full bg-warn" style={{ width: `${row.severity}%` }} />
                  <span className="sr-only">{t.severity(row.severity)}</span>
                </span>
                <span role="cell">
                  <label>
                    <span className="sr-only">{t.reviewedAt(place)}</span>
                    <TickBox checked={row.isReviewed} onChange={(isReviewed) => mark([row], isReviewed)} />
                  </label>
                </span>
              </div>
            );
          })}
        </div>
      </div>
    </div>
  );
}

const Picture = ({ url, alt }: { url: string | undefined; alt: string }) =>
  url ? <img src={url} alt={alt} className="size-full" /> : null;

function ShotOf({ row: { shot } }: { row: FlagRow }) {
  const followed = followedIn(shot);
  return (
    <span className="flex min-w-0 items-center gap-1.5">
      {t.shot(shot.number)}
      {followed && <Letter {...followed} />}
      {shot.name && <span className="truncate">{shot.name}</span>}
    </span>
  );
}
