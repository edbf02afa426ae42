import { DetailedError, Upload } from "tus-js-client";
import { libraryTexts } from "~/texts/library";

const t = libraryTexts.uploadFilm;

export interface FilmUpload {
  id: string;
  name: string;
  file: File;
  state: "sending" | "reconnecting" | "checking" | "done" | "refused" | "interrupted";
  /** Bytes received, and in all. */
  sent: number;
  total: number;
  /** Over the last seconds; null while it is too early to say. */
  bytesPerSecond: number | null;
  /** Its id on the server; null until it has begun. */
  serverId: string | null;
  /** What failed, in a sentence. */
  error: string | null;
  /** Cancels it and discards what was received. */
  abort: () => void;
}

/** Sent in pieces, so that an interruption costs one piece. */
const CHUNK_BYTES = 16 * 1024 * 1024;

/** Milliseconds before each retry: over two minutes, in which a server can be restarted. */
const RETRY_DELAYS = [0, 1000, 2000, 4000, 8000, 15_000, 30_000, 30_000, 60_000];

/** Answers that retrying cannot change: no film, no space. */
const REFUSALS = [403, 411, 413, 422, 507];

/** Seconds over which the speed is averaged. */
const SPEED_SECONDS = 6;

const isRefusal = (error: Error | DetailedError): error is DetailedError =>
  error instanceof DetailedError && REFUSALS.includes(error.originalResponse?.getStatus() ?? 0);

/** Recent speed of an upload. */
class Speed {
  private samples: { at: number; sent: number }[] = [];

  take(sent: number, at = performance.now() / 1000): number | null {
    this.samples = [...this.samples.filter((sample) => at - sample.at <= SPEED_SECONDS), { at, sent }];
    const first = this.samples[0]!;
    return at - first.at < 1 ? null : (sent - first.sent) / (at - first.at);
  }
}

/**
 * Uploads a film, and calls back with each change until it is done, refused, or interrupted for long.
 * @param wanted the preset that the film begins with, or the film whose file it replaces
 * @param url of an earlier upload of the same file, which is continued
 */
export function uploadFilm(
  file: File,
  wanted: { style?: string; replaces?: string },
  url: string | null,
  onChange: (upload: FilmUpload) => void,
): FilmUpload {
  const speed = new Speed();
  const state: FilmUpload = {
    id: crypto.randomUUID(),
    name: file.name,
    file,
    state: "sending",
    sent: 0,
    total: file.size,
    bytesPerSecond: null,
    serverId: null,
    error: null,
    abort: () => void upload.abort(true),
  };
  const report = (change: Partial<FilmUpload>) => onChange(Object.assign(state, change) && { ...state });
  const upload = new Upload(file, {
    endpoint: "/uploads",
    ...(url ? { uploadUrl: url } : {}),
    chunkSize: CHUNK_BYTES,
    retryDelays: RETRY_DELAYS,
    metadata: { filename: file.name, changed: String(file.lastModified), ...wanted },
    // The server knows what it received, from other browsers too.
    storeFingerprintForResuming: false,
    onUploadUrlAvailable: () => report({ serverId: upload.url?.split("/").at(-1) ?? null }),
    onShouldRetry: (error) => {
      if (isRefusal(error)) return false;
      report({ state: "reconnecting", bytesPerSecond: null });
      return true;
    },
    onProgress: (sent, total) => {
      report({ state: sent >= total ? "checking" : "sending", sent, bytesPerSecond: speed.take(sent) });
    },
    onSuccess: () => report({ state: "done", sent: file.size }),
    onError: (error) =>
      isRefusal(error)
        ? report({ state: "refused", error: error.originalResponse!.getBody() })
        : report({
            state: "interrupted",
            error: t.theConnectionToGladPan(file.name),
          }),
  });
  upload.start();
  return state;
}
