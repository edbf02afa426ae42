import express, { type Router } from "express";
import { findUpload, uploadFile } from "~/library/uploads/uploads.server";
import { lengthOf, pictureAt } from "~/media/arrived.server";

/** Pictures of unfinished uploads, where their container allows it. */
export function arrivalRoutes(): Router {
  const router = express.Router();
  router.get("/:upload", (request, response, next) => {
    const upload = findUpload(request.params.upload);
    if (!upload) return void response.status(404).end();
    lengthOf(uploadFile(upload.id))
      .then((seconds) => response.json({ seconds }))
      .catch(next);
  });
  router.get("/:upload/:milliseconds.jpg", (request, response, next) => {
    const upload = findUpload(request.params.upload);
    const { milliseconds } = request.params;
    if (!upload || !/^\d{1,9}$/.test(milliseconds)) return void response.status(404).end();
    const gone = new AbortController();
    response.on("close", () => gone.abort());
    pictureAt(uploadFile(upload.id), upload.name, Number(milliseconds) / 1000, gone.signal)
      .then((picture) => {
        if (picture) response.type("image/jpeg").set("Cache-Control", "no-store").send(picture);
        else response.status(404).end();
      })
      .catch(next);
  });
  return router;
}
