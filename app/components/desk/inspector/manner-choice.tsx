import { ChoiceBar } from "~/components/common/choice-bar";
import { MANNER_CHOICES, type MannerChoice as Choice } from "~/core/path/framing-settings";
import { MANNER_TEXT } from "~/core/path/manner";

const TEXT = { auto: { name: "Auto", description: "Chosen by how the subject moves" }, ...MANNER_TEXT };
const CHOICES = MANNER_CHOICES.map((value) => ({ value, name: TEXT[value].name, hint: TEXT[value].description }));

/** How the window moves; `manner` is null where several shots differ. */
export function MannerChoice({ manner, onChange }: { manner: Choice | null; onChange: (manner: Choice) => void }) {
  return <ChoiceBar label="Manner" choices={CHOICES} value={manner} onChange={onChange} className="grid-cols-4" />;
}
