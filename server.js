/** Starts the server: the built one in production, Vite's in development. */
import { mkdirSync } from "node:fs";
import compression from "compression";
import express from "express";

const development = process.env.NODE_ENV !== "production";
const port = Number(process.env.PORT ?? 4170);
const host = "127.0.0.1";

const app = express();
app.disable("x-powered-by");
// Films are compressed already, and are read in ranges.
app.use(
  compression({
    filter: (req, res) => !/^video\//.test(String(res.getHeader("content-type"))) && compression.filter(req, res),
  }),
);

if (development) {
  mkdirSync("data", { recursive: true });
  const { createServer } = await import("vite");
  const vite = await createServer({ server: { middlewareMode: true } });
  app.use(vite.middlewares);
  app.use(async (req, res, next) => {
    try {
      const { app: application } = await vite.ssrLoadModule("./server/app.ts");
      application(req, res, next);
    } catch (error) {
      if (error instanceof Error) vite.ssrFixStacktrace(error);
      next(error);
    }
  });
} else {
  app.use("/assets", express.static("build/client/assets", { immutable: true, maxAge: "1y" }));
  app.use(express.static("build/client", { maxAge: "1h" }));
  const { app: application } = await import("./build/server/index.js");
  app.use(application);
}

const server = app.listen(port, host, (error) => {
  if (error) {
    console.error(`Glad Pan could not start on port ${port}: ${error.message}. Set PORT to another number.`);
    process.exit(1);
  }
  console.log(`Glad Pan is ready: open http://${host}:${port}`);
});
// An upload of a large film takes longer than Node allows a request by default.
server.requestTimeout = 0;
