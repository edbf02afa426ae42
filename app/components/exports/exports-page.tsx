import { ArrowLeft, Pause, Play } from "lucide-react";
import { Link, useFetcher } from "react-router";
import { toast } from "sonner";
import { Button } from "~/components/common/button";
import { SortableList, SortableRow } from "~/components/common/sortable-list";
import { whenWas } from "~/components/common/when";
import { Wordmark } from "~/components/common/wordmark";
import type { ExportView } from "~/core/film/film-status";
import { AddExports, type FilmToExport } from "./add-exports";
import { ExportRow } from "./export-row";
import { exportsTexts } from "~/texts/exports";

const t = exportsTexts.exportsPage;

/** An export with its film and version. */
export type ListedExport = ExportView & { film: string; version: string | null };

interface ExportsPageProps {
  /** Running and waiting exports, in order. */
  queue: readonly ListedExport[];
  /** Finished ones, newest first. */
  files: readonly ListedExport[];
  films: readonly FilmToExport[];
}

/** All exports: those under way and waiting, and the finished files. */
export function ExportsPage({ queue, files, films }: ExportsPageProps) {
  const fetcher = useFetcher();
  const post = (fields: Record<string, string>) => void fetcher.submit(fields, { method: "post" });
  const change = (intent: string, { id }: ExportView) => post({ intent, jobId: id });
  const again = ({ filmId, versionId }: ExportView) =>
    post({ intent: "export", selected: JSON.stringify({ [filmId]: [versionId] }) });
  const waiting = queue.filter(({ state }) => state === "queued");
  const move = (from: number, to: number) => {
    const ids = waiting.map(({ id }) => id);
    ids.splice(to, 0, ...ids.splice(from, 1));
    post({ intent: "order", jobIds: ids.join(",") });
  };
  const isAllPaused = queue.length > 0 && queue.every(({ isPaused }) => isPaused);
  return (
    <div className="min-h-full">
      <header className="flex items-center gap-4 border-b border-line bg-panel px-8 py-4">
        <Wordmark />
        <Link to="/" className="flex items-center gap-1.5 text-sm text-soft hover:text-ink">
          <ArrowLeft className="size-4" aria-hidden />
          {t.films}
        </Link>
        <div className="grow" />
        <AddExports
          films={films}
          onExport={(selected) => post({ intent: "export", selected: JSON.stringify(selected) })}
        />
      </header>
      <main className="mx-auto flex max-w-4xl flex-col gap-8 px-8 py-8">
        <h1 className="font-display text-2xl font-semibold">{t.exports}</h1>
        <section aria-label={t.queue}>
          <div className="mb-3 flex items-center justify-between">
            <h2 className="font-display text-base font-semibold">{t.queue}</h2>
            {queue.length > 0 && (
              <Button onClick={() => post({ intent: isAllPaused ? "resume-all" : "pause-all" })}>
                {isAllPaused ? <Play className="size-4" aria-hidden /> : <Pause className="size-4" aria-hidden />}
                {isAllPaused ? t.resumeAll : t.pauseAll}
              </Button>
            )}
          </div>
          {queue.length === 0 && <p className="text-sm text-soft">{t.nothingInTheQueue}</p>}
          <ul className="flex flex-col gap-2 empty:hidden">
            {queue
              .filter(({ state }) => state === "running")
              .map((item) => (
                <li key={item.id} className="rounded-md border border-accent bg-panel px-4 py-3">
                  <ExportRow item={item} change={change} about={<About item={item} />} />
                </li>
              ))}
          </ul>
          <SortableList
            label={t.queue}
            keys={waiting.map(({ id }) => id)}
            onMove={move}
            className="mt-2 flex flex-col gap-2 empty:hidden"
          >
            {waiting.map((item) => (
              <SortableRow
                key={item.id}
                id={item.id}
                name={item.fileName}
                className="rounded-md border bg-panel px-4 py-3"
              >
                {(grip) => <ExportRow item={item} change={change} about={<About item={item} />} grip={grip} />}
              </SortableRow>
            ))}
          </SortableList>
        </section>
        <section aria-label={t.files}>
          <h2 className="mb-3 font-display text-base font-semibold">{t.files}</h2>
          {files.length === 0 && <p className="text-sm text-soft">{t.nothingYet}</p>}
          <ul className="flex flex-col gap-2">
            {files.map((item) => (
              <li key={item.id} className="rounded-md border border-line bg-panel px-4 py-3">
                <ExportRow
                  item={item}
                  change={(intent, changed) => {
                    change(intent, changed);
                    if (intent === "delete") toast(exportsTexts.exportRow.deleted(changed.fileName));
                  }}
                  again={item.version === null ? undefined : again}
                  about={<About item={item} />}
                />
              </li>
            ))}
          </ul>
        </section>
      </main>
    </div>
  );
}

/** Film and version of a file, and when it was finished. */
const About = ({ item: { filmId, versionId, film, version, finishedAt } }: { item: ListedExport }) => (
  <p className="flex flex-wrap gap-x-2 text-xs text-soft">
    <Link to={`/films/${filmId}?version=${versionId}`} className="truncate underline-offset-2 hover:underline">
      {film}
      {version !== null && ` · ${version}`}
    </Link>
    {finishedAt !== null && (
      // The server formats times in its own locale and zone.
      <time dateTime={new Date(finishedAt).toISOString()} suppressHydrationWarning>
        {whenWas(finishedAt)}
      </time>
    )}
  </p>
);
