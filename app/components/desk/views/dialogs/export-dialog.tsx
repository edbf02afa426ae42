import { FolderOpen } from "lucide-react";
import { Dialog } from "radix-ui";
import { useState } from "react";
import { Link, useFetcher } from "react-router";
import { Button } from "~/components/common/button";
import { DialogPanel } from "~/components/common/dialog-panel";
import { Fold } from "~/components/common/fold";
import { TickBox } from "~/components/common/tick-box";
import { storeText, useStoredText } from "~/components/common/use-stored";
import { ExportRow } from "~/components/exports/export-row";
import { OutputFields } from "~/components/exports/output-fields";
import { outputSummary } from "~/components/exports/output-summary";
import { VersionFilesMenu } from "~/components/exports/version-files-menu";
import type { ExportView } from "~/core/film/film-status";
import { nameBy, namePartsOf, USUAL_PATTERN } from "~/core/formats/file-names";
import { outputFormat } from "~/core/formats/output-formats";
import { picturesOf } from "~/core/clips/clip";
import { keptRanges, secondsOver } from "~/core/version/trim";
import { framesIn, frameToSeconds } from "~/core/time/rate";
import { liesWithin } from "~/core/time/ranges";
import { useSharpAddress } from "../../frames/use-sharp-address";
import { useDesk } from "../../hooks/use-desk";
import type { DeskVersion } from "../../model/desk-types";
import { Enlargement } from "./size-field";
import { dialogsTexts } from "~/texts/dialogs";
import { exportsTexts } from "~/texts/exports";

const t = dialogsTexts.exportDialog;

/** Key under which this browser remembers the pattern of file names. */
const PATTERN_KEY = "glad-pan name of exports";

/** Exports versions to files, and lists the files with their measurements. */
export function ExportDialog() {
  const { exports } = useDesk("exports");
  const running = exports.find((item) => item.state === "running" || item.state === "queued");
  return (
    <Dialog.Root>
      <Dialog.Trigger asChild>
        <Button variant="accent" data-step="export">
          {running ? t.exporting(running.progress) : t.export}
        </Button>
      </Dialog.Trigger>
      <DialogPanel title={t.export} width="w-[46rem]">
        <ExportForm />
        <ExportedFiles />
      </DialogPanel>
    </Dialog.Root>
  );
}

/** Whether everything that a version shows has been analysed. */
function useIsReady(): (version: DeskVersion) => boolean {
  const { film, state, analysed } = useDesk("film", "state", "analysed");
  return (version) => liesWithin(keptRanges(version.trim, film.frames, state), analysed);
}

/** Which versions are exported, with which settings, and the names of the files. */
function ExportForm() {
  const { state, version: here, film } = useDesk("state", "version", "film");
  const { versions } = state;
  const fetcher = useFetcher();
  const isReady = useIsReady();
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set([here.id]));
  const pattern = useStoredText(PATTERN_KEY) ?? USUAL_PATTERN;
  const [replaces, setReplaces] = useState(false);
  const selected = versions.filter((version) => ticked.has(version.id) && isReady(version));
  const [first = here] = selected;
  const example = nameBy(pattern, namePartsOf(film.name, first, 1));
  const start = () =>
    void fetcher.submit(
      { intent: "export", versionIds: selected.map(({ id }) => id).join(","), pattern, replaces: String(replaces) },
      { method: "post" },
    );
  return (
    <div className="flex flex-col gap-4">
      <ul aria-label={t.versions} className="flex flex-col gap-2">
        {versions.map((version) => (
          <VersionRow
            key={version.id}
            version={version}
            isReady={isReady(version)}
            isTicked={ticked.has(version.id)}
            onTick={(is) =>
              setTicked((now) => new Set(is ? [...now, version.id] : [...now].filter((id) => id !== version.id)))
            }
          />
        ))}
      </ul>
      <div className="flex items-end gap-3">
        <label className="min-w-0 grow">
          <span className="text-xs text-soft">{t.name}</span>
          <input
            value={pattern}
            title={t.nameHint}
            maxLength={120}
            onChange={({ target }) => storeText(PATTERN_KEY, target.value || null)}
            className="w-full rounded-md border border-line bg-raised px-2 py-1 text-sm"
          />
        </label>
        <Button variant="accent" disabled={selected.length === 0 || fetcher.state !== "idle"} onClick={start}>
          {selected.length === 1 ? t.exportVersion(selected[0]!.name) : t.exportCount(selected.length)}
        </Button>
      </div>
      <div className="-mt-3 flex flex-wrap items-center gap-x-4 gap-y-1 text-xs text-soft">
        <span>{t.nameHint}</span>
        <span>{t.example(`${example}${outputFormat(first.output.format).extension}`)}</span>
        {selected.some(({ output }) => output.folder !== null) && (
          <label className="flex items-center gap-1.5 text-ink">
            <TickBox checked={replaces} onChange={setReplaces} />
            {t.replaces}
          </label>
        )}
      </div>
    </div>
  );
}

interface VersionRowProps {
  version: DeskVersion;
  isReady: boolean;
  isTicked: boolean;
  onTick: (isTicked: boolean) => void;
}

function VersionRow({ version, isReady, isTicked, onTick }: VersionRowProps) {
  const {
    film,
    state,
    out,
    versionCommands,
    version: here,
    player,
  } = useDesk("film", "state", "out", "versionCommands", "version", "player");
  const addressOf = useSharpAddress();
  const { output } = version;
  return (
    <li className="relative rounded-md border border-line bg-raised px-3 py-2">
      <div className="absolute top-1.5 right-2">
        <VersionFilesMenu
          filmId={film.id}
          version={version}
          hasCaptions={state.captions.length > 0}
          still={version.id === here.id ? () => addressOf(player?.getFrame() ?? 0) : undefined}
        />
      </div>
      <label className="flex items-start gap-3 pr-8">
        <span className="pt-0.5">
          <TickBox checked={isTicked && isReady} onChange={onTick} />
        </span>
        <span className="min-w-0 grow">
          <span className="flex items-baseline gap-2">
            <span className="truncate font-medium">{version.name}</span>
            <span className="text-xs text-soft">
              {version.width} × {version.height}
            </span>
          </span>
          <Length version={version} isReady={isReady} />
          <Enlargement pictures={picturesOf(state.clips, film.picture)} size={version} />
        </span>
      </label>
      <div className="mt-1 pl-7">
        <Fold title={exportsTexts.outputSummary.settings(outputSummary(output))} quiet>
          <OutputFields
            output={output}
            film={film}
            places={out}
            onChange={(change) => versionCommands.change(version.id, { output: { ...output, ...change } })}
          />
        </Fold>
      </div>
    </li>
  );
}

/** Length of the file, and by how much it exceeds the limit. */
function Length({ version, isReady }: Pick<VersionRowProps, "version" | "isReady">) {
  const { film, state } = useDesk("film", "state");
  const kept = keptRanges(version.trim, film.frames, state);
  const over = secondsOver(kept, film.rate, version.limitSeconds);
  const seconds = frameToSeconds(framesIn(kept), film.rate);
  return (
    <span className={over > 0 || !isReady ? "block text-xs text-warn" : "block text-xs text-soft"}>
      {t.s(seconds)}
      {framesIn(kept) < film.frames && t.ofTheFilmsS(frameToSeconds(film.frames, film.rate))}
      {over > 0 && version.limitSeconds !== null && t.overLimit(over, version.limitSeconds)}
      {!isReady && t.notAnalysed}
    </span>
  );
}

/** The film's exports, the newest first. */
function ExportedFiles() {
  const { exports, state } = useDesk("exports", "state");
  const fetcher = useFetcher();
  const post = (fields: Record<string, string>) => void fetcher.submit(fields, { method: "post" });
  const again = ({ versionId }: ExportView) => post({ intent: "export", versionIds: versionId });
  const isThere = (id: string) => state.versions.some((version) => version.id === id);
  return (
    <>
      <div className="mt-5 flex items-baseline justify-between">
        <h3 className="text-xs text-soft">{t.files}</h3>
        <Link to="/exports" className="flex items-center gap-1.5 text-xs underline underline-offset-2">
          <FolderOpen className="size-3.5" aria-hidden />
          {t.allExports}
        </Link>
      </div>
      {exports.length === 0 && <p className="mt-1 text-sm">{t.nothingRenderedYet}</p>}
      <ul aria-label={t.files} className="mt-1 flex flex-col gap-3">
        {exports.map((item) => (
          <li key={item.id}>
            <ExportRow
              item={item}
              change={(intent, { id }) => post({ intent, jobId: id })}
              again={isThere(item.versionId) ? again : undefined}
            />
          </li>
        ))}
      </ul>
    </>
  );
}
