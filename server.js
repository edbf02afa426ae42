/** Starts the server: the built one in production, Vite's in development. */
import compression from "compression";
import express from "express";

const development = process.env.NODE_ENV !== "production";
const HOST = "127.0.0.1";

/** Ends the start with one line that says what to do. */
function giveUp(message) {
  console.error(`glad-pan: ${message}`);
  process.exit(1);
}

function readPort(text = "4170") {
  const port = Number(text);
  if (/^\d+$/.test(text) && port >= 1 && port <= 65535) return port;
  return giveUp(`PORT is "${text}"; it must be a number from 1 to 65535.`);
}

/** The application's modules: built, or from Vite. */
async function loader() {
  if (!development) return { load: () => import("./build/server/index.js"), middlewares: null, fix: () => {} };
  const { createServer } = await import("vite");
  const vite = await createServer({ server: { middlewareMode: true } });
  return {
    load: () => vite.ssrLoadModule("./server/app.ts"),
    middlewares: vite.middlewares,
    fix: (error) => error instanceof Error && vite.ssrFixStacktrace(error),
  };
}

const port = readPort(process.env.PORT);
const url = `http://${HOST}:${port}`;
const { load, middlewares, fix } = await loader();
const { door, openWorkplace, startWork, stopWork, addDemo, openFilms, StartError } = await load();

const app = express();
app.disable("x-powered-by");
app.use(door(development));
// Requests before the library is open wait for it.
let opened;
const opening = new Promise((resolve) => (opened = resolve));
app.use((_req, _res, next) => void opening.then(() => next()));
// Films are compressed already, and are read in ranges.
app.use(
  compression({
    filter: (req, res) => !/^video\//.test(String(res.getHeader("content-type"))) && compression.filter(req, res),
  }),
);
if (middlewares) app.use(middlewares);
else {
  app.use("/assets", express.static("build/client/assets", { immutable: true, maxAge: "1y" }));
  app.use(express.static("build/client", { maxAge: "1h" }));
}
app.use(async (req, res, next) => {
  try {
    const { app: application } = await load();
    application(req, res, next);
  } catch (error) {
    fix(error);
    next(error);
  }
});

/** Listens, or gives up if the port is taken. */
const listen = () =>
  new Promise((resolve) => {
    const listening = app.listen(port, HOST, (error) => {
      if (!error) return resolve(listening);
      const taken = error.code === "EADDRINUSE" ? "another program uses it" : error.code;
      giveUp(`cannot listen on port ${port}: ${taken}. Set PORT to another number.`);
    });
  });

// The port comes first: a refused start leaves nothing behind.
const server = await listen();
try {
  await openWorkplace(url);
} catch (error) {
  if (!(error instanceof StartError)) throw error;
  giveUp(error.message);
}
opened();
// Uploading a large film takes longer than Node allows a request by default.
server.requestTimeout = 0;

let stopping = false;
async function stop() {
  if (stopping) return;
  stopping = true;
  server.close();
  server.closeIdleConnections();
  await stopWork();
  process.exit(0);
}
process.on("SIGTERM", stop);
process.on("SIGINT", stop);

// A library with much to tidy up after a kill can be used at once.
const tidied = startWork();
if (process.env.GLAD_PAN_DEMO === "1") await addDemo();
for (const said of await openFilms(process.argv.slice(2), url)) console.log(said);
console.log(`Glad Pan is ready: open ${url}`);
const told = await tidied;
if (told) console.log(told);
