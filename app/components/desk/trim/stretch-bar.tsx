import { X } from "lucide-react";
import { Button, Hint, IconButton } from "~/components/common/button";
import type { SingleCommand } from "~/core/edits/command";
import { framesIn, inRange, rangeLength } from "~/core/time/rate";
import { clipRanges } from "~/core/time/ranges";
import { formatTimecode } from "~/core/time/timecode";
import { wayOf } from "../reshape/reshaping";
import { useDesk } from "../state/desk-context";
import { useShortcutText } from "../shortcuts/use-shortcut-keys";

const WAYS = [
  { how: "smoothed", name: "Smooth", hint: "Smooths out quick changes in this stretch" },
  { how: "shifted", name: "Shift", hint: "Moves the path aside in this stretch, softly at its ends" },
  { how: "reversed", name: "Reverse", hint: "Reverses the window's move in this stretch" },
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
      aria-label="Marked stretch"
      className="absolute bottom-3 left-1/2 flex w-max max-w-[95%] -translate-x-1/2 flex-wrap items-center gap-2 rounded-md border border-line bg-raised py-1 pr-1 pl-3 text-sm shadow-lg"
    >
      <span className="font-mono text-xs">{formatTimecode(rangeLength(stretch), film.rate)}</span>
      <Hint
        text={isShown ? "Leaves this stretch out of the version" : "Shows this stretch in the version again"}
        shortcut={keysOf("drop")}
      >
        <Button onClick={toggleStretch}>{isShown ? "Drop this stretch" : "Bring it back"}</Button>
      </Hint>
      <Hint text="Deletes your keys in this stretch; the path is computed there again">
        <Button disabled={withKeys.length === 0} onClick={deleteKeys}>
          Delete keys
        </Button>
      </Hint>
      {WAYS.map(({ how, name, hint }) => (
        <Hint key={how} text={hint}>
          <Button onClick={() => reshape.show(wayOf(shots, stretch, how))}>{name}</Button>
        </Hint>
      ))}
      <IconButton label="Clear the mark" onClick={() => setStretch(null)}>
        <X className="size-4" aria-hidden />
      </IconButton>
    </div>
  );
}
