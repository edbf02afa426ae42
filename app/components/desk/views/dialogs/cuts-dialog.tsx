import { FileButton } from "~/components/common/file-button";
import { ListVideo, Upload } from "lucide-react";
import { Dialog } from "radix-ui";
import { useState } from "react";
import { useFetcher } from "react-router";
import { Button, IconButton } from "~/components/common/button";
import { DialogPanel } from "~/components/common/dialog-panel";
import { Slider } from "~/components/common/slider";
import { DownloadLink } from "~/components/common/download-link";
import type { CutComparison, ListReading } from "~/core/formats/compare-cuts";
import type { Transition } from "~/core/shots/transition";
import { dialogsTexts } from "~/texts/dialogs";

const t = dialogsTexts.cutsDialog;

interface CutsDialogProps {
  filmId: string;
  shots: number;
  /** Null while the analysis is under way. */
  sensitivity: number | null;
  onSensitivity: (sensitivity: number) => void;
  onUse: (transitions: Transition[]) => void;
  onSeek: (frame: number) => void;
}

const FORMATS = [
  { format: "edl", name: "EDL" },
  { format: "otio", name: t.openTimelineIO },
  { format: "csv", name: t.tableCsv },
];

/** Sensitivity of the search for cuts, and import and export of cut lists. */
export function CutsDialog({ filmId, shots, sensitivity, onSensitivity, onUse, onSeek }: CutsDialogProps) {
  const [open, setOpen] = useState(false);
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger asChild>
        <IconButton label={t.cutsSensitivityImportAndExport} disabled={shots === 0 || sensitivity === null}>
          <ListVideo className="size-4" aria-hidden />
        </IconButton>
      </Dialog.Trigger>
      <DialogPanel title={t.cuts} width="w-[32rem]" layout="flex flex-col gap-6">
        <section aria-label={t.sensitivity}>
          <Slider
            label={t.cutSensitivity}
            value={sensitivity ?? 0}
            max={100}
            ends={[t.certainCutsOnly, t.everyPossibleCut]}
            heading={(value) => (
              <div className="flex items-baseline justify-between">
                <h3 className="font-medium">{t.cutSensitivity}</h3>
                <span className="text-sm text-soft">{t.now(value, shots)}</span>
              </div>
            )}
            onChange={onSensitivity}
          />
          <p className="mt-2 text-xs text-soft">{t.sensitivityHint}</p>
        </section>
        <BringIn filmId={filmId} onUse={onUse} onSeek={onSeek} onDone={() => setOpen(false)} />
        <section aria-label={t.exportCuts}>
          <h3 className="font-medium">{t.exportCuts}</h3>
          <div className="mt-2 flex gap-2">
            {FORMATS.map(({ format, name }) => (
              <DownloadLink key={format} href={`/films/${filmId}/cuts/${format}`}>
                {name}
              </DownloadLink>
            ))}
          </div>
        </section>
      </DialogPanel>
    </Dialog.Root>
  );
}

interface BringInProps extends Pick<CutsDialogProps, "filmId" | "onUse" | "onSeek"> {
  onDone: () => void;
}

function BringIn({ filmId, onUse, onSeek, onDone }: BringInProps) {
  const fetcher = useFetcher<ListReading>();
  const read = fetcher.data;
  const send = (file: File) => {
    const form = new FormData();
    form.set("list", file);
    void fetcher.submit(form, {
      method: "post",
      encType: "multipart/form-data",
      action: `/films/${filmId}/cuts/list`,
    });
  };
  return (
    <section aria-label={t.importCuts}>
      <h3 className="font-medium">{t.importCuts}</h3>
      <p className="mt-1 text-xs text-soft">{t.importHint}</p>
      <FileButton
        className="mt-2"
        label={t.listOfCuts}
        accept=".edl,.otio,.csv,.txt"
        disabled={fetcher.state !== "idle"}
        onFiles={([file]) => send(file!)}
      >
        <Upload className="size-4" aria-hidden />
        {fetcher.state === "idle" ? t.selectList : t.reading}
      </FileButton>
      {read?.error && (
        <p role="alert" className="mt-2 text-sm text-warn">
          {read.name}: {read.error}.
        </p>
      )}
      {read?.comparison && (
        <div className="mt-3 rounded-md border border-line bg-raised p-3 text-sm">
          <p className="font-medium">{read.name}</p>
          <Differences comparison={read.comparison} onSeek={onSeek} />
          <Button
            variant="accent"
            className="mt-2"
            onClick={() => {
              onUse(read.transitions!);
              onDone();
            }}
          >
            {t.useTheseCuts}
          </Button>
        </div>
      )}
    </section>
  );
}

/** Differing frames that are listed before "and so many more". */
const SHOWN_FRAMES = 6;

function Differences({ comparison, onSeek }: { comparison: CutComparison; onSeek: (frame: number) => void }) {
  const { same, near, onlyHere, onlyThere } = comparison;
  const rows = [
    { text: t.aFrameOrTwoOff, frames: near.map(({ there }) => there) },
    { text: t.onlyInTheList, frames: onlyThere },
    { text: t.onlyInFilm, frames: onlyHere },
  ].filter(({ frames }) => frames.length > 0);
  return (
    <ul className="mt-1 flex flex-col gap-1 text-xs">
      <li>{t.theSame(same)}</li>
      {rows.map(({ text, frames }) => (
        <li key={text} className="flex flex-wrap items-center gap-1">
          {frames.length} {text}:
          {frames.slice(0, SHOWN_FRAMES).map((frame) => (
            <button
              key={frame}
              type="button"
              onClick={() => onSeek(frame)}
              className="rounded-sm bg-well px-1.5 font-mono hover:bg-line"
            >
              {frame}
            </button>
          ))}
          {frames.length > SHOWN_FRAMES && <span className="text-soft">{t.andMore(frames.length - SHOWN_FRAMES)}</span>}
        </li>
      ))}
    </ul>
  );
}
