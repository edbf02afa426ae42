import { Trash2 } from "lucide-react";
import { useState } from "react";
import { IconButton } from "~/components/common/button";
import { ProgressBar } from "~/components/common/progress-bar";
import { formatBytes } from "~/core/numbers/bytes";
import type { UnfinishedUpload } from "~/core/film/unfinished-upload";
import { libraryTexts } from "~/texts/library";

const t = libraryTexts.unfinishedUploads;

interface UnfinishedUploadsProps {
  uploads: readonly UnfinishedUpload[];
  onDiscarded: () => void;
}

/** Uploads that a closed page left unfinished: each continues when its file is added again. */
export function UnfinishedUploads({ uploads, onDiscarded }: UnfinishedUploadsProps) {
  const [discarding, setDiscarding] = useState<string | null>(null);
  if (uploads.length === 0) return null;
  const discard = async (id: string) => {
    setDiscarding(id);
    await fetch(`/uploads/${id}`, { method: "DELETE", headers: { "Tus-Resumable": "1.0.0" } });
    setDiscarding(null);
    onDiscarded();
  };
  return (
    <section aria-label={t.unfinishedUploads} className="mt-6 max-w-2xl rounded-lg border border-line bg-panel p-4">
      <h2 className="font-display font-semibold">{t.unfinishedUploads}</h2>
      <p className="mt-1 text-xs text-soft">{t.resumeHint}</p>
      <ul className="mt-3 flex flex-col gap-3">
        {uploads.map(({ id, name, size, arrived }) => (
          <li key={id} className="flex items-center gap-2">
            <div className="min-w-0 grow">
              <ProgressBar
                label={name}
                share={size > 0 ? arrived / size : 1}
                left={t.of(formatBytes(arrived), formatBytes(size))}
              />
            </div>
            <IconButton label={t.discardUpload(name)} disabled={discarding === id} onClick={() => void discard(id)}>
              <Trash2 className="size-4" aria-hidden />
            </IconButton>
          </li>
        ))}
      </ul>
    </section>
  );
}
