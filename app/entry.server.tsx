import { PassThrough } from "node:stream";
import { createReadableStreamFromReadable } from "@react-router/node";
import { isbot } from "isbot";
import { renderToPipeableStream } from "react-dom/server";
import { type EntryContext, isRouteErrorResponse, type RouterContextProvider, ServerRouter } from "react-router";
import { nonceContext } from "~/nonce";

/** Milliseconds after which pending parts of a page are given up. */
export const streamTimeout = 5_000;

/** Missing pages and aborted requests are no errors of ours. */
export function handleError(error: unknown, { request }: { request: Request }): void {
  if (!request.signal.aborted && !isRouteErrorResponse(error)) console.error(error);
}

/** Renders a page on the server: React Router's default, with the nonce required by the content security policy. */
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
