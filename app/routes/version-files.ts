import { Readable } from "node:stream";
import { zipOf } from "~/disk/zip.server";
import { VERSION_FILES, versionFiles } from "~/jobs/version-files.server";
import type { Route } from "./+types/version-files";
import { orRefuse, refusal, requireFilm } from "./requests.server";
import { exportsTexts } from "~/texts/exports";

const t = exportsTexts.versionFilesRoute;

const saved = (body: BodyInit, name: string, type: string) =>
  new Response(body, {
    headers: {
      "content-type": type,
      "content-disposition": `attachment; filename*=UTF-8''${encodeURIComponent(name)}`,
    },
  });

/** What is known of a version as a file: `…/path.csv`, `…/timeline.otio`, or all of it as `…/all.zip`. */
export function loader({ params }: Route.LoaderArgs) {
  const film = requireFilm(params.filmId);
  const { base, write } = orRefuse(() => versionFiles(film, params.versionId));
  if (params.file === "all.zip") {
    const parts = VERSION_FILES.flatMap((file) => {
      const text = write(file);
      return text === null ? [] : [{ name: `${base}/${file}`, text }];
    });
    const stream = Readable.toWeb(zipOf(parts)) as ReadableStream<Uint8Array>;
    return saved(stream, `${base}.zip`, "application/zip");
  }
  const file = VERSION_FILES.find((known) => known === params.file);
  const text = file && write(file);
  if (!file || text == null) throw refusal(404, t.thereIsNoSuchFile);
  const type = file.endsWith(".json") || file.endsWith(".otio") ? "application/json" : "text/plain; charset=utf-8";
  return saved(text, `${base} ${file}`, type);
}
