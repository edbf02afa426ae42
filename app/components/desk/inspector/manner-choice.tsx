import { clsx } from "clsx";
import { ToggleGroup } from "radix-ui";
import { Hint } from "~/components/common/button";
import { MANNER_CHOICES, type MannerChoice as Choice } from "~/core/path/framing-settings";
import { MANNER_TEXT } from "~/core/path/manner";

const TEXT = { auto: { name: "Chosen", description: "What suits what the subject does" }, ...MANNER_TEXT };

/** How the window moves; `manner` is null where several shots differ. */
export function MannerChoice({ manner, onChange }: { manner: Choice | null; onChange: (manner: Choice) => void }) {
  return (
    <ToggleGroup.Root
      type="single"
      value={manner ?? ""}
      aria-label="Manner"
      // A toggle group sends an empty value when the pressed one is pressed again; a shot always has a manner.
      onValueChange={(value) => value && onChange(value as Choice)}
      className="grid grid-cols-4 overflow-hidden rounded-md border border-line"
    >
      {MANNER_CHOICES.map((name) => (
        <Hint key={name} text={TEXT[name].description}>
          <ToggleGroup.Item
            value={name}
            className={clsx(
              "border-l border-line bg-raised py-1.5 text-sm first:border-l-0 hover:bg-well",
              "aria-checked:bg-accent aria-checked:font-semibold aria-checked:text-accent-ink",
            )}
          >
            {TEXT[name].name}
          </ToggleGroup.Item>
        </Hint>
      ))}
    </ToggleGroup.Root>
  );
}
