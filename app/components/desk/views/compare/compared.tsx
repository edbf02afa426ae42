import { clsx } from "clsx";
import { useState } from "react";
import type { Size } from "~/core/geometry/box";
import { ComposedCanvas } from "../../frames/composed-canvas";
import { arrange, fitInto } from "../../frames/fit";
import { useDesk } from "../../hooks/use-desk";
import { type Comparison, isSameShape, type Side } from "../../model/comparison";
import { SideCanvas } from "./side-canvas";
import { SplitLine } from "./split-line";
import { useSides } from "./use-sides";
import { compareTexts } from "~/texts/compare";

const t = compareTexts.compared;

/** Pixels between two results, and above each for its name. */
const GAP = 12;
const NAME_HEIGHT = 20;

/** The version beside its comparison, always at the same frame. */
export function Compared({ comparison, room }: { comparison: Comparison; room: Size }) {
  const { version, look } = useDesk("version", "look");
  const sides = useSides(comparison);
  const [side] = sides;
  if (!side) {
    return <p className="text-sm text-soft">{t.versionNotInState}</p>;
  }
  if (look.comparisonView === "beside" || !isSameShape(version, side.size)) return <Beside sides={sides} room={room} />;
  return <Over side={side} room={room} />;
}

const Name = ({ text, className }: { text: string; className?: string }) => (
  <span className={clsx("block truncate text-xs", className)} style={{ height: NAME_HEIGHT }}>
    {text}
  </span>
);

function Beside({ sides, room }: { sides: readonly Side[]; room: Size }) {
  const { version, shownAt, look } = useDesk("version", "shownAt", "look");
  const shapes = [version, ...sides.map(({ size }) => size)];
  const { isRow, sizes } = arrange(shapes, { width: room.width, height: room.height - NAME_HEIGHT * 2 }, GAP);
  const own = look.comparison?.kind === "versions" ? version.name : t.now;
  return (
    <div className={clsx("flex items-center justify-center", isRow ? "flex-row" : "flex-col")} style={{ gap: GAP }}>
      <div>
        <Name text={own} className="font-semibold" />
        <ComposedCanvas label={t.whatShows(version.name)} shownAt={shownAt} size={sizes[0]!} />
      </div>
      {sides.map((side, i) => (
        <div key={side.key}>
          <Name text={side.name} />
          <SideCanvas side={side} size={sizes[i + 1]!} />
        </div>
      ))}
    </div>
  );
}

/** One over the other: split by a line, or one at a time. */
function Over({ side, room }: { side: Side; room: Size }) {
  const { version, shownAt, look } = useDesk("version", "shownAt", "look");
  const { comparisonView, showsOther } = look;
  const [share, setShare] = useState(0.5);
  const size = fitInto(version, { width: room.width, height: room.height - NAME_HEIGHT });
  const isSplit = comparisonView === "split";
  const covered = isSplit ? share : showsOther ? 1 : 0;
  return (
    <div>
      <div className="flex justify-between" style={{ width: size.width }}>
        {(isSplit || showsOther) && <Name text={side.name} />}
        {(isSplit || !showsOther) && <Name text={t.now} className="ml-auto font-semibold" />}
      </div>
      <div className="relative" style={size}>
        <ComposedCanvas label={t.whatShows(version.name)} shownAt={shownAt} size={size} />
        <div className="absolute inset-0" style={{ clipPath: `inset(0 ${100 * (1 - covered)}% 0 0)` }}>
          <SideCanvas side={side} size={size} />
        </div>
        {isSplit && <SplitLine share={share} width={size.width} onChange={setShare} />}
      </div>
    </div>
  );
}
