import { History as HistoryIcon } from "lucide-react";
import { useEffect, useState } from "react";
import { toast } from "sonner";
import { IconPanel } from "~/components/common/icon-panel";
import { useDesk } from "../state/desk-context";
import { EditList } from "./edit-list";
import { type FilmHistory, loadHistory } from "./film-history";
import { NamedStates } from "./named-states";
import { historyTexts } from "~/texts/history";

const t = historyTexts.historyPanel;

/** All that has been done to the film, any step of which can be gone back to, and the states that have a name. */
export const HistoryPanel = () => (
  <IconPanel title={t.history} Icon={HistoryIcon} width="w-96">
    <Contents />
  </IconPanel>
);

/** Loaded anew with every change that is made while the panel is open. */
function Contents() {
  const { film, history } = useDesk();
  const [known, setKnown] = useState<FilmHistory | null>(null);
  const [stateChanges, setStateChanges] = useState(0);
  useEffect(() => {
    let isOver = false;
    void loadHistory(film.id).then(
      (loaded) => !isOver && setKnown(loaded),
      () => toast.error(t.theHistoryCouldNotBe),
    );
    return () => {
      isOver = true;
    };
  }, [film.id, history, stateChanges]);
  if (!known) return <p className="text-sm text-soft">{t.loading}</p>;
  return (
    <>
      <NamedStates states={known.states} onChanged={() => setStateChanges((count) => count + 1)} />
      <EditList edits={known.edits} />
    </>
  );
}
