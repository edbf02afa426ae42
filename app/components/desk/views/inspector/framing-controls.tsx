import { clamped } from "~/core/numbers/clamped";
import { type SelectItem, SelectMenu } from "~/components/common/select-menu";
import {
  type FramingChange,
  type FramingSettings,
  MOST_SCALE,
  MAX_ZOOM,
  USUAL_FRAMING,
  type Zoom,
} from "~/core/path/framing-settings";
import { AimControls } from "./aim-controls";
import { CalmSlider } from "../fields/calm-slider";
import { MovementChoice } from "../fields/movement-choice";
import { NumberField } from "~/components/common/number-field";
import { inspectorTexts } from "~/texts/inspector";

const t = inspectorTexts.framingControls;

interface FramingControlsProps {
  /** The settings; of several shots, those they share. */
  settings: Partial<FramingSettings>;
  /** How the window moves and why, where that was decided automatically. */
  reason?: string | null;
  /** Strongest zoom that stays within a scale. */
  bears: (largestScale: number) => number;
  onChange: (change: FramingChange) => void;
}

const ZOOMS: SelectItem[] = [
  { value: "full", text: t.asLargeAsFits, hint: t.largestHint },
  { value: "fixed", text: t.fixed, hint: t.fixedHint },
  { value: "free", text: t.freeWithinLimits, hint: t.freeHint },
];
/** First zoom of each kind. */
const FIRST_ZOOM: Record<string, Zoom> = {
  full: USUAL_FRAMING.zoom,
  fixed: { kind: "fixed", factor: 1.25 },
  free: { kind: "free", min: 1, max: 1.5 },
};

const kindOf = (zoom: Zoom): string => (zoom.kind === "free" ? "free" : zoom.factor === 1 ? "full" : "fixed");

/** Movement, calmness and zoom of the window in a shot. */
export function FramingControls({ settings, reason, bears, onChange }: FramingControlsProps) {
  const { movement, calm = USUAL_FRAMING.calm, zoom, headroom, largestScale } = settings;
  return (
    <section aria-label={t.movement} className="flex flex-col gap-2">
      <div className="flex items-baseline justify-between gap-2 text-xs text-soft">
        <span>{t.movement}</span>
        {reason && <span aria-label={t.movementAndReason}>{reason}</span>}
      </div>
      <MovementChoice movement={movement ?? null} onChange={(value) => onChange({ movement: value })} />
      <CalmSlider label={t.calmness} calm={calm} onChange={(value) => onChange({ calm: value })} />
      <div className="flex items-center justify-between gap-2">
        <span className="text-xs text-soft">{t.zoom}</span>
        <SelectMenu
          label={t.zoom}
          placeholder={t.mixed}
          items={ZOOMS}
          value={zoom ? kindOf(zoom) : ""}
          onChange={(kind) => onChange({ zoom: FIRST_ZOOM[kind]! })}
        />
      </div>
      {zoom && <ZoomNumbers zoom={zoom} onChange={(value) => onChange({ zoom: value })} />}
      {zoom?.kind === "free" && largestScale !== undefined && (
        <FreeZoomEnd most={zoom.max} bears={bears(largestScale)} largestScale={largestScale} />
      )}
      {zoom && kindOf(zoom) !== "full" && (
        <div className="grid grid-cols-2 gap-2">
          {headroom !== undefined && (
            <NumberField
              label={t.headroom}
              unit="%"
              hint={t.headroomHint}
              value={headroom}
              onCommit={(value) => onChange({ headroom: clamped(value, 0, 40) })}
            />
          )}
          {largestScale !== undefined && (
            <NumberField
              label={t.largestScale}
              unit={t.times}
              hint={t.scaleHint}
              value={Math.round(100 * largestScale)}
              onCommit={(value) => onChange({ largestScale: clamped(value / 100, 1, MOST_SCALE) })}
            />
          )}
        </div>
      )}
      <AimControls settings={settings} onChange={onChange} />
    </section>
  );
}

/** Where the scale limits a free zoom. */
function FreeZoomEnd({ most, bears, largestScale }: { most: number; bears: number; largestScale: number }) {
  if (bears >= most) return null;
  const end = bears > 1 ? t.stopsAt(bears) : t.cannotZoomIn;
  return (
    <p role="note" className="text-xs text-soft">
      {t.scaleLimit(end, largestScale)}
    </p>
  );
}

const factor = (value: number) => clamped(value, 1, MAX_ZOOM);

function ZoomNumbers({ zoom, onChange }: { zoom: Zoom; onChange: (zoom: Zoom) => void }) {
  if (kindOf(zoom) === "full") return null;
  if (zoom.kind === "fixed") {
    return (
      <NumberField
        label={t.zoom}
        unit={t.from1To(MAX_ZOOM)}
        value={zoom.factor}
        digits={2}
        step={0.01}
        rest={1}
        onCommit={(value) => onChange({ kind: "fixed", factor: factor(value) })}
      />
    );
  }
  const { min, max } = zoom;
  return (
    <div className="grid grid-cols-2 gap-2">
      <NumberField
        label={t.atLeast}
        unit={t.times}
        value={min}
        digits={2}
        step={0.01}
        onCommit={(value) => onChange({ kind: "free", min: Math.min(max, factor(value)), max })}
      />
      <NumberField
        label={t.atMost}
        unit={t.times}
        value={max}
        digits={2}
        step={0.01}
        onCommit={(value) => onChange({ kind: "free", min, max: Math.max(min, factor(value)) })}
      />
    </div>
  );
}
