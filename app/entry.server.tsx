import { PassThrough } from "node:stream";
import { createReadableStreamFromReadable } from "@react-router/node";
import { isbot } from "isbot";
import { renderToPipeableStream } from "react-dom/server";
import { type EntryContext, isRouteErrorResponse, type RouterContextProvider, ServerRouter } from "react-router";
import { nonceContext } from "~/nonce";

/** Milliseconds after which what a page still waits for is given up. */
export const streamTimeout = 5_000;

/** What is asked for and is not there is no fault of ours, nor is a page that was left. */
export function handleError(error: unknown, { request }: { request: Request }): void {
  if (!request.signal.aborted && !isRouteErrorResponse(error)) console.error(error);
}

/** Draws a page on the server. React Router's own way, with the nonce that the content security policy asks for. */
export default function handleRequest(
  request: Request,
  status: number,
  headers: Headers,
  context: EntryContext,
  loadContext: RouterContextProvider,
): Promise<Response> | Response {
  if (request.method === "HEAD") return new Response(null, { status, headers });
  const nonce = loadContext.get(nonceContext);
  const waitsForAll = isbot(request.headers.get("user-agent"));
  return new Promise((resolve, reject) => {
    const respond = () => {
      const body = new PassThrough({
        final(done) {
          clearTimeout(timeout);
          done();
        },
      });
      headers.set("Content-Type", "text/html; charset=utf-8");
      pipe(body);
      resolve(new Response(createReadableStreamFromReadable(body), { status, headers }));
    };
    const { pipe, abort } = renderToPipeableStream(<ServerRouter context={context} url={request.url} nonce={nonce} />, {
      nonce,
      [waitsForAll ? "onAllReady" : "onShellReady"]: respond,
      onShellError: reject,
      onError: (error: unknown) => console.error(error),
    });
    const timeout = setTimeout(abort, streamTimeout + 1000);
  });
}
