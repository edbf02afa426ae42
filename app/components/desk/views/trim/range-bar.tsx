import { X } from "lucide-react";
import { Button, Hint, IconButton } from "~/components/common/button";
import { TimecodeField } from "~/components/common/timecode-field";
import type { SingleCommand } from "~/core/edits/command";
import { framesIn, inRange, rangeLength } from "~/core/time/rate";
import { clipRanges } from "~/core/time/ranges";
import { formatTimecode } from "~/core/time/timecode";
import { wayOf } from "../../model/reshaping";
import { useDesk } from "../../hooks/use-desk";
import { useShortcutText } from "../../hooks/use-shortcut-keys";
import { rangesTexts } from "~/texts/ranges";

const t = rangesTexts.rangeBar;

const WAYS = [
  { how: "smoothed", name: t.smooth, hint: t.smoothHint },
  { how: "shifted", name: t.shift, hint: t.shiftHint },
  { how: "reversed", name: t.reverse, hint: t.reverseHint },
] as const;

/** Commands on the range marked in the lane; nothing while there is none. */
export function RangeBar() {
  const keysOf = useShortcutText();
  const { film, kept, shots, version, edits, rangeCommands, reshape } = useDesk(
    "film",
    "kept",
    "shots",
    "version",
    "edits",
    "rangeCommands",
    "reshape",
  );
  const { marked: range, toggleRange, markRange } = rangeCommands;
  if (!range) return null;
  const withKeys = shots.filter(({ handKeys }) => handKeys.some(({ frame }) => inRange(frame, range)));
  const deleteKeys = () => {
    const commands = withKeys.map(({ pane }): SingleCommand => ({
      type: "replace-keys",
      versionId: version.id,
      pane,
      range,
      keys: [],
      how: "deleted",
    }));
    edits.send({ type: "batch", commands });
  };
  const isShown = framesIn(clipRanges(kept, range)) > 0;
  return (
    <div
      role="group"
      aria-label={t.markedRange}
      className="absolute bottom-3 left-1/2 flex w-max max-w-[95%] -translate-x-1/2 flex-wrap items-center gap-2 rounded-md border border-line bg-raised py-1 pr-1 pl-3 text-sm shadow-lg"
    >
      <span className="flex items-center gap-1 text-xs">
        <TimecodeField
          label={t.firstFrame}
          frame={range.start}
          clock={film.clock}
          most={range.end - 1}
          className="w-24 px-1.5 py-1"
          onCommit={(start) => markRange({ ...range, start })}
        />
        <TimecodeField
          label={t.lastFrame}
          frame={range.end - 1}
          clock={film.clock}
          least={range.start}
          most={film.frames - 1}
          className="w-24 px-1.5 py-1"
          onCommit={(last) => markRange({ ...range, end: last + 1 })}
        />
        <span className="font-mono">{formatTimecode(rangeLength(range), film.rate)}</span>
      </span>
      <Hint text={isShown ? t.leaveOutHint : t.bringBackHint} shortcut={keysOf("leave-out")}>
        <Button onClick={toggleRange}>{isShown ? t.leaveOut : t.bringItBack}</Button>
      </Hint>
      <Hint text={t.deleteHint}>
        <Button disabled={withKeys.length === 0} onClick={deleteKeys}>
          {t.deleteKeys}
        </Button>
      </Hint>
      {WAYS.map(({ how, name, hint }) => (
        <Hint key={how} text={hint}>
          <Button onClick={() => reshape.show(wayOf(shots, range, how))}>{name}</Button>
        </Hint>
      ))}
      <IconButton label={t.clearRange} onClick={() => markRange(null)}>
        <X className="size-4" aria-hidden />
      </IconButton>
    </div>
  );
}
