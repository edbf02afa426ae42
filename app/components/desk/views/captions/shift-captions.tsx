import { X } from "lucide-react";
import { useState } from "react";
import { Button, IconButton } from "~/components/common/button";
import { NumberField } from "~/components/common/number-field";
import type { Caption } from "~/core/captions/caption";
import { framesPerSecond } from "~/core/time/rate";
import { captionsTexts } from "~/texts/captions";
import { useDesk } from "../../hooks/use-desk";

const t = captionsTexts.shiftCaptions;

interface ShiftCaptionsProps {
  captions: readonly Caption[];
  /** The captions from the selected one on. */
  fromHere: readonly Caption[];
  onClose: () => void;
}

/** Shifts all captions in time, or those from the selected one on. */
export function ShiftCaptions({ captions, fromHere, onClose }: ShiftCaptionsProps) {
  const { film, captionCommands } = useDesk("film", "captionCommands");
  const [seconds, setSeconds] = useState(0);
  const by = Math.round(seconds * framesPerSecond(film.rate));
  return (
    <section aria-label={t.title} className="flex flex-col gap-2 rounded-md border border-line p-2">
      <div className="flex items-end justify-between gap-2">
        <NumberField
          label={t.by}
          unit={t.seconds}
          hint={t.hint}
          value={seconds}
          digits={2}
          step={0.1}
          rest={0}
          canBeNegative
          onCommit={setSeconds}
        />
        <IconButton label={t.close} onClick={onClose}>
          <X className="size-4" aria-hidden />
        </IconButton>
      </div>
      <div className="flex gap-2">
        <Button
          className="grow !px-2 !py-1 text-xs"
          disabled={by === 0}
          onClick={() => captionCommands.shift(captions, by)}
        >
          {t.all}
        </Button>
        <Button
          className="grow !px-2 !py-1 text-xs"
          disabled={by === 0 || fromHere.length === captions.length}
          onClick={() => captionCommands.shift(fromHere, by)}
        >
          {t.fromSelected}
        </Button>
      </div>
    </section>
  );
}
