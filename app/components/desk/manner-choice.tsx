import { clsx } from "clsx";
import { ToggleGroup } from "radix-ui";
import { Hint } from "~/components/common/button";
import { type Manner, MANNER_TEXT, MANNERS } from "~/core/path/manner";

/** How the window moves; `manner` is null where several shots differ. */
export function MannerChoice({ manner, onChange }: { manner: Manner | null; onChange: (manner: Manner) => void }) {
  return (
    <div>
      <span className="text-xs text-soft">Manner</span>
      <ToggleGroup.Root
        type="single"
        value={manner ?? ""}
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
