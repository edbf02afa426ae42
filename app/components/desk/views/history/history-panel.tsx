import { History as HistoryIcon } from "lucide-react";
import { IconPanel } from "~/components/common/icon-panel";
import { historyTexts } from "~/texts/history";
import { useDesk } from "../../hooks/use-desk";
import { EditList } from "./edit-list";
import { loadHistory } from "./film-history";
import { useLoaded } from "~/components/common/use-loaded";

const t = historyTexts.historyPanel;

/** All that has been done to the film, any step of which can be gone back to. */
export const HistoryPanel = () => (
  <IconPanel title={t.history} Icon={HistoryIcon} width="w-96">
    <Contents />
  </IconPanel>
);

/** Loaded anew with every change that is made while the panel is open. */
function Contents() {
  const { film, history } = useDesk("film", "history");
  const edits = useLoaded(() => loadHistory(film.id), [film.id, history], t.couldNotBeLoaded);
  return edits ? <EditList edits={edits} /> : <p className="text-sm text-soft">{t.loading}</p>;
}
