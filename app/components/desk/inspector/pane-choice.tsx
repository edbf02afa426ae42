import { ChoiceBar } from "~/components/common/choice-bar";
import { useDesk } from "../state/desk-context";
import type { DeskShot } from "../state/desk-types";

/** Which of a shot's panes is worked on, where it has several. */
export function PaneChoice({ shot }: { shot: DeskShot }) {
  const { choosePane } = useDesk();
  if (shot.panes.length < 2) return null;
  return (
    <ChoiceBar
      label="Pane"
      choices={shot.panes.map((pane) => ({
        value: String(pane),
        name: `Pane ${pane + 1}`,
        hint: `Its subject, path and keys; ${pane + 1} on the keyboard`,
      }))}
      value={String(shot.pane)}
      onChange={(pane) => choosePane(Number(pane))}
      className={shot.panes.length === 2 ? "grid-cols-2" : "grid-cols-3"}
    />
  );
}
