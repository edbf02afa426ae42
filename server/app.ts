/** The application as an Express router: uploads, films and their pictures, and all pages. */
import { createRequestHandler } from "@react-router/express";
import express from "express";
import { addDemoFilm } from "~/jobs/films.server";
import { startQueue } from "~/jobs/queue.server";
import { projectPath } from "~/media/project-path.server";
import { mediaRoutes } from "./media";
import { uploadRoutes } from "./uploads";

export const app = express();
app.disable("x-powered-by");

startQueue();
if (process.env.GLAD_PAN_DEMO === "1") {
  await addDemoFilm(projectPath("demo/ferrow-kite-day.mp4"), "Ferrow Kite Day.mp4");
}

app.use("/uploads", uploadRoutes());
app.use("/media", mediaRoutes());
app.use(createRequestHandler({ build: () => import("virtual:react-router/server-build"), mode: process.env.NODE_ENV }));
