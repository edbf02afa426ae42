import { mkdirSync } from "node:fs";
import { rm } from "node:fs/promises";
import { join } from "node:path";
import { FileStore } from "@tus/file-store";
import { Server } from "@tus/server";
import express, { type Router } from "express";
import { addFilm } from "~/jobs/films.server";
import { uploadsFolder } from "~/jobs/workplace.server";
import { FilmError } from "~/media/film-tool.server";

/** The client reads the id of the new film from this header. */
const FILM_HEADER = "Glad-Pan-Film";

/**
 * Uploads by the tus protocol: a film goes to disk as it comes, and an interrupted one goes on where it was.
 * When the last byte is there it is looked into; a file that is no film is refused with its name and the reason.
 */
export function uploadRoutes(): Router {
  const folder = uploadsFolder();
  mkdirSync(folder, { recursive: true });
  const server = new Server({
    path: "/uploads",
    datastore: new FileStore({ directory: folder }),
    relativeLocation: true,
    async onUploadFinish(_request, upload) {
      const file = join(folder, upload.id);
      const name = upload.metadata?.filename ?? "film";
      try {
        const id = await addFilm(file, name, "move");
        return { headers: { [FILM_HEADER]: id } };
      } catch (error) {
        if (!(error instanceof FilmError)) throw error;
        throw { status_code: 422, body: error.message };
      } finally {
        await Promise.all([rm(file, { force: true }), rm(`${file}.json`, { force: true })]);
      }
    },
  });
  const router = express.Router();
  router.use((request, response) => {
    request.url = request.originalUrl;
    return server.handle(request, response);
  });
  return router;
}
