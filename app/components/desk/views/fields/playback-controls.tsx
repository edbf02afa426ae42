import { NumberField } from "~/components/common/number-field";
import { TickBox } from "~/components/common/tick-box";
import { type Picture, type Playback, SPEEDS } from "~/core/composition/picture";
import { framesPerSecond } from "~/core/time/rate";
import { inspectorTexts } from "~/texts/inspector";

const t = inspectorTexts.playbackControls;

interface PlaybackControlsProps {
  picture: Picture;
  playback: Playback;
  onChange: (playback: Playback) => void;
}

/** Playback of a moving picture; nothing for a still one. */
export function PlaybackControls({ picture: { moving }, playback, onChange }: PlaybackControlsProps) {
  if (!moving) return null;
  const fps = framesPerSecond(moving.rate);
  const last = moving.frames - 1;
  return (
    <>
      <div className="grid grid-cols-2 gap-2">
        <NumberField
          label={t.inPoint}
          unit={t.s}
          hint={t.inPointHint(moving.frames / fps)}
          value={playback.from / fps}
          digits={2}
          onCommit={(seconds) =>
            onChange({ ...playback, from: Math.max(0, Math.min(last, Math.round(seconds * fps))) })
          }
        />
        <NumberField
          label={t.speed}
          unit="%"
          value={100 * playback.speed}
          onCommit={(percent) =>
            onChange({ ...playback, speed: Math.max(SPEEDS[0], Math.min(SPEEDS[1], percent / 100)) })
          }
        />
      </div>
      <label className="flex items-center gap-2 text-xs text-soft">
        <TickBox checked={playback.loops} onChange={(loops) => onChange({ ...playback, loops })} />
        {t.loop}
      </label>
    </>
  );
}
