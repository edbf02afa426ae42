import { FileCheck2, TriangleAlert } from "lucide-react";
import { Dialog } from "radix-ui";
import { useFetcher } from "react-router";
import { Button } from "~/components/common/button";
import { DialogPanel } from "~/components/common/dialog-panel";
import { DownloadLink } from "~/components/common/download-link";
import { ProgressBar, describeLeft } from "~/components/common/progress-bar";
import { assertNever } from "~/core/assert-never";
import { USUAL_FORMAT } from "~/core/formats/output-formats";
import type { ExportView } from "~/core/film-status";
import { keptRanges, type LeftOut, secondsOver } from "~/core/edits/trim";
import type { Size } from "~/core/geometry/box";
import { type FrameRange, framesIn, frameToSeconds } from "~/core/time/rate";
import { liesWithin } from "~/core/time/ranges";
import type { DeskFilm, DeskVersion } from "../state/desk-types";
import { Enlargement } from "./size-field";
import { dialogsTexts } from "~/texts/dialogs";

const t = dialogsTexts.exportDialog;

interface ExportDialogProps {
  film: DeskFilm;
  versions: readonly DeskVersion[];
  /** What is left out in all versions. */
  leftOut: LeftOut;
  /** Sizes in which what the film shows was taken. */
  pictures: readonly Size[];
  exports: ExportView[];
  /** What of the film has been analysed: what a version shows must be, before it can be rendered. */
  analysed: readonly FrameRange[];
}

/** Renders versions to files, and shows the files with what was measured of them. */
export function ExportDialog({ film, versions, leftOut, pictures, exports, analysed }: ExportDialogProps) {
  const fetcher = useFetcher();
  const running = exports.find((item) => item.state === "running" || item.state === "queued");
  return (
    <Dialog.Root>
      <Dialog.Trigger asChild>
        <Button variant="accent" data-step="export">
          {running ? t.exporting(running.progress) : t.export}
        </Button>
      </Dialog.Trigger>
      <DialogPanel title={t.export} width="w-[36rem]">
        <ul className="flex flex-col gap-2">
          {versions.map((version) => (
            <li key={version.id} className="flex items-center gap-3 rounded-md border border-line bg-raised px-3 py-2">
              <div className="min-w-0">
                <p className="truncate font-medium">{version.name}</p>
                <p className="text-xs text-soft">
                  {t.withTheFilmsOwnSound(version.width, version.height, USUAL_FORMAT.name)}
                </p>
                <Length film={film} version={version} leftOut={leftOut} analysed={analysed} />
                <Enlargement pictures={pictures} size={version} />
              </div>
              <Button
                className="ml-auto"
                disabled={!isReady(film, version, leftOut, analysed) || fetcher.state !== "idle"}
                onClick={() => void fetcher.submit({ intent: "export", versionId: version.id }, { method: "post" })}
              >
                {t.render}
              </Button>
            </li>
          ))}
        </ul>
        <h3 className="mt-5 text-xs text-soft">{t.files}</h3>
        {exports.length === 0 && <p className="mt-1 text-sm">{t.nothingRenderedYet}</p>}
        <ul className="mt-1 flex flex-col gap-3">
          {exports.map((item) => (
            <ExportRow key={item.id} filmId={film.id} item={item} />
          ))}
        </ul>
      </DialogPanel>
    </Dialog.Root>
  );
}

/** Whether all that a version shows has been analysed. */
const isReady = (film: DeskFilm, version: DeskVersion, leftOut: LeftOut, analysed: readonly FrameRange[]): boolean =>
  liesWithin(keptRanges(version.trim, film.frames, leftOut), analysed);

/** How long the file is going to be, and by how much that is too long. */
function Length({
  film,
  version,
  leftOut,
  analysed,
}: Pick<ExportDialogProps, "film" | "leftOut" | "analysed"> & { version: DeskVersion }) {
  const kept = keptRanges(version.trim, film.frames, leftOut);
  const over = secondsOver(kept, film.rate, version.limitSeconds);
  const seconds = frameToSeconds(framesIn(kept), film.rate);
  return (
    <p className={over > 0 ? "text-xs text-warn" : "text-xs text-soft"}>
      {t.s(seconds)}
      {framesIn(kept) < film.frames && t.ofTheFilmsS(frameToSeconds(film.frames, film.rate))}
      {over > 0 && version.limitSeconds !== null && t.sOverTheLimitOf(over, version.limitSeconds)}
      {!isReady(film, version, leftOut, analysed) && t.partOfItIsNot}
    </p>
  );
}

function ExportRow({ filmId, item }: { filmId: string; item: ExportView }) {
  const fetcher = useFetcher();
  const post = (intent: "cancel" | "retry") => void fetcher.submit({ intent, jobId: item.id }, { method: "post" });
  switch (item.state) {
    case "done":
      return (
        <li className="flex items-center gap-3">
          <FileCheck2 className="size-5 shrink-0 text-good" aria-hidden />
          <div className="min-w-0 grow">
            <p className="truncate text-sm font-medium">{item.fileName}</p>
            {item.figures && <Figures figures={item.figures} />}
          </div>
          {item.figures?.sidecars.map((name) => (
            <a
              key={name}
              href={`/media/${filmId}/exports/${encodeURIComponent(name)}`}
              download
              className="text-xs underline underline-offset-2"
            >
              {name.endsWith(".vtt") ? t.webVtt : t.srt}
            </a>
          ))}
          <DownloadLink href={`/media/${filmId}/exports/${encodeURIComponent(item.fileName)}`}>
            {t.download}
          </DownloadLink>
        </li>
      );
    case "failed":
    case "cancelled":
      return (
        <li className="flex items-center gap-3">
          <TriangleAlert className="size-5 shrink-0 text-warn" aria-hidden />
          <div className="min-w-0 grow text-sm">
            <p className="truncate font-medium">{item.fileName}</p>
            <p className="text-xs text-warn">{item.error ?? t.cancelledNoFileWasLeft}</p>
          </div>
          <Button onClick={() => post("retry")}>{t.renderAgain}</Button>
        </li>
      );
    case "queued":
    case "running":
      return (
        <li className="flex items-end gap-3">
          <div className="min-w-0 grow">
            <p className="truncate text-sm font-medium">{item.fileName}</p>
            <ProgressBar
              label={item.step || t.waitingForItsTurn}
              share={item.progress}
              left={describeLeft(item.secondsLeft)}
            />
          </div>
          <Button onClick={() => post("cancel")}>{t.cancel}</Button>
        </li>
      );
    default:
      return assertNever(item.state);
  }
}

/** What the finished file was measured to be. */
function Figures({ figures }: { figures: NonNullable<ExportView["figures"]> }) {
  const sound = figures.soundSeconds === null ? t.noSound : t.soundS(figures.soundSeconds);
  return (
    <p className="text-xs text-soft">
      {t.checkedFramesAtFpsS(
        figures.width,
        figures.height,
        figures.frames,
        figures.rate,
        figures.durationSeconds,
        sound,
        figures.bytes / 1e6,
      )}
      {figures.hasCaptions && t.withTextTrack}
    </p>
  );
}
