import { X } from "lucide-react";
import { Button, Hint, IconButton } from "~/components/common/button";
import { TimecodeField } from "~/components/common/timecode-field";
import type { SingleCommand } from "~/core/edits/command";
import { framesIn, inRange, rangeLength } from "~/core/time/rate";
import { clipRanges } from "~/core/time/ranges";
import { formatTimecode } from "~/core/time/timecode";
import { wayOf } from "../reshape/reshaping";
import { useDesk } from "../state/desk-context";
import { useShortcutText } from "../shortcuts/use-shortcut-keys";
import { stretchesTexts } from "~/texts/stretches";

const t = stretchesTexts.stretchBar;

const WAYS = [
  { how: "smoothed", name: t.smooth, hint: t.smoothHint },
  { how: "shifted", name: t.shift, hint: t.shiftHint },
  { how: "reversed", name: t.reverse, hint: t.reverseHint },
] as const;

/** What can be done with the stretch that is marked in the lane; nothing while none is. */
export function StretchBar() {
  const keysOf = useShortcutText();
  const { film, kept, shots, version, edits, trimEdits, reshape } = useDesk();
  const { stretch, toggleStretch, setStretch } = trimEdits;
  if (!stretch) return null;
  const withKeys = shots.filter(({ handKeys }) => handKeys.some(({ frame }) => inRange(frame, stretch)));
  const deleteKeys = () => {
    const commands = withKeys.map(({ pane }): SingleCommand => ({
      ...{ type: "replace-keys", versionId: version.id, pane, range: stretch, keys: [], how: "deleted" },
    }));
    edits.send({ type: "batch", commands });
  };
  const isShown = framesIn(clipRanges(kept, stretch)) > 0;
  return (
    <div
      role="group"
      aria-label={t.markedStretch}
      className="absolute bottom-3 left-1/2 flex w-max max-w-[95%] -translate-x-1/2 flex-wrap items-center gap-2 rounded-md border border-line bg-raised py-1 pr-1 pl-3 text-sm shadow-lg"
    >
      <span className="flex items-center gap-1 text-xs">
        <TimecodeField
          label={t.firstFrame}
          frame={stretch.start}
          clock={film.clock}
          most={stretch.end - 1}
          className="w-24 px-1.5 py-1"
          onCommit={(start) => setStretch({ ...stretch, start })}
        />
        <TimecodeField
          label={t.lastFrame}
          frame={stretch.end - 1}
          clock={film.clock}
          least={stretch.start}
          most={film.frames - 1}
          className="w-24 px-1.5 py-1"
          onCommit={(last) => setStretch({ ...stretch, end: last + 1 })}
        />
        <span className="font-mono">{formatTimecode(rangeLength(stretch), film.rate)}</span>
      </span>
      <Hint text={isShown ? t.leaveOutHint : t.bringBackHint} shortcut={keysOf("drop")}>
        <Button onClick={toggleStretch}>{isShown ? t.leaveOut : t.bringItBack}</Button>
      </Hint>
      <Hint text={t.deleteHint}>
        <Button disabled={withKeys.length === 0} onClick={deleteKeys}>
          {t.deleteKeys}
        </Button>
      </Hint>
      {WAYS.map(({ how, name, hint }) => (
        <Hint key={how} text={hint}>
          <Button onClick={() => reshape.show(wayOf(shots, stretch, how))}>{name}</Button>
        </Hint>
      ))}
      <IconButton label={t.clearRange} onClick={() => setStretch(null)}>
        <X className="size-4" aria-hidden />
      </IconButton>
    </div>
  );
}
