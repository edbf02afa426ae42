import { useVirtualizer } from "@tanstack/react-virtual";
import { clsx } from "clsx";
import { useRef } from "react";
import { whenWas } from "~/components/common/when";
import type { EditRow } from "~/core/edits/answer";
import { useDesk } from "../../hooks/use-desk";
import { historyTexts } from "~/texts/history";

const t = historyTexts.editList;

/** Height of a row in pixels, which must be known before a row is drawn. */
const ROW_HEIGHT = 32;

/** The film before its first edit. */
const BEGINNING: EditRow = { sequence: 0, sentence: t.asAnalysed, isUndone: false, madeAt: null };

/** The steps of the history, newest first; a click returns to a step. Only visible rows are drawn. */
export function EditList({ edits }: { edits: readonly EditRow[] }) {
  const { edits: desk } = useDesk("edits");
  const scroller = useRef<HTMLDivElement>(null);
  const steps = [...edits, BEGINNING];
  const newest = steps.findIndex(({ isUndone }) => !isUndone);
  const rows = useVirtualizer({
    count: steps.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW_HEIGHT,
    overscan: 6,
  });
  return (
    <section aria-label={t.steps} className="flex min-h-0 flex-col gap-1">
      <h3 className="text-xs text-soft">{t.howTo}</h3>
      <div ref={scroller} className="max-h-72 min-h-24 overflow-y-auto rounded-md border border-line">
        <ol className="relative" style={{ height: rows.getTotalSize() }}>
          {rows.getVirtualItems().map(({ index, start }) => {
            const { sequence, sentence, isUndone, madeAt } = steps[index]!;
            return (
              <li key={sequence} className="absolute inset-x-0" style={{ top: start, height: ROW_HEIGHT }}>
                <button
                  type="button"
                  aria-current={index === newest}
                  title={sentence}
                  onClick={() => index !== newest && desk.goBack({ do: "go-to", sequence })}
                  className={clsx(
                    "flex size-full items-center gap-2 px-2 text-left text-sm outline-offset-[-2px] hover:bg-well",
                    index === newest && "bg-accent-wash font-semibold",
                    isUndone && "text-soft",
                  )}
                >
                  <span className={clsx("min-w-0 grow truncate", isUndone && "line-through")}>{sentence}</span>
                  <span className="shrink-0 text-xs font-normal text-soft">
                    {index === newest ? t.now : madeAt !== null && whenWas(madeAt)}
                  </span>
                </button>
              </li>
            );
          })}
        </ol>
      </div>
    </section>
  );
}
