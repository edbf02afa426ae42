/** Requests as nobody's browser would send them. */
import { Agent, request } from "node:http";

export interface RawRequest {
  method?: string;
  /** As it is put on the wire. */
  path: string;
  headers?: Record<string, string | undefined>;
  body?: string | Buffer;
  /** Sends the body in pieces without telling its length first. */
  chunked?: boolean;
  /** Connections to use again; a new one if left out. */
  agent?: Agent;
}

export interface RawAnswer {
  status: number;
  headers: Record<string, string | string[] | undefined>;
  body: string;
}

/** Sends a request to a server, by default as one of its own pages would; headers that are undefined are left out. */
export function send(
  url: string,
  { method = "GET", path, headers = {}, body, chunked, agent }: RawRequest,
): Promise<RawAnswer> {
  const { hostname, port } = new URL(url);
  const all = {
    host: `${hostname}:${port}`,
    ...(method === "GET" || method === "HEAD" ? {} : { origin: url }),
    ...headers,
  };
  const sent = Object.fromEntries(
    Object.entries(all).filter((entry): entry is [string, string] => entry[1] !== undefined),
  );
  if (body !== undefined && !chunked && sent["content-length"] === undefined) {
    sent["content-length"] = String(Buffer.byteLength(body));
  }
  // As a browser does, and not "Connection: close": that ends the connection while a refused body is still on its way.
  const connection = agent ?? new Agent({ keepAlive: true });
  const answered = new Promise<RawAnswer>((resolve, reject) => {
    const asked = request(
      { hostname, port, method, path, headers: sent, setHost: false, agent: connection },
      (answer) => {
        let text = "";
        answer.setEncoding("utf8").on("data", (more: string) => {
          if (text.length < 100_000) text += more;
        });
        answer.on("end", () => resolve({ status: answer.statusCode!, headers: answer.headers, body: text }));
        answer.on("error", reject);
      },
    );
    // A server that refuses a body before it has come closes the connection while we still write.
    let settled = false;
    asked.on("response", () => {
      settled = true;
    });
    asked.on("error", (error) => !settled && reject(error));
    asked.end(body);
  });
  return answered.finally(() => agent ?? connection.destroy());
}

/**
 * Sends a request that is to be answered with a status.
 *
 * @throws Error if it is answered with another, with what was said
 */
export async function demand(url: string, status: number, request: RawRequest): Promise<RawAnswer> {
  const answer = await send(url, request);
  if (answer.status !== status) {
    const { method = "GET", path } = request;
    throw new Error(
      `${method} ${path} was answered with ${answer.status}, not ${status}: ${answer.body.slice(0, 300)}`,
    );
  }
  return answer;
}

export const json = (path: string, value: unknown, headers: RawRequest["headers"] = {}): RawRequest => ({
  method: "POST",
  path,
  headers: { "content-type": "application/json", ...headers },
  body: typeof value === "string" ? value : JSON.stringify(value),
});

export const form = (
  path: string,
  values: Record<string, string>,
  headers: RawRequest["headers"] = {},
): RawRequest => ({
  method: "POST",
  path,
  headers: { "content-type": "application/x-www-form-urlencoded", ...headers },
  body: new URLSearchParams(values).toString(),
});

/** The beginning of an upload of which nothing has been sent yet; the answer's "location" is where the rest goes. */
export const beginUpload = (name: string, bytes: number): RawRequest => ({
  method: "POST",
  path: "/uploads",
  headers: {
    "tus-resumable": "1.0.0",
    "upload-length": String(bytes),
    "upload-metadata": `filename ${Buffer.from(name).toString("base64")}`,
  },
});

/** More of an upload, from a byte on. */
export const goOnUpload = (location: string, offset: number, content: Buffer): RawRequest => ({
  method: "PATCH",
  path: location,
  headers: {
    "tus-resumable": "1.0.0",
    "upload-offset": String(offset),
    "content-type": "application/offset+octet-stream",
  },
  body: content,
});

/** An upload in one request, by the tus protocol. */
export const upload = (name: string, content: Buffer): RawRequest => ({
  ...beginUpload(name, content.length),
  headers: { ...beginUpload(name, content.length).headers, "content-type": "application/offset+octet-stream" },
  body: content,
});
