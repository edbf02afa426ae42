import { ChoiceBar } from "~/components/common/choice-bar";
import { useDesk } from "../../hooks/use-desk";
import type { DeskShot } from "../../model/desk-types";
import { inspectorTexts } from "~/texts/inspector";

const t = inspectorTexts.paneChoice;

/** Selects one of a shot's panes to work on. */
export function PaneChoice({ shot }: { shot: DeskShot }) {
  const { selectPane } = useDesk("selectPane");
  if (shot.panes.length < 2) return null;
  return (
    <ChoiceBar
      label={t.pane}
      choices={shot.panes.map((pane) => ({
        value: String(pane),
        name: t.paneNumbered(pane + 1),
        hint: t.paneHint(pane + 1),
      }))}
      value={String(shot.pane)}
      onChange={(pane) => selectPane(Number(pane))}
      className={shot.panes.length === 2 ? "grid-cols-2" : "grid-cols-3"}
    />
  );
}
