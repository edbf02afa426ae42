import { FileButton } from "~/components/common/file-button";
import { Plus, Upload as UploadIcon } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import { libraryTexts } from "~/texts/library";

const t = libraryTexts.addFilm;

/** The "Add a film" button: opens the file picker, or takes files dropped anywhere on the page. */
export function AddFilm({ onFiles }: { onFiles: (files: File[]) => void }) {
  const [over, setOver] = useState(false);
  const take = useRef(onFiles);
  useEffect(() => {
    take.current = onFiles;
  });

  useEffect(() => {
    const dragOver = (event: DragEvent) => {
      event.preventDefault();
      setOver(true);
    };
    const leave = (event: DragEvent) => {
      if (!event.relatedTarget) setOver(false);
    };
    const drop = (event: DragEvent) => {
      event.preventDefault();
      setOver(false);
      take.current([...(event.dataTransfer?.files ?? [])]);
    };
    window.addEventListener("dragover", dragOver);
    window.addEventListener("dragleave", leave);
    window.addEventListener("drop", drop);
    return () => {
      window.removeEventListener("dragover", dragOver);
      window.removeEventListener("dragleave", leave);
      window.removeEventListener("drop", drop);
    };
  }, []);

  return (
    <>
      <FileButton variant="accent" label={t.filmFiles} multiple onFiles={onFiles}>
        <Plus className="size-4" aria-hidden />
        {t.addAFilm}
      </FileButton>
      {over && (
        <div className="pointer-events-none fixed inset-0 z-40 flex flex-col items-center justify-center gap-3 border-4 border-accent bg-ground/90 font-display text-2xl font-semibold">
          <UploadIcon className="size-10 text-accent" aria-hidden />
          {t.dropYourFilmsHere}
        </div>
      )}
    </>
  );
}
