import { ChoiceBar } from "~/components/common/choice-bar";
import { MANNER_CHOICES, type MannerChoice as Choice } from "~/core/path/framing-settings";
import { MANNER_TEXT } from "~/core/path/manner";
import { inspectorTexts } from "~/texts/inspector";

const t = inspectorTexts.mannerChoice;

const TEXT = { auto: { name: t.auto, description: t.chosenByHowTheSubject }, ...MANNER_TEXT };
const CHOICES = MANNER_CHOICES.map((value) => ({ value, name: TEXT[value].name, hint: TEXT[value].description }));

/** How the window moves; `manner` is null where several shots differ. */
export function MannerChoice({ manner, onChange }: { manner: Choice | null; onChange: (manner: Choice) => void }) {
  return <ChoiceBar label={t.manner} choices={CHOICES} value={manner} onChange={onChange} className="grid-cols-4" />;
}
