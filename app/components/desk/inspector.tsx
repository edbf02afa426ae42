import { clsx } from "clsx";
import { RadioGroup, ToggleGroup } from "radix-ui";
import { Button, Hint } from "~/components/common/button";
import type { CropWindow } from "~/core/geometry/crop-window";
import { type Manner, MANNER_TEXT, MANNERS } from "~/core/path/manner";
import { type DeskShot, shotAt, subjectColour } from "./desk-types";
import { NumberField } from "./number-field";
import type { Player } from "./player";
import { useFrame } from "./use-player";

interface InspectorProps {
  player: Player | null;
  shots: DeskShot[];
  windowAt: (frame: number) => CropWindow;
  /** The axes on which the window can move. */
  free: { x: boolean; y: boolean };
  onSubject: (shot: DeskShot, subject: string) => void;
  onManner: (shot: DeskShot, manner: Manner) => void;
  onPlace: (frame: number, window: CropWindow) => void;
  onRelease: (frame: number) => void;
}

/** What can be set for the shot under the playhead, and for the window at this frame. */
export function Inspector(props: InspectorProps) {
  const frame = useFrame(props.player);
  const shot = shotAt(props.shots, frame);
  if (!shot) return null;
  return (
    <div className="flex flex-col gap-5">
      <section aria-label={`Shot ${shot.number}`}>
        <h2 className="font-display text-base font-semibold">Shot {shot.number}</h2>
        <SubjectChoice shot={shot} onChange={(subject) => props.onSubject(shot, subject)} />
        <MannerChoice manner={shot.manner} onChange={(manner) => props.onManner(shot, manner)} />
      </section>
      <WindowSettings {...props} shot={shot} frame={frame} />
    </div>
  );
}

function SubjectChoice({ shot, onChange }: { shot: DeskShot; onChange: (subject: string) => void }) {
  const auto = shot.subject === "auto" ? shot.framed?.reason : undefined;
  return (
    <fieldset className="mt-2">
      <legend className="text-xs text-soft">Follow</legend>
      <RadioGroup.Root
        value={shot.subject}
        onValueChange={onChange}
        aria-label="Follow"
        className="mt-1 flex flex-col gap-0.5"
      >
        <Choice value="auto" text={auto ? `Chosen for you: ${auto}` : "Chosen for you"} />
        {shot.cast.map(({ letter, track, reason }, i) => (
          <Choice key={track.id} value={`track:${track.id}`} text={reason} letter={letter} colour={subjectColour(i)} />
        ))}
        <Choice value="none" text="Nobody: rest in the middle" />
      </RadioGroup.Root>
    </fieldset>
  );
}

function Choice({ value, text, letter, colour }: { value: string; text: string; letter?: string; colour?: string }) {
  return (
    <RadioGroup.Item
      value={value}
      className="group flex items-center gap-2 rounded-md px-2 py-1 text-left text-sm hover:bg-well data-[state=checked]:bg-accent-wash"
    >
      <span className="size-3.5 shrink-0 rounded-full border border-soft group-data-[state=checked]:border-4 group-data-[state=checked]:border-accent" />
      {letter && (
        <span
          className="min-w-5 rounded-sm px-1 text-center text-xs font-bold text-black"
          style={{ background: colour }}
        >
          {letter}
        </span>
      )}
      <span className="min-w-0">{text}</span>
    </RadioGroup.Item>
  );
}

function MannerChoice({ manner, onChange }: { manner: Manner; onChange: (manner: Manner) => void }) {
  return (
    <div className="mt-3">
      <span className="text-xs text-soft">Manner</span>
      <ToggleGroup.Root
        type="single"
        value={manner}
        aria-label="Manner"
        // A toggle group sends an empty value when the pressed one is pressed again; a shot always has a manner.
        onValueChange={(value) => value && onChange(value as Manner)}
        className="mt-1 grid grid-cols-3 overflow-hidden rounded-md border border-line"
      >
        {MANNERS.map((name) => (
          <Hint key={name} text={MANNER_TEXT[name].description}>
            <ToggleGroup.Item
              value={name}
              className={clsx(
                "border-l border-line bg-raised py-1.5 text-sm first:border-l-0 hover:bg-well",
                "aria-checked:bg-accent aria-checked:font-semibold aria-checked:text-accent-ink",
              )}
            >
              {MANNER_TEXT[name].name}
            </ToggleGroup.Item>
          </Hint>
        ))}
      </ToggleGroup.Root>
    </div>
  );
}

function WindowSettings({
  shot,
  frame,
  player,
  windowAt,
  free,
  onPlace,
  onRelease,
}: InspectorProps & { shot: DeskShot; frame: number }) {
  const window = windowAt(frame);
  const hand = shot.handKeys.some((key) => key.frame === frame);
  const set = (change: Partial<CropWindow>) => {
    player?.pause();
    onPlace(frame, { ...window, ...change });
  };
  return (
    <section aria-label="Window at this frame">
      <h2 className="flex items-baseline justify-between font-display text-base font-semibold">
        Window here
        <span className="font-sans text-xs font-normal text-soft">{hand ? "■ your key" : "laid by the solver"}</span>
      </h2>
      <div className="mt-2 grid grid-cols-2 gap-2">
        <NumberField label="Centre x" unit="px" value={window.x} disabled={!free.x} onCommit={(x) => set({ x })} />
        <NumberField label="Centre y" unit="px" value={window.y} disabled={!free.y} onCommit={(y) => set({ y })} />
      </div>
      <div className="mt-2 flex gap-2">
        {hand ? (
          <Hint text="Gives this frame back to the solver" shortcut="Delete">
            <Button onClick={() => onRelease(frame)}>Release this key</Button>
          </Hint>
        ) : (
          <Hint text="Makes the window stay here at this frame, whatever else changes" shortcut="K">
            <Button onClick={() => set({})} disabled={!free.x && !free.y}>
              Pin the window here
            </Button>
          </Hint>
        )}
      </div>
    </section>
  );
}
