import { clsx } from "clsx";
import { ArrowLeftToLine, ArrowRightToLine, Clock, Undo2, X } from "lucide-react";
import { Popover } from "radix-ui";
import { Hint, IconButton } from "~/components/common/button";
import { focusPanel } from "~/components/common/dialog-panel";
import { secondsOver } from "~/core/edits/trim";
import { framesIn, frameToSeconds, rangeKey } from "~/core/time/rate";
import { formatTimecode, timecodeAt } from "~/core/time/timecode";
import { inSeconds, StretchRow } from "./stretch-row";
import { WhatToDrop } from "./what-to-drop";
import { LimitField } from "../dialogs/limit-field";
import { useDesk } from "../state/desk-context";

/** How long the version is, and behind it what of the film it shows. */
export function LengthPanel() {
  const { film, version, kept } = useDesk();
  const over = secondsOver(kept, film.rate, version.limitSeconds);
  const frames = framesIn(kept);
  return (
    <Popover.Root>
      <Hint text="How long the version is: in and out points, dropped stretches, and a length limit">
        <Popover.Trigger
          aria-label="Length of the version"
          className={clsx(
            "flex items-center gap-1.5 rounded-md border px-2 py-1 text-xs hover:border-soft",
            over > 0 ? "border-warn text-warn" : "border-line",
          )}
        >
          <Clock className="size-3.5" aria-hidden />
          <span className="font-mono">{formatTimecode(frames, film.rate)}</span>
          {over > 0 && <span>{over.toFixed(1)} s too long</span>}
        </Popover.Trigger>
      </Hint>
      <Popover.Portal>
        <Popover.Content
          side="top"
          align="end"
          sideOffset={8}
          onOpenAutoFocus={focusPanel}
          // The picture and the lane stay at hand while it is open.
          onInteractOutside={(event) => event.preventDefault()}
          className="z-30 flex max-h-[70vh] w-80 flex-col gap-4 overflow-y-auto rounded-lg border border-line bg-panel p-4 shadow-xl outline-none"
        >
          <div className="flex items-center justify-between">
            <h2 className="font-display font-semibold">Length</h2>
            <Popover.Close asChild>
              <IconButton label="Close">
                <X className="size-4" aria-hidden />
              </IconButton>
            </Popover.Close>
          </div>
          <Summary over={over} frames={frames} />
          <Points />
          <LimitOfVersion />
          <Drops />
          <WhatToDrop />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

function Summary({ over, frames }: { over: number; frames: number }) {
  const { film, version } = useDesk();
  const length = frameToSeconds(frames, film.rate);
  const whole = frameToSeconds(film.frames, film.rate);
  return (
    <p className="text-sm">
      {frames === film.frames
        ? `All of the film, ${inSeconds(whole)}.`
        : `${inSeconds(length)} of ${inSeconds(whole)}.`}{" "}
      {over > 0 && (
        <span role="alert" className="text-warn">
          {inSeconds(over)} over the limit of {version.limitSeconds} s.
        </span>
      )}
    </p>
  );
}

const POINTS = [
  { point: "in", name: "In", hint: "The version begins with the frame under the playhead", shortcut: "I" },
  { point: "out", name: "Out", hint: "The version ends with the frame under the playhead", shortcut: "O" },
] as const;

/** Where the version begins and ends. */
function Points() {
  const { film, player, version, trimEdits } = useDesk();
  const { trim } = version;
  return (
    <dl className="grid grid-cols-[2.5rem_1fr_auto] items-center gap-x-2 gap-y-1 text-sm">
      {POINTS.map(({ point, name, hint, shortcut }) => {
        const at = trim[point];
        // The last frame that is shown, not the first one that is not.
        const frame = at === null ? null : point === "in" ? at : at - 1;
        const Icon = point === "in" ? ArrowLeftToLine : ArrowRightToLine;
        return (
          <div key={point} className="contents">
            <dt className="text-soft">{name}</dt>
            <dd>
              {frame === null ? (
                <span className="text-soft">{point === "in" ? "the film's beginning" : "the film's end"}</span>
              ) : (
                <button
                  type="button"
                  className="rounded-sm bg-well px-1.5 font-mono text-xs hover:bg-line"
                  onClick={() => player?.seek(frame)}
                >
                  {timecodeAt(frame, film.clock)}
                </button>
              )}
            </dd>
            <dd className="flex">
              <IconButton
                label={hint}
                shortcut={shortcut}
                onClick={point === "in" ? trimEdits.setIn : trimEdits.setOut}
              >
                <Icon className="size-4" aria-hidden />
              </IconButton>
              <IconButton
                label={`Remove the ${point} point`}
                shortcut={`Alt ${shortcut}`}
                disabled={at === null}
                onClick={() => trimEdits.clear(point)}
              >
                <X className="size-4" aria-hidden />
              </IconButton>
            </dd>
          </div>
        );
      })}
    </dl>
  );
}

function LimitOfVersion() {
  const { version, versionEdits } = useDesk();
  return (
    <LimitField
      key={version.id}
      limitSeconds={version.limitSeconds}
      onChange={(limitSeconds) => versionEdits.change(version.id, { limitSeconds })}
    />
  );
}

/** The stretches that are dropped, each a way to go there and to bring it back. */
function Drops() {
  const { film, version, trimEdits } = useDesk();
  const { drops } = version.trim;
  return (
    <section aria-label="Dropped">
      <h3 className="text-xs text-soft">Dropped</h3>
      {drops.length === 0 ? (
        <p className="mt-1 text-xs text-soft">
          Nothing. Drag along the strip beside the lane to mark a stretch, or mark it with Shift I and Shift O.
        </p>
      ) : (
        <ul className="mt-1 flex flex-col">
          {drops.map((drop) => (
            <StretchRow key={rangeKey(drop)} stretch={drop}>
              <IconButton
                label={`Bring back ${timecodeAt(drop.start, film.clock)}`}
                onClick={() => trimEdits.keep([drop])}
              >
                <Undo2 className="size-4" aria-hidden />
              </IconButton>
            </StretchRow>
          ))}
        </ul>
      )}
    </section>
  );
}
