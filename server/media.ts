import { basename } from "node:path";
import { pipeline } from "node:stream";
import express, { type NextFunction, type Response, type Router } from "express";
import { z } from "zod";
import { PANES } from "~/core/composition/stack";
import { Length, Pixels } from "~/core/geometry/box";
import { Id, isId } from "~/core/basics/ids";
import { Refusal } from "~/core/basics/refusal";
import { findFilm } from "~/db/films.server";
import { isDiskFull } from "~/disk/disk-space.server";
import { findExportFile } from "~/library/exports/exports.server";
import { findPoster, lightCopyOf } from "~/library/own/own-moving.server";
import { saveProject } from "~/library/projects/save-project.server";
import { piece } from "~/library/proxy/proxy-pieces.server";
import { waveformFile } from "~/library/proxy/waveforms.server";
import { sharpFrame } from "~/library/exports/sharp-frame.server";
import { dataFolder, db, diskIsFull, posterFile } from "~/db/workplace.server";
import { CancelledError } from "~/media/tool.server";

/** Windows of the source, one per pane: "960,540,1080;400,540,700" for their centres and heights. */
const Windows = z
  .string()
  .max(500)
  .transform((text) => text.split(";").map((window) => window.split(",").map(Number)))
  .pipe(z.array(z.tuple([Pixels, Pixels, Length])).max(PANES.length))
  .transform((windows) => windows.map(([x, y, height]) => ({ x, y, height })));

interface Sent {
  file: string;
  mediaType: string;
  maxAge: string;
}

/** Sends a file with support for ranges, which lets a player seek; 404 while it does not exist. */
function send(response: Response, { file, mediaType, maxAge }: Sent): void {
  response.sendFile(file, { maxAge, dotfiles: "allow", headers: { "Content-Type": mediaType } }, (error) => {
    if (!error || response.headersSent) return;
    const status = (error as Error & { status?: number }).status ?? 404;
    response.status(status === 416 ? 416 : 404).end();
  });
}

/** Answers with the reason why something cannot be made, where that is no fault of ours. */
const refusing =
  (response: Response, next: NextFunction) =>
  (error: unknown): void => {
    const say = (status: number, why: string) => void response.status(status).type("text/plain").send(why);
    if (error instanceof CancelledError) response.end();
    else if (error instanceof Refusal) say(error.status, error.sentence);
    else if (isDiskFull(error, dataFolder())) say(507, `${diskIsFull()}.`);
    else next(error);
  };

/** Places of captions in the safe area, by their ids: "k2J:0.86,q9x:1". */
const Places = z
  .string()
  .max(2000)
  .default("")
  .transform((text) =>
    text
      .split(",")
      .filter((each) => each !== "")
      .map((each) => each.split(":")),
  )
  .pipe(z.array(z.tuple([Id, z.string()])))
  .transform((places) => new Map(places.map(([id, place]) => [id, Number(place)] as const)))
  .refine((places) => [...places.values()].every((place) => place >= 0 && place <= 1));

/** Films, their proxies, posters and finished exports. */
export function mediaRoutes(): Router {
  const router = express.Router();
  router.param("film", (_request, response, next, id: string) => {
    if (isId(id) && findFilm(db(), id)) next();
    else response.status(404).end();
  });
  router.get("/:film/proxy/:piece.mp4", (request, response, next) => {
    const film = findFilm(db(), request.params.film)!;
    if (!/^\d{1,6}$/.test(request.params.piece)) return void response.status(404).end();
    const gone = new AbortController();
    response.on("close", () => gone.abort());
    piece(film, Number(request.params.piece), gone.signal)
      .then((file) => {
        if (file) send(response, { file, mediaType: "video/mp4", maxAge: "1h" });
        else response.status(404).end();
      })
      .catch(refusing(response, next));
  });
  router.get("/moving/:id/light", (request, response, next) => {
    lightCopyOf(request.params.id)
      .then((light) => {
        if (light) send(response, { file: light.file, mediaType: light.type, maxAge: "365d" });
        else response.status(404).end();
      })
      .catch(refusing(response, next));
  });
  router.get("/moving/:id/first.png", (request, response) => {
    const first = findPoster(request.params.id);
    if (first) send(response, { file: first.file, mediaType: first.type, maxAge: "365d" });
    else response.status(404).end();
  });
  router.get("/:film/work.gladpan", (request, response, next) => {
    const film = findFilm(db(), request.params.film)!;
    saveProject(film, request.query.with === "film")
      .then(({ name, stream }) => {
        response.attachment(name).type("application/zip");
        pipeline(stream, response, (error) => {
          if (error && !response.destroyed) response.destroy(error);
        });
      })
      .catch((error: unknown) => {
        if (error instanceof Refusal) response.status(error.status).type("text/plain").send(`${error.sentence}\n`);
        else next(error);
      });
  });
  router.get("/:film/poster.jpg", (request, response) =>
    send(response, { file: posterFile(request.params.film), mediaType: "image/jpeg", maxAge: "1h" }),
  );
  router.get("/:film/waveform-:index.bin", (request, response, next) => {
    const film = findFilm(db(), request.params.film)!;
    if (String(film.info.audio?.index) !== request.params.index) return void response.status(404).end();
    waveformFile(film)
      .then((file) => {
        if (file) send(response, { file, mediaType: "application/octet-stream", maxAge: "1h" });
        else response.status(404).end();
      })
      .catch(refusing(response, next));
  });
  router.get("/:film/frame/:version/:frame.png", (request, response, next) => {
    const { film, version, frame } = request.params;
    const windows = Windows.safeParse(request.query.windows);
    const places = Places.safeParse(request.query.captions);
    if (!/^\d{1,9}$/.test(frame) || !windows.success || !places.success) return void response.status(404).end();
    const gone = new AbortController();
    response.on("close", () => gone.abort());
    sharpFrame(findFilm(db(), film)!, version, Number(frame), windows.data, places.data, gone.signal)
      .then((png) => {
        if (png) response.type("image/png").set("Cache-Control", "private, max-age=3600").send(png);
        else response.status(404).end();
      })
      .catch(refusing(response, next));
  });
  router.get("/:film/exports/:file", (request, response) => {
    const { film, file } = request.params;
    // Finished files, and nothing else in the folder.
    const found = findExportFile(findFilm(db(), film)!, file);
    if (!found) return void response.status(404).end();
    response.attachment(basename(file));
    send(response, { ...found, maxAge: "0" });
  });
  return router;
}
