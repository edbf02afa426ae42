import { basename, join } from "node:path";
import express, { type Response, type Router } from "express";
import { findFilm } from "~/db/films.server";
import { db, exportsFolder, posterFile, proxyFile } from "~/jobs/workplace.server";

/** Sends a file with support for ranges, which is what lets a player seek; 404 while it is not there. */
function send(response: Response, file: string, maxAge: string): void {
  response.sendFile(file, { maxAge, dotfiles: "allow", acceptRanges: true }, (error) => {
    if (error && !response.headersSent) response.status(404).end();
  });
}

const IDENTIFIER = /^[\w-]+$/;

/** Films, their proxies, posters and finished exports. */
export function mediaRoutes(): Router {
  const router = express.Router();
  router.param("film", (_request, response, next, film: string) => {
    if (IDENTIFIER.test(film)) next();
    else response.status(404).end();
  });
  router.get("/:film/proxy.mp4", (request, response) => send(response, proxyFile(request.params.film), "1h"));
  router.get("/:film/original", (request, response) => {
    const film = findFilm(db(), request.params.film);
    if (film) send(response, film.file, "1h");
    else response.status(404).end();
  });
  router.get("/:film/poster.jpg", (request, response) => send(response, posterFile(request.params.film), "1h"));
  router.get("/:film/exports/:file", (request, response) => {
    const file = basename(request.params.file);
    response.attachment(file);
    send(response, join(exportsFolder(request.params.film), file), "0");
  });
  return router;
}
