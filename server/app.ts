/** The application as an Express router: uploads, films and their pictures, and all pages. */
import { basename } from "node:path";
import { createRequestHandler } from "@react-router/express";
import express, { type NextFunction, type Request, type Response } from "express";
import { RouterContextProvider } from "react-router";
import { DEMO_FILM_NAME } from "~/core/film/demo-film";
import { StartError } from "~/disk/start-error";
import { addDemoFilm } from "~/library/films/demo-film.server";
import { linkFilm } from "~/library/films/films.server";
import { openWorkplace, startWork, stopWork } from "~/library/care/workday.server";
import { Refusal } from "~/core/basics/refusal";
import { projectPath } from "~/disk/project-path.server";
import { nonceContext } from "~/nonce";
import { arrivalRoutes } from "./arrivals";
import { mediaRoutes } from "./media";
import { uploadRoutes } from "./uploads";

export { door } from "./door";
export { openWorkplace, startWork, StartError, stopWork };

/** Adds the demo film, unless it is there. */
export const addDemo = (): Promise<void> =>
  addDemoFilm(projectPath("demo/ferrow-kite-day.mp4"), projectPath("demo/ferrow-kite-day.vtt"), DEMO_FILM_NAME);

/**
 * Adds films of this machine to the library, each where it is.
 * @param url of the server
 * @returns a line for each: the address of its desk, or what is wrong with it
 */
export async function openFilms(files: readonly string[], url: string): Promise<string[]> {
  const said: string[] = [];
  for (const file of files) {
    said.push(
      await linkFilm(file).then(
        (id) => `${basename(file)}: open ${url}/films/${id}`,
        (error: unknown) => {
          if (error instanceof Refusal) return error.sentence;
          throw error;
        },
      ),
    );
  }
  return said;
}

export const app = express();
app.disable("x-powered-by");
app.use("/uploads", uploadRoutes());
app.use("/arrivals", arrivalRoutes());
app.use("/media", mediaRoutes());
app.use(
  createRequestHandler({
    build: () => import("virtual:react-router/server-build"),
    mode: process.env.NODE_ENV,
    getLoadContext: (_request, response) => {
      const context = new RouterContextProvider();
      context.set(nonceContext, (response as Response).locals.nonce as string);
      return context;
    },
  }),
);
/** A request that no handler understands, such as an invalid address. */
app.use((error: unknown, _request: Request, response: Response, next: NextFunction) => {
  if (response.headersSent) return next(error);
  const status = Number((error as { status?: unknown }).status ?? (error instanceof URIError ? 400 : 500));
  if (status >= 500) console.error(error);
  response
    .status(status)
    .type("text/plain")
    .send(status >= 500 ? "Something went wrong.\n" : "This request could not be understood.\n");
});
