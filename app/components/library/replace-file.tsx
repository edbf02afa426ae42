import { FileButton } from "~/components/common/file-button";
import { Flag, HardDrive, Upload as UploadIcon } from "lucide-react";
import { Dialog } from "radix-ui";
import { useEffect, useState } from "react";
import { useFetcher } from "react-router";
import { Button } from "~/components/common/button";
import { DialogPanel } from "~/components/common/dialog-panel";
import { describeLeft, ProgressBar } from "~/components/common/progress-bar";
import { isUnderWay } from "~/components/common/use-polling";
import { matchNote, type Replacement } from "~/core/film/replacement";
import { frameToSeconds } from "~/core/time/rate";
import { formatTimecode } from "~/core/time/timecode";
import type { FilmIntent } from "./film-actions";
import { FilmOnDiskRow, FolderBrowser } from "./folder-browser";
import { useLibrary } from "./library-context";
import type { FilmView } from "./library-view";
import type { LinkAnswer } from "./media-browser";
import { type FilmUpload, uploadFilm } from "./upload-film";
import { libraryTexts } from "~/texts/library";

const t = libraryTexts.replaceFile;

/** Milliseconds between requests for the comparison's progress. */
const ASK_MS = 1000;

interface ReplaceFileProps {
  film: FilmView;
  act: (intent: FilmIntent) => void;
  onClose: () => void;
}

/** Replaces a film's file with a new export, after showing what matches. */
export function ReplaceFile({ film, act, onClose }: ReplaceFileProps) {
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <DialogPanel title={t.replaceTitle(film.name)} width="w-[40rem]" layout="flex flex-col gap-4">
        <Steps film={film} act={act} onClose={onClose} />
      </DialogPanel>
    </Dialog.Root>
  );
}

/** State of a replacement, polled while a comparison runs. */
function useReplacement(filmId: string): { replacement: Replacement | undefined; reload: () => void } {
  const { data, load, state } = useFetcher<Replacement>();
  const address = `/films/${filmId}/replacement`;
  useEffect(() => void load(address), [load, address]);
  const isBusy = data?.job ? isUnderWay(data.job) : false;
  useEffect(() => {
    if (!isBusy || state !== "idle") return;
    const timer = setTimeout(() => void load(address), ASK_MS);
    return () => clearTimeout(timer);
  }, [isBusy, state, load, address, data]);
  const reload = () => void load(address);
  return { replacement: data, reload };
}

function Steps({ film, act, onClose }: ReplaceFileProps) {
  const { replacement, reload } = useReplacement(film.id);
  const [upload, setUpload] = useState<FilmUpload | null>(null);
  const send = (file: File) => {
    const sent = uploadFilm(file, { replaces: film.id }, null, (now) => {
      setUpload(now.state === "done" ? null : now);
      if (now.state === "done") reload();
    });
    setUpload(sent);
  };
  const close = (intent: FilmIntent["intent"] & ("replace" | "give-up-replacement")) => {
    act({ intent });
    onClose();
  };
  if (!replacement) return <p className="text-sm text-soft">{t.looking}</p>;
  const { job, found } = replacement;
  if (upload && !upload.error) {
    return <ProgressBar label={t.sending(upload.name)} share={upload.sent / upload.total} left="" />;
  }
  if (job && isUnderWay(job)) {
    return (
      <>
        <ProgressBar label={job.step || t.waiting} share={job.progress} left={describeLeft(job.secondsLeft)} />
        <Button className="self-end" onClick={() => close("give-up-replacement")}>
          {t.cancel}
        </Button>
      </>
    );
  }
  if (found) {
    return (
      <Comparison
        film={film}
        found={found}
        onReplace={() => close("replace")}
        onGiveUp={() => close("give-up-replacement")}
      />
    );
  }
  return (
    <SelectExport filmId={film.id} problem={upload?.error ?? job?.error ?? null} onFile={send} onLinked={reload} />
  );
}

interface SelectExportProps {
  filmId: string;
  problem: string | null;
  onFile: (file: File) => void;
  /** Called when a file on this machine was selected. */
  onLinked: () => void;
}

/** A new export on this machine, used where it is. */
function FromHere({ filmId, onLinked }: Pick<SelectExportProps, "filmId" | "onLinked">) {
  const [asked, setAsked] = useState<string | null>(null);
  const { data, state, submit } = useFetcher<LinkAnswer>();
  useEffect(() => {
    if (data && "linked" in data) onLinked();
  }, [data, onLinked]);
  const use = (path: string) => {
    setAsked(path);
    void submit({ intent: "link", path, replaces: filmId }, { method: "post", action: "/?index" });
  };
  const problem = data && "error" in data ? data.error : null;
  return (
    <FolderBrowser
      film={(film) => (
        <FilmOnDiskRow film={film} problem={film.path === asked ? problem : null}>
          <Button aria-label={t.useFilm(film.name)} disabled={state !== "idle"} onClick={() => use(film.path)}>
            {t.use}
          </Button>
        </FilmOnDiskRow>
      )}
    />
  );
}

function SelectExport({ filmId, problem, onFile, onLinked }: SelectExportProps) {
  const [isHere, setHere] = useState(false);
  const { hasFolders } = useLibrary();
  return (
    <>
      <p className="text-sm text-soft">{t.selectHint}</p>
      {problem && (
        <p role="alert" className="text-sm text-warn">
          {problem}
        </p>
      )}
      <div className="flex gap-2">
        <FileButton variant="accent" label={t.newExport} onFiles={([file]) => onFile(file!)}>
          <UploadIcon className="size-4" aria-hidden />
          {t.selectNewFile}
        </FileButton>
        {hasFolders && (
          <Button onClick={() => setHere(true)} disabled={isHere}>
            <HardDrive className="size-4" aria-hidden />
            {t.fromThisMachine}
          </Button>
        )}
      </div>
      {isHere && <FromHere filmId={filmId} onLinked={onLinked} />}
    </>
  );
}

interface ComparisonProps {
  film: FilmView;
  found: NonNullable<Replacement["found"]>;
  onReplace: () => void;
  onGiveUp: () => void;
}

/** What matches and what does not, before the file is replaced. */
function Comparison({ film, found, onReplace, onGiveUp }: ComparisonProps) {
  const { shots, lost, newFrames, isReshaped, name } = found;
  const worth = shots.flatMap((shot) => {
    const note = matchNote(shot);
    return note ? [{ ...shot, note }] : [];
  });
  const lines = [
    t.ofAreTheSame(shots.length - worth.length, shots.length),
    ...(newFrames > 0 ? [t.sOfItIsNew(frameToSeconds(newFrames, film.info.rate))] : []),
    ...(lost.keys > 0 ? [t.keyframesLost(lost.keys)] : []),
    ...(lost.marks > 0 ? [t.marksLost(lost.marks)] : []),
    ...(isReshaped ? [t.itsPictureHasAnotherShape] : []),
  ];
  return (
    <>
      <div>
        <p className="text-sm font-medium">{name}</p>
        <ul className="mt-1 text-sm text-soft">
          {lines.map((line) => (
            <li key={line}>{line}</li>
          ))}
        </ul>
      </div>
      {worth.length > 0 && (
        <section aria-label={t.shotsToReview}>
          <h3 className="flex items-center gap-1.5 text-sm font-medium">
            <Flag className="size-4 text-warn" aria-hidden />
            {t.toReview(worth.length)}
          </h3>
          <ul className="mt-1 flex max-h-64 flex-col overflow-y-auto text-sm">
            {worth.map((shot) => (
              <li key={shot.id} className="flex gap-3 border-b border-line py-1">
                <span className="w-40 truncate">
                  {shot.number}
                  {shot.name && ` ${shot.name}`}
                </span>
                <span className="font-mono text-xs leading-5 text-soft">
                  {formatTimecode(shot.start, film.info.rate)}
                </span>
                <span className="text-warn">{shot.note}</span>
              </li>
            ))}
          </ul>
        </section>
      )}
      <p className="text-xs text-soft">{t.theFilmIsAnalysedAgain}</p>
      <div className="flex justify-end gap-2 border-t border-line pt-4">
        <Button onClick={onGiveUp}>{t.keepTheCurrentFile}</Button>
        <Button variant="accent" onClick={onReplace}>
          {t.replaceTheFile}
        </Button>
      </div>
    </>
  );
}
