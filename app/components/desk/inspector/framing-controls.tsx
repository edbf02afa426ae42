import { type SelectItem, SelectMenu } from "~/components/common/select-menu";
import {
  type FramingChange,
  type FramingSettings,
  MAX_ENLARGEMENT,
  MAX_ZOOM,
  USUAL_FRAMING,
  type Zoom,
} from "~/core/path/framing-settings";
import { AimControls } from "./aim-controls";
import { CalmSlider } from "./calm-slider";
import { MannerChoice } from "./manner-choice";
import { NumberField } from "~/components/common/number-field";

interface FramingControlsProps {
  /** What is set; of several shots, what they have in common. */
  settings: Partial<FramingSettings>;
  /** How the window moves and why, where that was not asked for. */
  chosen?: string | null;
  /** How far a zoom may go in before the picture is enlarged more than so many times. */
  bears: (enlargement: number) => number;
  onChange: (change: FramingChange) => void;
}

const ZOOMS: SelectItem[] = [
  { value: "full", text: "As large as fits", hint: "The largest window that fits" },
  { value: "fixed", text: "Fixed", hint: "The same zoom throughout" },
  { value: "free", text: "Free, within limits", hint: "Closer on small subjects, wider on large ones" },
];
/** Where a zoom begins when its kind is chosen. */
const FIRST_ZOOM: Record<string, Zoom> = {
  full: USUAL_FRAMING.zoom,
  fixed: { kind: "fixed", factor: 1.25 },
  free: { kind: "free", min: 1, max: 1.5 },
};

const kindOf = (zoom: Zoom): string => (zoom.kind === "free" ? "free" : zoom.factor === 1 ? "full" : "fixed");

/** How the window moves in a shot, how calm, and how large it is. */
export function FramingControls({ settings, chosen, bears, onChange }: FramingControlsProps) {
  const { manner, calm = USUAL_FRAMING.calm, zoom, headroom, enlargement } = settings;
  return (
    <section aria-label="Movement" className="flex flex-col gap-2">
      <div className="flex items-baseline justify-between gap-2 text-xs text-soft">
        <span>Manner</span>
        {chosen && <span aria-label="Manner and reason">{chosen}</span>}
      </div>
      <MannerChoice manner={manner ?? null} onChange={(value) => onChange({ manner: value })} />
      <CalmSlider label="Calmness" calm={calm} onChange={(value) => onChange({ calm: value })} />
      <div className="flex items-center justify-between gap-2">
        <span className="text-xs text-soft">Zoom</span>
        <SelectMenu
          label="Zoom"
          placeholder="Mixed"
          items={ZOOMS}
          value={zoom ? kindOf(zoom) : ""}
          onChange={(kind) => onChange({ zoom: FIRST_ZOOM[kind]! })}
        />
      </div>
      {zoom && <ZoomNumbers zoom={zoom} onChange={(value) => onChange({ zoom: value })} />}
      {zoom?.kind === "free" && enlargement !== undefined && (
        <FreeZoomEnd most={zoom.max} bears={bears(enlargement)} enlargement={enlargement} />
      )}
      {zoom && kindOf(zoom) !== "full" && (
        <div className="grid grid-cols-2 gap-2">
          {headroom !== undefined && (
            <NumberField
              label="Headroom"
              unit="%"
              hint="Space above the head, as a share of the window's height"
              value={headroom}
              onCommit={(value) => onChange({ headroom: Math.min(40, Math.max(0, value)) })}
            />
          )}
          {enlargement !== undefined && (
            <NumberField
              label="Enlarge up to"
              unit="times"
              hint="A free zoom stops there; any other zoom gets a second look"
              value={enlargement}
              onCommit={(value) => onChange({ enlargement: Math.min(MAX_ENLARGEMENT, Math.max(1, value)) })}
            />
          )}
        </div>
      )}
      <AimControls settings={settings} onChange={onChange} />
    </section>
  );
}

/** Says where the picture ends a free zoom, if it does. */
function FreeZoomEnd({ most, bears, enlargement }: { most: number; bears: number; enlargement: number }) {
  if (bears >= most) return null;
  const end = bears > 1 ? `Stops at ${bears.toFixed(2)}` : "Cannot zoom in";
  return (
    <p role="note" className="text-xs text-soft">
      {end}: any closer, the picture would be enlarged more than {Number(enlargement.toFixed(1))} times.
    </p>
  );
}

const factor = (value: number) => Math.min(MAX_ZOOM, Math.max(1, value));

function ZoomNumbers({ zoom, onChange }: { zoom: Zoom; onChange: (zoom: Zoom) => void }) {
  if (kindOf(zoom) === "full") return null;
  if (zoom.kind === "fixed") {
    return (
      <NumberField
        label="Zoom"
        unit={`1 to ${MAX_ZOOM}`}
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
        label="At least"
        unit="times"
        value={min}
        digits={2}
        step={0.01}
        onCommit={(value) => onChange({ kind: "free", min: Math.min(max, factor(value)), max })}
      />
      <NumberField
        label="At most"
        unit="times"
        value={max}
        digits={2}
        step={0.01}
        onCommit={(value) => onChange({ kind: "free", min, max: Math.max(min, factor(value)) })}
      />
    </div>
  );
}
