import { X } from "lucide-react";
import { Button, Hint, IconButton } from "~/components/common/button";
import { framesIn, rangeLength } from "~/core/time/rate";
import { clipRanges } from "~/core/time/ranges";
import { formatTimecode } from "~/core/time/timecode";
import { useDesk } from "../state/desk-context";
import { useShortcutText } from "../shortcuts/use-shortcut-keys";

/** What can be done with the stretch that is marked in the lane; nothing while none is. */
export function StretchBar() {
  const keysOf = useShortcutText();
  const { film, kept, trimEdits } = useDesk();
  const { stretch, toggleStretch, setStretch } = trimEdits;
  if (!stretch) return null;
  const isShown = framesIn(clipRanges(kept, stretch)) > 0;
  return (
    <div
      role="group"
      aria-label="Marked stretch"
      className="absolute bottom-3 left-1/2 flex -translate-x-1/2 items-center gap-3 rounded-md border border-line bg-raised py-1 pr-1 pl-3 text-sm shadow-lg"
    >
      <span className="font-mono text-xs">{formatTimecode(rangeLength(stretch), film.rate)}</span>
      <Hint
        text={isShown ? "Leaves this stretch out of the version" : "Shows this stretch in the version again"}
        shortcut={keysOf("drop")}
      >
        <Button onClick={toggleStretch}>{isShown ? "Drop this stretch" : "Bring it back"}</Button>
      </Hint>
      <IconButton label="Clear the mark" onClick={() => setStretch(null)}>
        <X className="size-4" aria-hidden />
      </IconButton>
    </div>
  );
}
