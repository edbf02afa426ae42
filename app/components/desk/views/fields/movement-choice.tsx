import { ChoiceBar } from "~/components/common/choice-bar";
import { MOVEMENT_CHOICES, type MovementChoice as Choice } from "~/core/path/framing-settings";
import { MOVEMENT_TEXT } from "~/core/path/movement";
import { inspectorTexts } from "~/texts/inspector";

const t = inspectorTexts.movementChoice;

const TEXT = { auto: { name: t.auto, description: t.autoHint }, ...MOVEMENT_TEXT };
const CHOICES = MOVEMENT_CHOICES.map((value) => ({ value, name: TEXT[value].name, hint: TEXT[value].description }));

/** The movement; null where several shots differ. */
export function MovementChoice({
  movement,
  onChange,
}: {
  movement: Choice | null;
  onChange: (movement: Choice) => void;
}) {
  return (
    <ChoiceBar label={t.movement} choices={CHOICES} value={movement} onChange={onChange} className="grid-cols-4" />
  );
}
