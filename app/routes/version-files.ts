import { Readable } from "node:stream";
import { zipOf } from "~/disk/zip.server";
import { VERSION_FILES } from "~/library/versions/version-files.server";
import { writeVersionFiles } from "~/library/versions/write-version-files.server";
import type { Route } from "./+types/version-files";
import { orRefuseLater, refusal, requireFilm } from "./requests.server";
import { exportsTexts } from "~/texts/exports";

const t = exportsTexts.versionFilesRoute;

const saved = (body: BodyInit, name: string, type: string) =>
  new Response(body, {
    headers: {
      "content-type": type,
      "content-disposition": `attachment; filename*=UTF-8''${encodeURIComponent(name)}`,
    },
  });

/** A version as a file: `…/path.csv`, `…/timeline.otio`, or everything as `…/all.zip`. */
export async function loader({ params }: Route.LoaderArgs) {
  const film = requireFilm(params.filmId);
  const wanted = VERSION_FILES.filter((known) => params.file === "all.zip" || known === params.file);
  if (wanted.length === 0) throw refusal(404, t.thereIsNoSuchFile);
  const { base, texts } = await orRefuseLater(() => writeVersionFiles(film, params.versionId, wanted));
  const written = texts.flatMap(({ file, text }) => (text === null ? [] : [{ file, text }]));
  if (params.file === "all.zip") {
    const parts = written.map(({ file, text }) => ({ name: `${base}/${file}`, text }));
    const stream = Readable.toWeb(zipOf(parts)) as ReadableStream<Uint8Array>;
    return saved(stream, `${base}.zip`, "application/zip");
  }
  const [only] = written;
  if (!only) throw refusal(404, t.thereIsNoSuchFile);
  const isJson = only.file.endsWith(".json") || only.file.endsWith(".otio");
  return saved(only.text, `${base} ${only.file}`, isJson ? "application/json" : "text/plain; charset=utf-8");
}
