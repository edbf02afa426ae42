import { DetailedError, Upload } from "tus-js-client";

export interface FilmUpload {
  id: string;
  name: string;
  state: "sending" | "checking" | "done" | "refused";
  /** 0 to 1. */
  share: number;
  error: string | null;
  abort: () => void;
}

/** Sent in pieces, so that an interruption costs one piece. */
const CHUNK_BYTES = 16 * 1024 * 1024;

/** Answers that stay the same however often one asks: no film, no space. */
const REFUSALS = [403, 411, 413, 422, 507];

const isRefusal = (error: Error | DetailedError): error is DetailedError =>
  error instanceof DetailedError && REFUSALS.includes(error.originalResponse?.getStatus() ?? 0);

function messageOf(error: Error | DetailedError, name: string): string {
  if (isRefusal(error)) return error.originalResponse!.getBody();
  return `${name}: the upload was interrupted. Check that Glad Pan is still running, and add the file again; it goes on where it was.`;
}

/** Uploads a film, and calls back with each change until it is done or refused. */
export function uploadFilm(file: File, onChange: (upload: FilmUpload) => void): FilmUpload {
  const state: FilmUpload = {
    id: crypto.randomUUID(),
    name: file.name,
    state: "sending",
    share: 0,
    error: null,
    abort: () => void upload.abort(true),
  };
  const report = (change: Partial<FilmUpload>) => onChange(Object.assign(state, change) && { ...state });
  const upload = new Upload(file, {
    endpoint: "/uploads",
    chunkSize: CHUNK_BYTES,
    retryDelays: [0, 1000, 3000],
    metadata: { filename: file.name },
    removeFingerprintOnSuccess: true,
    onShouldRetry: (error) => !isRefusal(error),
    onProgress: (sent, total) => {
      const share = total > 0 ? sent / total : 1;
      report({ state: share >= 1 ? "checking" : "sending", share });
    },
    onSuccess: () => report({ state: "done", share: 1 }),
    onError: (error) => report({ state: "refused", error: messageOf(error, file.name) }),
  });
  // An upload of the same file that was interrupted goes on from where it was.
  void upload.findPreviousUploads().then((previous) => {
    if (previous[0]) upload.resumeFromPreviousUpload(previous[0]);
    upload.start();
  });
  return state;
}
