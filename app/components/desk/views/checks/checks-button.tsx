import { Flag } from "lucide-react";
import { Button, Hint } from "~/components/common/button";
import { useShortcutText } from "../../hooks/use-shortcut-keys";
import { useDesk } from "../../hooks/use-desk";
import { checksTexts } from "~/texts/checks";

const t = checksTexts.checksButton;

/** Opens the page of flags, with the number not reviewed. */
export function ChecksButton() {
  const { checks } = useDesk("checks");
  const keysOf = useShortcutText();
  const { left, isOpen, setOpen } = checks;
  return (
    <Hint text={t.left(left)} shortcut={keysOf("flags")}>
      <Button
        variant="quiet"
        aria-label={t.left(left)}
        aria-pressed={isOpen}
        onClick={() => setOpen(!isOpen)}
        className="!px-2 aria-pressed:bg-accent-wash aria-pressed:text-ink"
      >
        <Flag className="size-4" aria-hidden />
        {left > 0 && <span className="text-warn">{left}</span>}
      </Button>
    </Hint>
  );
}
