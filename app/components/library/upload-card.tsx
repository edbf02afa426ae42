import { X } from "lucide-react";
import { Button, IconButton } from "~/components/common/button";
import { describeLeft, ProgressBar } from "~/components/common/progress-bar";
import { formatBytes } from "~/core/numbers/bytes";
import { ArrivedPictures } from "./arrived-pictures";
import type { FilmUpload } from "./upload-film";
import { libraryTexts } from "~/texts/library";

const t = libraryTexts.uploadCard;

const DOING: Record<string, string> = {
  sending: t.adding,
  reconnecting: t.connectionLostTryingAgain,
  checking: t.lookingInto,
};

/** "1.2 of 3.4 GB · 88 MB/s · about 20 s left" */
function describe({ sent, total, bytesPerSecond }: FilmUpload): string {
  const parts = [t.of(formatBytes(sent), formatBytes(total))];
  if (bytesPerSecond) {
    parts.push(`${formatBytes(bytesPerSecond)}/s`);
    if (sent < total) parts.push(describeLeft((total - sent) / bytesPerSecond)!);
  }
  return parts.join(" · ");
}

interface UploadCardProps {
  upload: FilmUpload;
  onGoOn: () => void;
  onDismiss: () => void;
}

/** An upload: progress, received pictures, or what failed and a remedy. */
export function UploadCard({ upload, onGoOn, onDismiss }: UploadCardProps) {
  const { state, name, sent, total } = upload;
  const stop = () => {
    upload.abort();
    onDismiss();
  };
  return (
    <li className="rounded-lg border border-line bg-raised p-3 shadow-lg">
      <div className="flex items-start gap-2">
        <div className="min-w-0 grow">
          {upload.error ? (
            <>
              <p role="alert" className="text-sm text-warn">
                {upload.error}
              </p>
              {state === "interrupted" && (
                <Button className="mt-2" onClick={onGoOn}>
                  {t.resumeTheUpload}
                </Button>
              )}
            </>
          ) : (
            <ProgressBar
              label={`${DOING[state] ?? t.adding} ${name}`}
              share={total > 0 ? sent / total : 1}
              left={describe(upload)}
            />
          )}
        </div>
        <IconButton
          label={state === "refused" ? t.close : t.stopThisUpload}
          onClick={state === "refused" ? onDismiss : stop}
        >
          <X className="size-4" aria-hidden />
        </IconButton>
      </div>
      {state === "sending" && upload.serverId && (
        <ArrivedPictures uploadId={upload.serverId} sent={sent} total={total} />
      )}
    </li>
  );
}
