import { CircleCheck, Pause, Play, RotateCw, Trash2, TriangleAlert } from "lucide-react";
import type { ReactNode } from "react";
import { Button, Hint, IconButton } from "~/components/common/button";
import { DownloadLink } from "~/components/common/download-link";
import { Fold } from "~/components/common/fold";
import { describeLeft, ProgressBar } from "~/components/common/progress-bar";
import { saveJson } from "~/components/common/save-file";
import { assertNever } from "~/core/basics/assert-never";
import { type ExportView, faultsIn } from "~/core/film/film-status";
import { CheckList } from "./check-list";
import { FiguresLine } from "./figures-line";
import { exportsTexts } from "~/texts/exports";

const t = exportsTexts.exportRow;

/** Commands on an export. */
export interface ExportActions {
  change: (intent: "cancel" | "retry" | "pause" | "resume" | "delete", item: ExportView) => void;
  /** Exports the version again, as it is now; left out if it no longer exists. */
  again?: ((item: ExportView) => void) | undefined;
}

interface ExportRowProps extends ExportActions {
  item: ExportView;
  /** Film and version of the file, where the context does not say. */
  about?: ReactNode;
  /** Drag handle of the row, where it can be moved. */
  grip?: ReactNode;
}

const fileAddress = ({ filmId }: ExportView, name: string): string =>
  `/media/${filmId}/exports/${encodeURIComponent(name)}`;

/** An export: its progress or its result, and commands on it. */
export function ExportRow(props: ExportRowProps) {
  const { item } = props;
  switch (item.state) {
    case "done":
      return <DoneRow {...props} />;
    case "failed":
    case "cancelled":
      return (
        <div className="flex items-center gap-3">
          <TriangleAlert className="size-5 shrink-0 text-warn" aria-hidden />
          <div className="min-w-0 grow text-sm">
            <p className="truncate font-medium">{item.fileName}</p>
            {props.about}
            <p className="text-xs text-warn">{item.error ?? t.cancelledNoFileWasLeft}</p>
          </div>
          {!item.isUnreadable && <Button onClick={() => props.change("retry", item)}>{t.renderAgain}</Button>}
          <Remove {...props} />
        </div>
      );
    case "queued":
    case "running":
      return <OpenRow {...props} />;
    default:
      return assertNever(item.state);
  }
}

function OpenRow({ item, about, grip, change }: ExportRowProps) {
  const { speed, isPaused, step, fileName } = item;
  const doing = isPaused ? t.paused : step || t.waitingForItsTurn;
  return (
    <div className="flex items-center gap-3">
      {grip}
      <div className="min-w-0 grow">
        <p className="truncate text-sm font-medium">{fileName}</p>
        {about}
        <ProgressBar
          label={speed === null ? doing : t.step(doing, t.framesPerSecond(speed))}
          share={item.progress}
          left={describeLeft(item.secondsLeft)}
        />
      </div>
      <IconButton
        label={isPaused ? t.resume(fileName) : t.pause(fileName)}
        onClick={() => change(isPaused ? "resume" : "pause", item)}
      >
        {isPaused ? <Play className="size-4" aria-hidden /> : <Pause className="size-4" aria-hidden />}
      </IconButton>
      <Button onClick={() => change("cancel", item)}>{t.cancel}</Button>
    </div>
  );
}

function DoneRow(props: ExportRowProps) {
  const { item, about, again } = props;
  const { figures, fileName, folder, isChanged, made, parts } = item;
  const faults = faultsIn(figures);
  return (
    <div>
      <div className="flex items-center gap-3">
        {faults.length > 0 ? (
          <TriangleAlert className="size-5 shrink-0 text-warn" aria-label={t.checkFailed} />
        ) : (
          <CircleCheck className="size-5 shrink-0 text-good" aria-hidden />
        )}
        <div className="min-w-0 grow">
          <p className="flex items-center gap-2 text-sm">
            <span className="truncate font-medium">{fileName}</span>
            {faults.length > 0 && <Tag text={t.checkFailed} />}
            {isChanged && (
              <Hint text={t.changedSinceHint}>
                <span>
                  <Tag text={t.changedSince} />
                </span>
              </Hint>
            )}
          </p>
          {about}
          {figures && <FiguresLine figures={figures} />}
          {(folder !== null || made < parts) && (
            <p className="truncate text-xs text-soft">
              {[
                ...(folder === null ? [] : [t.inFolder(folder)]),
                ...(made < parts ? [t.partsMade(made, parts)] : []),
              ].join(" · ")}
            </p>
          )}
        </div>
        {figures?.sidecars.map((name) => (
          <a key={name} href={fileAddress(item, name)} download className="text-xs underline underline-offset-2">
            {name.endsWith(".vtt") ? t.webVtt : t.srt}
          </a>
        ))}
        {isChanged && again && (
          <IconButton label={t.exportAgain} onClick={() => again(item)}>
            <RotateCw className="size-4" aria-hidden />
          </IconButton>
        )}
        <DownloadLink href={fileAddress(item, fileName)}>{t.download}</DownloadLink>
        <Remove {...props} />
      </div>
      {figures && figures.checks.length > 0 && (
        <div className="mt-1 pl-8">
          {faults.length > 0 ? (
            <>
              <CheckList checks={figures.checks} />
              <SaveFigures item={item} />
            </>
          ) : (
            <Fold title={t.checkDetails} quiet>
              <CheckList checks={figures.checks} />
              <SaveFigures item={item} />
            </Fold>
          )}
        </div>
      )}
    </div>
  );
}

const Tag = ({ text }: { text: string }) => (
  <span className="shrink-0 rounded-sm border border-warn px-1.5 text-xs font-medium text-warn">{text}</span>
);

/** Saves measurements and checks, to be kept with the file. */
const SaveFigures = ({ item: { fileName, figures } }: Pick<ExportRowProps, "item">) => (
  <button
    type="button"
    onClick={() => saveJson({ file: fileName, ...figures }, `${fileName}.check.json`)}
    className="mt-1 self-start text-xs underline underline-offset-2"
  >
    {t.asJson}
  </button>
);

const Remove = ({ item, change }: ExportRowProps) => (
  <IconButton label={t.deleteFile(item.fileName)} onClick={() => change("delete", item)}>
    <Trash2 className="size-4" aria-hidden />
  </IconButton>
);
