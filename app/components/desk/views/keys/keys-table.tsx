import { clamped } from "~/core/numbers/clamped";
import {
  createColumnHelper,
  flexRender,
  getCoreRowModel,
  getSortedRowModel,
  type SortingState,
  useReactTable,
} from "@tanstack/react-table";
import { clsx } from "clsx";
import { ArrowDown, ArrowUp } from "lucide-react";
import { useMemo, useState } from "react";
import { TickBox } from "~/components/common/tick-box";
import { type CropWindow, largestWindowHeight } from "~/core/geometry/crop-window";
import { MAX_ZOOM } from "~/core/path/framing-settings";
import type { Easing } from "~/core/path/easing";
import type { Key } from "~/core/path/keys";
import { activeArea } from "~/core/shots/shot";
import { timecodeAt } from "~/core/time/timecode";
import { easingName } from "../fields/key-easing";
import { windowAspect } from "../../model/windows";
import { useFrame } from "../../hooks/use-player";
import { useDesk } from "../../hooks/use-desk";
import type { DeskShot } from "../../model/desk-types";
import { keysTexts } from "~/texts/keys";

const t = keysTexts.keysTable;

interface Row extends Key {
  zoom: number;
  goesOn: Easing | null;
}
const column = createColumnHelper<Row>();

const COLUMNS = [
  column.accessor("frame", { header: t.time }),
  column.accessor("x", { header: "x" }),
  column.accessor("y", { header: "y" }),
  column.accessor("zoom", { header: t.zoom }),
  column.accessor(({ goesOn }) => easingName(goesOn), { id: "easing", header: t.easing }),
];

interface KeysTableProps {
  shot: DeskShot;
  /** Frames of the hand keys that are ticked. */
  selected: ReadonlySet<number>;
  onSelect: (frames: ReadonlySet<number>) => void;
}

/** A shot's keyframes in figures, sortable by each column; hand keys can be ticked and changed. */
export function KeysTable({ shot, selected, onSelect }: KeysTableProps) {
  const { film, version, player, keyCommands } = useDesk("film", "version", "player", "keyCommands");
  const here = useFrame(player);
  const [sorting, setSorting] = useState<SortingState>([{ id: "frame", desc: false }]);
  const largest = largestWindowHeight(activeArea(shot, film.picture), windowAspect(shot, film.picture, version));
  const keys = shot.framed?.keys;
  const { handKeys } = shot;
  const rows = useMemo(
    () =>
      (keys ?? []).map((key): Row => {
        // The easing of a hand key is the one set, and not the solved one.
        const hand = key.by === "hand" ? handKeys.find(({ frame }) => frame === key.frame) : undefined;
        return { ...key, zoom: largest / key.height, goesOn: hand ? hand.easing : key.easing };
      }),
    [keys, handKeys, largest],
  );
  const table = useReactTable({
    data: rows,
    columns: COLUMNS,
    state: { sorting },
    sortDescFirst: false,
    enableSortingRemoval: false,
    onSortingChange: setSorting,
    getCoreRowModel: getCoreRowModel(),
    getSortedRowModel: getSortedRowModel(),
  });
  const own = rows.filter(({ by }) => by === "hand").map(({ frame }) => frame);
  const tick = (frame: number, isTicked: boolean) =>
    onSelect(new Set(isTicked ? [...selected, frame] : [...selected].filter((other) => other !== frame)));
  const set = ({ frame, x, y, height }: Row, change: Partial<CropWindow>) =>
    keyCommands.place(frame, { x, y, height, ...change });
  return (
    <table className="w-full border-collapse text-xs">
      <thead>
        {table.getHeaderGroups().map((group) => (
          <tr key={group.id} className="text-left text-soft">
            <th className="w-5 py-1">
              <label>
                <span className="sr-only">{t.selectAll}</span>
                <TickBox
                  checked={own.length > 0 && own.every((frame) => selected.has(frame))}
                  onChange={(all) => onSelect(new Set(all ? own : []))}
                />
              </label>
            </th>
            {group.headers.map((header) => {
              const sorted = header.column.getIsSorted();
              return (
                <th
                  key={header.id}
                  aria-sort={sorted === "asc" ? "ascending" : sorted === "desc" ? "descending" : "none"}
                  className="py-1 font-normal"
                >
                  <button
                    type="button"
                    onClick={header.column.getToggleSortingHandler()}
                    className="flex items-center gap-0.5 hover:text-ink"
                  >
                    {flexRender(header.column.columnDef.header, header.getContext())}
                    {sorted === "asc" && <ArrowUp className="size-3" aria-hidden />}
                    {sorted === "desc" && <ArrowDown className="size-3" aria-hidden />}
                  </button>
                </th>
              );
            })}
          </tr>
        ))}
      </thead>
      <tbody>
        {table.getRowModel().rows.map(({ original: key }) => {
          const time = timecodeAt(key.frame, film.clock);
          const isOwn = key.by === "hand";
          return (
            <tr
              key={`${key.frame} ${key.by}`}
              aria-current={key.frame === here ? "true" : undefined}
              className={clsx("border-t border-line aria-[current]:bg-accent-wash", !isOwn && "text-soft")}
            >
              <td className="py-1 pr-1.5">
                {isOwn ? (
                  <label>
                    <span className="sr-only">{t.selectKeyframe(time)}</span>
                    <TickBox checked={selected.has(key.frame)} onChange={(is) => tick(key.frame, is)} />
                  </label>
                ) : (
                  <span title={t.computed}>○</span>
                )}
              </td>
              <td>
                <button
                  type="button"
                  title={t.frame(key.frame)}
                  onClick={() => player?.seek(key.frame)}
                  className="font-mono whitespace-nowrap hover:underline"
                >
                  {time}
                </button>
              </td>
              {isOwn ? (
                <>
                  <Figure label={t.xAt(time)} value={key.x} digits={0} onCommit={(x) => set(key, { x })} />
                  <Figure label={t.yAt(time)} value={key.y} digits={0} onCommit={(y) => set(key, { y })} />
                  <Figure
                    label={t.zoomAt(time)}
                    value={key.zoom}
                    digits={2}
                    onCommit={(zoom) => set(key, { height: largest / clamped(zoom, 1, MAX_ZOOM) })}
                  />
                </>
              ) : (
                [key.x.toFixed(0), key.y.toFixed(0), key.zoom.toFixed(2)].map((text, i) => (
                  <td key={i} className="px-1 tabular-nums">
                    {text}
                  </td>
                ))
              )}
              <td className="max-w-16 truncate" title={easingName(key.goesOn)}>
                {easingName(key.goesOn)}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

interface FigureProps {
  label: string;
  value: number;
  digits: number;
  onCommit: (value: number) => void;
}

/** A figure of a keyframe, committed on Enter or when the field is left. */
function Figure({ label, value, digits, onCommit }: FigureProps) {
  const shown = value.toFixed(digits);
  return (
    <td>
      <input
        key={shown}
        aria-label={label}
        inputMode="decimal"
        defaultValue={shown}
        onKeyDown={({ key, currentTarget }) => {
          if (key === "Enter") currentTarget.blur();
          if (key === "Escape") currentTarget.value = shown;
        }}
        onBlur={({ target }) => {
          const typed = Number(target.value);
          if (target.value === shown) return;
          if (target.value.trim() !== "" && Number.isFinite(typed)) onCommit(typed);
          else target.value = shown;
        }}
        className="w-11 rounded-sm border border-transparent bg-transparent px-1 tabular-nums hover:border-line focus:border-line focus:bg-raised"
      />
    </td>
  );
}
