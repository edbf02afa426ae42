import { Download } from "lucide-react";
import { useRef, useState } from "react";
import { toast } from "sonner";
import { Button } from "~/components/common/button";
import { Menu, MenuItem } from "~/components/common/menu";
import { saveFile, saveJson } from "~/components/common/save-file";
import { asName, titleOf } from "~/core/formats/file-names";
import { flagsCsv, flagsJson } from "~/core/formats/flags";
import { useDesk } from "../../hooks/use-desk";
import { asOnePicture, asPdf, blobOf, drawContactSheet } from "./contact-sheet";
import { checksTexts } from "~/texts/checks";

const t = checksTexts.checkDownloads;

/** Saves the list of flags, and a contact sheet, which is drawn in the browser. */
export function CheckDownloads() {
  const { film, version, shots, shownAt, source, checks } = useDesk(
    "film",
    "version",
    "shots",
    "shownAt",
    "source",
    "checks",
  );
  const [drawn, setDrawn] = useState<number | null>(null);
  const drawing = useRef<AbortController | null>(null);
  const name = asName(`${titleOf(film.name)} ${version.name}`);
  const listed = () => ({
    film: film.name,
    version: version.name,
    clock: film.clock,
    flags: checks.all.map(({ shot, ...flag }) => ({ ...flag, shot: shot.number })),
  });
  const drawSheet = async (kind: "png" | "pdf") => {
    const control = new AbortController();
    drawing.current = control;
    setDrawn(0);
    try {
      const shown = shots.filter(({ kept, solved }) => kept.length > 0 && solved);
      const pages = await drawContactSheet(
        { film, version, shots: shown, shownAt, source },
        { onProgress: setDrawn, signal: control.signal },
      );
      const blob = kind === "pdf" ? await asPdf(pages, name) : await blobOf(asOnePicture(pages), "image/png");
      saveFile(blob, `${name}.${kind}`);
    } catch (error) {
      if (!control.signal.aborted) {
        console.error(error);
        toast.error(t.couldNotBeDrawn);
      }
    }
    setDrawn(null);
  };
  if (drawn !== null) {
    return (
      <span className="flex items-center gap-2 text-sm">
        <span role="status">{t.drawing(drawn, shots.length)}</span>
        <Button onClick={() => drawing.current?.abort()}>{t.cancel}</Button>
      </span>
    );
  }
  return (
    <Menu
      align="end"
      trigger={
        <Button>
          <Download className="size-4" aria-hidden />
          {t.save}
        </Button>
      }
    >
      <MenuItem onSelect={() => saveFile(new Blob([flagsCsv(listed())], { type: "text/csv" }), `${name}.csv`)}>
        {t.csv}
      </MenuItem>
      <MenuItem onSelect={() => saveJson(flagsJson(listed()), `${name}.json`)}>{t.json}</MenuItem>
      <MenuItem onSelect={() => void drawSheet("png")}>{t.contactSheetPng}</MenuItem>
      <MenuItem onSelect={() => void drawSheet("pdf")}>{t.contactSheetPdf}</MenuItem>
    </Menu>
  );
}
