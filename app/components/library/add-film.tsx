import { Plus, Upload as UploadIcon, X } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import { Button, IconButton } from "~/components/common/button";
import { ProgressBar } from "~/components/common/progress-bar";
import { type FilmUpload, uploadFilm } from "./upload-film";

/** "Add a film": picks files, or takes what is dropped anywhere on the page, and shows each upload. */
export function AddFilm({ onAdded }: { onAdded: () => void }) {
  const input = useRef<HTMLInputElement>(null);
  const [uploads, setUploads] = useState<FilmUpload[]>([]);
  const [over, setOver] = useState(false);

  const change = (upload: FilmUpload) =>
    setUploads((all) => all.map((other) => (other.id === upload.id ? upload : other)));
  const dismiss = (id: string) => setUploads((all) => all.filter((upload) => upload.id !== id));
  const add = (files: FileList | null) => {
    for (const file of files ?? []) {
      const upload = uploadFilm(file, (now) => {
        change(now);
        if (now.state !== "done") return;
        dismiss(now.id);
        onAdded();
      });
      setUploads((all) => [...all, upload]);
    }
  };
  const addRef = useRef(add);
  useEffect(() => {
    addRef.current = add;
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
      addRef.current(event.dataTransfer?.files ?? null);
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
      <input
        ref={input}
        type="file"
        multiple
        hidden
        aria-label="Film files"
        onChange={(event) => {
          add(event.target.files);
          event.target.value = "";
        }}
      />
      <Button look="accent" onClick={() => input.current?.click()}>
        <Plus className="size-4" aria-hidden />
        Add a film
      </Button>
      {over && (
        <div className="pointer-events-none fixed inset-0 z-40 flex flex-col items-center justify-center gap-3 border-4 border-accent bg-ground/90 font-display text-2xl font-semibold">
          <UploadIcon className="size-10 text-accent" aria-hidden />
          Drop your films here
        </div>
      )}
      {uploads.length > 0 && (
        <ul className="fixed right-6 bottom-6 z-30 flex w-80 flex-col gap-2">
          {uploads.map((upload) => (
            <UploadCard key={upload.id} upload={upload} onDismiss={() => dismiss(upload.id)} />
          ))}
        </ul>
      )}
    </>
  );
}

function UploadCard({ upload, onDismiss }: { upload: FilmUpload; onDismiss: () => void }) {
  const stop = () => {
    upload.abort();
    onDismiss();
  };
  return (
    <li className="rounded-lg border border-line bg-raised p-3 shadow-lg">
      <div className="flex items-start gap-2">
        <div className="min-w-0 grow">
          {upload.state === "refused" ? (
            <p role="alert" className="text-sm text-warn">
              {upload.error}
            </p>
          ) : (
            <ProgressBar
              label={upload.state === "checking" ? `Looking into ${upload.name}` : `Adding ${upload.name}`}
              share={upload.share}
            />
          )}
        </div>
        <IconButton
          label={upload.state === "refused" ? "Close" : "Stop this upload"}
          onClick={upload.state === "refused" ? onDismiss : stop}
        >
          <X className="size-4" aria-hidden />
        </IconButton>
      </div>
    </li>
  );
}
