import { useState } from "react";
import type { UnfinishedUpload } from "~/core/film/unfinished-upload";
import { type FilmUpload, uploadFilm } from "./upload-film";

/** An unfinished upload of the same file on the server that this page is not continuing. */
export function beginningOf(
  file: Pick<File, "name" | "size" | "lastModified">,
  unfinished: readonly UnfinishedUpload[],
  uploads: readonly Pick<FilmUpload, "serverId">[],
): UnfinishedUpload | null {
  const busy = new Set(uploads.map(({ serverId }) => serverId));
  const isSame = ({ id, name, size, changedAt }: UnfinishedUpload) =>
    !busy.has(id) && name === file.name && size === file.size && changedAt === file.lastModified;
  return unfinished.find(isSame) ?? null;
}

/**
 * The uploads of this page.
 * @param presetId the preset for films that are added now
 */
export function useUploads(unfinished: readonly UnfinishedUpload[], presetId: string | null, onAdded: () => void) {
  const [uploads, setUploads] = useState<FilmUpload[]>([]);
  const dismiss = (id: string) => setUploads((all) => all.filter((upload) => upload.id !== id));

  const begin = (file: File, serverId: string | null) => {
    const upload = uploadFilm(file, presetId ? { style: presetId } : {}, serverId && `/uploads/${serverId}`, (now) => {
      setUploads((all) => all.map((other) => (other.id === now.id ? now : other)));
      if (now.state !== "done") return;
      dismiss(now.id);
      onAdded();
    });
    setUploads((all) => [...all, upload]);
  };
  const add = (files: readonly File[]) => {
    for (const file of files) begin(file, beginningOf(file, unfinished, uploads)?.id ?? null);
  };
  /** Retries an interrupted upload. */
  const goOn = ({ id, file, serverId }: FilmUpload) => {
    dismiss(id);
    begin(file, serverId);
  };
  return { uploads, add, dismiss, goOn };
}
