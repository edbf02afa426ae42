/** Sends the editor's own pictures, films and fonts to the library. */
import type { OwnFont } from "~/core/composition/layers/own-font";
import type { Picture } from "~/core/composition/picture";
import { commonTexts } from "~/texts/common";

const t = commonTexts.sendOwnFile;

/** The server's answer: the stored file, or why it was refused. */
export interface Kept<T> {
  file: T | null;
  error: string | null;
}

const NOT_SENT = t.sendingFailed;

async function post<T>(url: string, body: BodyInit, headers?: HeadersInit): Promise<Kept<T>> {
  try {
    const response = await fetch(url, { method: "POST", body, ...(headers ? { headers } : {}) });
    const answer = (await response.json()) as Kept<T> | string;
    return typeof answer === "string" ? { file: null, error: answer } : answer;
  } catch {
    return { file: null, error: NOT_SENT };
  }
}

/** Whether a file is a film, which is uploaded by itself because it may be large. */
const isFilm = ({ type, name }: File): boolean =>
  type.startsWith("video/") || type === "image/gif" || /\.(mov|mkv|mxf|avi)$/i.test(name);

export function sendFont(file: File): Promise<Kept<OwnFont>> {
  const body = new FormData();
  body.set("font", file);
  return post("/own-files", body);
}

/**
 * Sends a picture, a film, or the numbered pictures of a sequence.
 *
 * @param rate of the film that it is for, "30000/1001": a sequence has none of its own
 */
export function sendPicture(files: readonly File[], rate: string): Promise<Kept<Picture>> {
  const [first] = files;
  if (files.length === 1 && isFilm(first!)) {
    const name = encodeURIComponent(first!.name);
    return post(`/own-files?name=${name}`, first!, { "content-type": "application/octet-stream" });
  }
  const body = new FormData();
  for (const file of files) body.append("picture", file);
  body.set("rate", rate);
  return post("/own-files", body);
}

/** Makes a film of the library available as a moving picture. */
export function takeFilm(filmId: string): Promise<Kept<Picture>> {
  const body = new FormData();
  body.set("film", filmId);
  return post("/own-files", body);
}

/** Films of the library that can be used this way; none while the server does not answer. */
export async function filmsToTake(): Promise<{ id: string; name: string }[]> {
  try {
    // The route's loader data, as one of its pages would load it.
    const response = await fetch("/own-files");
    return ((await response.json()) as { films: { id: string; name: string }[] }).films;
  } catch {
    return [];
  }
}
