import { History as HistoryIcon } from "lucide-react";
import { IconPanel } from "~/components/common/icon-panel";
import { historyTexts } from "~/texts/history";
import { useDesk } from "../../hooks/use-desk";
import { EditList } from "./edit-list";
import { loadHistory } from "./film-history";
import { useLoaded } from "~/components/common/use-loaded";

const t = historyTexts.historyPanel;

/** The film's history, to any step of which one can return. */
export const HistoryPanel = () => (
  <IconPanel title={t.history} Icon={HistoryIcon} width="w-96">
    <Contents />
  </IconPanel>
);

/** Loaded again with every change while the panel is open. */
function Contents() {
  const { film, history } = useDesk("film", "history");
  const edits = useLoaded(() => loadHistory(film.id), [film.id, history], t.couldNotBeLoaded);
  return edits ? <EditList edits={edits} /> : <p className="text-sm text-soft">{t.loading}</p>;
}
