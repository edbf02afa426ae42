import { mkdirSync } from "node:fs";
import { rm } from "node:fs/promises";
import { join } from "node:path";
import { FileStore } from "@tus/file-store";
import { Server } from "@tus/server";
import express, { type Router } from "express";
import { isDiskFull, isFull, requireSpace } from "~/disk/disk-space.server";
import { isId } from "~/core/basics/ids";
import { Refusal } from "~/core/basics/refusal";
import { findFilm } from "~/db/films.server";
import { takeIn } from "~/library/projects/take-in.server";
import { beginReplacement } from "~/library/replace/replace-source.server";
import { bytesToCome, filmNameOf, UPLOAD_ID } from "~/library/uploads/uploads.server";
import { DATA_FOLDER, dataFolder, db, diskIsFull, uploadsFolder } from "~/db/workplace.server";

/** The header from which the client reads the id of the new film. */
const FILM_HEADER = "Glad-Pan-Film";

const refusal = (status: number, message: string) => ({ status_code: status, body: message });

function createServer(): Server {
  const folder = uploadsFolder();
  return new Server({
    path: "/uploads",
    datastore: new FileStore({ directory: folder }),
    relativeLocation: true,
    // Pages of other sites have nothing to upload here.
    allowedOrigins: [],
    async onUploadCreate(_request, upload) {
      mkdirSync(folder, { recursive: true });
      if (upload.size === undefined) throw refusal(411, "The size of the film must be told first.");
      try {
        requireSpace(
          dataFolder(),
          DATA_FOLDER,
          upload.size + bytesToCome(),
          `the upload of ${filmNameOf(upload.metadata?.filename)}`,
        );
      } catch (error) {
        throw refusal(507, (error as Error).message);
      }
      return {};
    },
    async onUploadFinish(_request, upload) {
      const file = join(folder, upload.id);
      try {
        const { filename, style, replaces } = upload.metadata ?? {};
        const name = filmNameOf(filename);
        const film = replaces && isId(replaces) ? findFilm(db(), replaces) : null;
        if (film) await beginReplacement(film, file, name, "move");
        const id = film?.id ?? (await takeIn(file, name, "move", style ?? null));
        return { headers: { [FILM_HEADER]: id } };
      } catch (error) {
        throw error instanceof Refusal ? refusal(422, error.sentence) : error;
      } finally {
        await Promise.all([rm(file, { force: true }), rm(`${file}.json`, { force: true })]);
      }
    },
    onResponseError(_request, error) {
      if ("status_code" in error && error.status_code !== 500) return undefined;
      // An error does not always say so, but if there is no space, that is the reason.
      if (isDiskFull(error, dataFolder()) || isFull(dataFolder())) {
        return refusal(507, `${diskIsFull()}. Free some space and try again.`);
      }
      console.error(error);
      return refusal(500, "The upload failed.");
    },
  });
}

/**
 * Uploads by the tus protocol: a film is written to disk as it arrives, and an interrupted one is resumed. Once complete it
 * is probed; a file that is no film is refused with its name and the reason.
 */
export function uploadRoutes(): Router {
  // It creates its folder when it is constructed, which must not happen before the data folder is locked.
  let server: Server | null = null;
  const router = express.Router();
  router.use((request, response, next) => {
    const [, id, ...rest] = request.path.split("/");
    if (rest.length > 0 || (id && !UPLOAD_ID.test(id))) return void response.status(404).end();
    // Nobody needs to read back an upload.
    if (request.method === "GET") return void response.status(404).end();
    request.url = request.originalUrl;
    (server ??= createServer()).handle(request, response).catch(next);
  });
  return router;
}
