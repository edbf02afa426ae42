import { randomBytes } from "node:crypto";
import express, { type NextFunction, type Request, type RequestHandler, type Response, type Router } from "express";
import helmet from "helmet";

/** Bodies declared to be longer are not read at all. */
const LONGEST_BODY_BYTES = 8 * 2 ** 20;
/** Routes that take files have limits of their own, for the declared and the actual length. */
const TAKES_FILES = ["/uploads", "/own-files"];

const OWN_HOSTS = ["127.0.0.1", "localhost", "[::1]"];

/** The host names under which this server may be addressed. */
function allowedHosts(): Set<string> {
  const more = (process.env.GLAD_PAN_HOSTS ?? "").split(",").map((name) => name.trim().toLowerCase());
  return new Set([...OWN_HOSTS, ...more.filter(Boolean)]);
}

const refuse = (response: Response, status: number, why: string): void =>
  void response.status(status).type("text/plain").send(`${why}\n`);

/** A page of another site that points its own name to this machine is refused: the name is in the request. */
function checkHost(): RequestHandler {
  const allowed = allowedHosts();
  return (request, response, next) => {
    const name = (request.headers.host ?? "").toLowerCase().replace(/:\d+$/, "");
    if (allowed.has(name)) return next();
    refuse(response, 403, "Glad Pan does not answer to this host name. GLAD_PAN_HOSTS adds names.");
  };
}

/** Only proxies are sent whole addresses; later handlers would take them for paths. */
function checkTarget(request: Request, response: Response, next: NextFunction): void {
  if (request.originalUrl.startsWith("/")) return next();
  refuse(response, 400, "Ask for a path, not for a whole address.");
}

/** Whether a browser says that the request comes from one of our pages. Without such a header it is not trusted. */
function isFromHere({ headers }: Request): boolean {
  const { origin, "sec-fetch-site": site } = headers;
  if (origin === undefined && site === undefined) return false;
  if (site !== undefined && site !== "same-origin") return false;
  return origin === undefined || origin.toLowerCase() === `http://${headers.host?.toLowerCase()}`;
}

function checkOrigin(request: Request, response: Response, next: NextFunction): void {
  if (request.method === "GET" || request.method === "HEAD" || isFromHere(request)) return next();
  refuse(response, 403, "Only Glad Pan's own pages may change anything.");
}

function checkLength(request: Request, response: Response, next: NextFunction): void {
  const length = Number(request.headers["content-length"] ?? 0);
  if (length <= LONGEST_BODY_BYTES || TAKES_FILES.some((path) => request.path.startsWith(path))) return next();
  refuse(response, 413, "This is too large.");
}

/** Milliseconds for which data after the answer is discarded; then the connection is closed. */
const DRAIN_MS = 5000;

/**
 * If the answer comes before the request has been read, its rest stays on the connection, where the next request would wait
 * behind it for ever.
 */
function drain(request: Request, response: Response, next: NextFunction): void {
  response.on("finish", () => {
    if (request.complete) return;
    const end = setTimeout(() => request.destroy(), DRAIN_MS);
    request.on("close", () => clearTimeout(end));
    request.removeAllListeners("data").resume();
  });
  next();
}

const nonceOf = (response: unknown): string => (response as Response).locals.nonce as string;

/** What pages may load: what we ship, and nothing else. */
function headers(development: boolean) {
  return helmet({
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'none'"],
        scriptSrc: ["'self'", (_request, response) => `'nonce-${nonceOf(response)}'`],
        // Radix, Konva and the toasts set styles from scripts; attributes cannot have a nonce.
        styleSrc: ["'self'", "'unsafe-inline'"],
        imgSrc: ["'self'", "blob:", "data:"],
        mediaSrc: ["'self'", "blob:"],
        fontSrc: ["'self'", "data:"],
        // In development Vite notifies the page of changes by a socket.
        connectSrc: development ? ["'self'", "ws:"] : ["'self'"],
        workerSrc: development ? ["'self'", "blob:"] : ["'self'"],
        manifestSrc: ["'self'"],
        baseUri: ["'none'"],
        formAction: ["'self'"],
        frameAncestors: ["'none'"],
        objectSrc: ["'none'"],
      },
    },
    frameguard: { action: "deny" },
    // With "no-referrer" browsers do not send the origin of our own pages' requests either.
    referrerPolicy: { policy: "same-origin" },
    // There is no https on the loopback to insist on.
    strictTransportSecurity: false,
  });
}

/**
 * Checks on every request before any handler: the host, the origin, and the length. The answer's headers say what a page
 * may do.
 */
export function door(development: boolean): Router {
  const router = express.Router();
  router.use((_request, response, next) => {
    response.locals.nonce = randomBytes(18).toString("base64");
    next();
  });
  router.use(headers(development), drain, checkHost(), checkTarget, checkOrigin, checkLength);
  return router;
}
