import { ArrowLeft } from "lucide-react";
import { useEffect, useRef } from "react";
import { Button } from "~/components/common/button";
import { useDesk } from "../../hooks/use-desk";
import { CheckCharts } from "./check-charts";
import { CheckDownloads } from "./check-downloads";
import { CheckFigures } from "./check-figures";
import { CheckLimitFields } from "./check-limits";
import { FlagFilters } from "./flag-filters";
import { FlagTable } from "./flag-table";
import { checksTexts } from "~/texts/checks";

const t = checksTexts.checkView;

/** All flags of a version over the desk, with charts and figures. */
export function CheckView() {
  const { version, checks, state } = useDesk("version", "checks", "state");
  const { all, rows, left } = checks;
  const heading = useRef<HTMLHeadingElement>(null);
  useEffect(() => heading.current?.focus(), []);
  return (
    <section
      aria-label={t.of(version.name)}
      className="absolute inset-0 z-20 grid grid-cols-[minmax(0,1fr)_26rem] bg-ground"
      onKeyDown={({ key, target }) => {
        if (key === "Escape" && !(target instanceof HTMLInputElement)) checks.setOpen(false);
      }}
    >
      <div className="flex min-h-0 flex-col">
        <div className="flex flex-wrap items-center gap-x-3 gap-y-2 border-b border-line bg-panel px-4 py-2">
          <Button variant="quiet" onClick={() => checks.setOpen(false)} className="-ml-2">
            <ArrowLeft className="size-4" aria-hidden />
            {t.backToTheDesk}
          </Button>
          <h2 ref={heading} tabIndex={-1} className="font-display text-base font-semibold outline-none">
            {t.flagList}
          </h2>
          <p role="status" className="text-sm text-soft">
            {all.length === 0 ? t.none : left === 0 ? t.allReviewed : t.left(left, all.length)}
            {!state.film.analysed && ` ${t.notAnalysedYet}`}
          </p>
          <div className="ml-auto">
            <CheckDownloads />
          </div>
        </div>
        {all.length > 0 && <FlagFilters />}
        {rows.length > 0 ? <FlagTable /> : all.length > 0 && <p className="p-4 text-sm text-soft">{t.noneOfThese}</p>}
      </div>
      <aside className="flex min-h-0 flex-col gap-4 overflow-y-auto border-l border-line bg-panel p-4">
        <CheckFigures />
        <CheckCharts />
        <CheckLimitFields />
      </aside>
    </section>
  );
}
