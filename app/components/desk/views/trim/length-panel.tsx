import { clsx } from "clsx";
import { Clock, Undo2 } from "lucide-react";
import { Popover } from "radix-ui";
import { Hint, IconButton } from "~/components/common/button";
import { POINT_ROWS, PointRow } from "~/components/common/point-row";
import { SidePanel } from "~/components/common/side-panel";
import { secondsOver } from "~/core/version/trim";
import { framesIn, frameToSeconds, rangeKey } from "~/core/time/rate";
import { formatTimecode, timecodeAt } from "~/core/time/timecode";
import { inSeconds, RangeRow } from "./range-row";
import { IdleRanges } from "./idle-ranges";
import { LimitField } from "../fields/limit-field";
import { useDesk } from "../../hooks/use-desk";
import { useShortcutText } from "../../hooks/use-shortcut-keys";
import { rangesTexts } from "~/texts/ranges";

const t = rangesTexts.lengthPanel;

/** The version's length; behind it, the ranges it shows. */
export function LengthPanel() {
  const { film, version, kept } = useDesk("film", "version", "kept");
  const over = secondsOver(kept, film.rate, version.limitSeconds);
  const frames = framesIn(kept);
  return (
    <Popover.Root>
      <Hint text={t.lengthHint}>
        <Popover.Trigger
          className={clsx(
            "flex items-center gap-1.5 rounded-md border px-2 py-1 text-xs hover:border-soft",
            over > 0 ? "border-warn text-warn" : "border-line",
          )}
        >
          <Clock className="size-3.5" aria-hidden />
          <span className="sr-only">{t.lengthOfTheVersion} </span>
          <span className="font-mono">{formatTimecode(frames, film.rate)}</span>
          {over > 0 && <span>{t.sTooLong(over)}</span>}
        </Popover.Trigger>
      </Hint>
      <SidePanel title={t.length} width="w-80">
        <Summary over={over} frames={frames} />
        <Points />
        <LimitOfVersion />
        <LeftOut />
        <IdleRanges />
      </SidePanel>
    </Popover.Root>
  );
}

function Summary({ over, frames }: { over: number; frames: number }) {
  const { film, version } = useDesk("film", "version");
  const length = frameToSeconds(frames, film.rate);
  const whole = frameToSeconds(film.frames, film.rate);
  return (
    <p className="text-sm">
      {frames === film.frames ? t.theWholeFilm(inSeconds(whole)) : t.of(inSeconds(length), inSeconds(whole))}{" "}
      {over > 0 && (
        <span role="alert" className="text-warn">
          {t.overTheLimit(inSeconds(over), version.limitSeconds!)}
        </span>
      )}
    </p>
  );
}

const POINTS = [
  { point: "in", hint: t.inHint },
  { point: "out", hint: t.outHint },
] as const;

/** The version's in and out points. */
function Points() {
  const keysOf = useShortcutText();
  const { film, player, version, rangeCommands } = useDesk("film", "player", "version", "rangeCommands");
  const { trim } = version;
  return (
    <dl className={POINT_ROWS}>
      {POINTS.map(({ point, hint }) => {
        const at = trim[point];
        // The last frame shown, and not the first one after it.
        const frame = at === null ? null : point === "in" ? at : at - 1;
        return (
          <PointRow
            key={point}
            point={point}
            timecode={frame === null ? null : timecodeAt(frame, film.clock)}
            unset={point === "in" ? t.theFilmsBeginning : t.theFilmsEnd}
            hint={hint}
            shortcut={keysOf(point)}
            clearHint={t.removeThePoint(point)}
            clearShortcut={keysOf(`clear-${point}`)}
            onSeek={() => player?.seek(frame!)}
            onSet={point === "in" ? rangeCommands.setIn : rangeCommands.setOut}
            onClear={() => rangeCommands.clear(point)}
          />
        );
      })}
    </dl>
  );
}

function LimitOfVersion() {
  const { version, versionCommands } = useDesk("version", "versionCommands");
  return (
    <LimitField
      key={version.id}
      limitSeconds={version.limitSeconds}
      onChange={(limitSeconds) => versionCommands.change(version.id, { limitSeconds })}
    />
  );
}

/** The ranges left out, each with a link to it and a way to bring it back. */
function LeftOut() {
  const { film, version, rangeCommands } = useDesk("film", "version", "rangeCommands");
  const { leftOut } = version.trim;
  return (
    <section aria-label={t.leftOut}>
      <h3 className="text-xs text-soft">{t.leftOut}</h3>
      {leftOut.length === 0 ? (
        <p className="mt-1 text-xs text-soft">{t.nothingLeftOut}</p>
      ) : (
        <ul className="mt-1 flex flex-col">
          {leftOut.map((range) => (
            <RangeRow key={rangeKey(range)} range={range}>
              <IconButton
                label={t.bringBack(timecodeAt(range.start, film.clock))}
                onClick={() => rangeCommands.bringBack([range])}
              >
                <Undo2 className="size-4" aria-hidden />
              </IconButton>
            </RangeRow>
          ))}
        </ul>
      )}
    </section>
  );
}
