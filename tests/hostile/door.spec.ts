/** What the built server says to requests that nobody should send, and that nothing comes of them. */
import { Agent } from "node:http";
import { createCanvas } from "@napi-rs/canvas";
import { expect, test } from "@playwright/test";
import { seeded } from "../../demo/film/random";
import { CASES } from "./cases";
import { edit, everything, fillLibrary, FRAMES, idsOf, key, known, send, server } from "./library";
import { json } from "../support/raw-request";

// What is refused once is refused every time.
test.describe.configure({ retries: 0 });
test.beforeAll(fillLibrary);
test.afterAll(() => server.dispose());

/** A form as a browser sends it. */
async function asSent(form: FormData): Promise<{ headers: Record<string, string>; body: Buffer }> {
  const sent = new Response(form);
  return {
    headers: { "content-type": sent.headers.get("content-type")! },
    body: Buffer.from(await sent.arrayBuffer()),
  };
}

for (const { what, request, status } of CASES) {
  test(`${what} is refused and changes nothing`, async () => {
    const before = everything();
    const answer = await send(request());
    expect([status].flat(), answer.body.slice(0, 300)).toContain(answer.status);
    expect(answer.body).not.toContain(server.data);
    expect(answer.body).not.toMatch(/\bat .*\(.*:\d+:\d+\)|node_modules/);
    expect(everything()).toBe(before);
  });
}

test("media is sent as what it is, and pages may load nothing of others", async () => {
  const piece = await send({ path: `/media/${known.film}/proxy/0.mp4`, headers: { range: "bytes=0-9" } });
  expect([piece.status, piece.headers["content-type"]]).toEqual([206, "video/mp4"]);
  expect(piece.headers["x-content-type-options"]).toBe("nosniff");
  const cuts = await send({ path: `/films/${known.film}/cuts/edl` });
  expect([cuts.status, cuts.headers["content-disposition"]]).toEqual([200, expect.stringMatching(/^attachment/)]);
  const page = await send({ path: `/films/${known.film}` });
  const policy = String(page.headers["content-security-policy"]);
  const nonce = /'nonce-([^']+)'/.exec(policy)![1]!;
  const scripts = page.body.match(/<script(?![^>]*\ssrc=)[^>]*>/g)!;
  expect(scripts.length).toBeGreaterThan(1);
  for (const script of scripts) expect(script).toContain(nonce);
  expect(policy).toContain("frame-ancestors 'none'");
  expect(/script-src[^;]*/.exec(policy)![0]).not.toContain("unsafe");
  expect((await send({ path: `/films/${known.film}` })).headers["content-security-policy"]).not.toBe(policy);
  expect(page.headers["x-frame-options"]).toBe("DENY");
  const options = await send({ method: "OPTIONS", path: "/uploads" });
  expect(options.headers["access-control-allow-origin"]).toBeUndefined();
});

test("what comes after something too long on the same connection is answered", async () => {
  const agent = new Agent({ keepAlive: true, maxSockets: 1 });
  try {
    for (const chunked of [false, true]) {
      const long = await send({ ...json(`/films/${known.film}/edit`, "[".repeat(2 ** 21)), chunked, agent });
      expect(long.status).toBe(413);
      expect((await send({ path: `/films/${known.film}/tracks`, agent })).status).toBe(200);
    }
  } finally {
    agent.destroy();
  }
});

test("a picture of one's own may be larger than what is sent otherwise", async () => {
  const canvas = createCanvas(2000, 1600);
  const context = canvas.getContext("2d");
  const noise = context.createImageData(canvas.width, canvas.height);
  const random = seeded(7);
  noise.data.forEach((_, i) => (noise.data[i] = i % 4 === 3 ? 255 : Math.floor(256 * random())));
  context.putImageData(noise, 0, 0);
  const form = new FormData();
  form.append("picture", new Blob([new Uint8Array(canvas.toBuffer("image/png"))]), "noise.png");
  const { headers, body } = await asSent(form);
  expect(body.length).toBeGreaterThan(8 * 2 ** 20);
  const answer = await send({ method: "POST", path: "/own-files", headers, body });
  expect([answer.status, answer.body.slice(0, 200)]).toEqual([200, expect.stringContaining('"file":{')]);
});

/** Asks for the status of a film again and again while something else is made, and is answered each time. */
async function othersAreAnsweredMeanwhile<T>(made: Promise<T>, times: number): Promise<T> {
  let isMade = false;
  const done = made.finally(() => (isMade = true));
  for (let i = 0; i < times; i++) {
    expect((await send({ path: `/films/${known.film}/status` })).status).toBe(200);
    expect(isMade).toBe(false);
  }
  return done;
}

test("a drawing that takes minutes is given up, and keeps nobody else waiting", async () => {
  const path = `M0 0${"L400 400L0 1".repeat(60_000)}Z`;
  const drawing = `<svg xmlns="http://www.w3.org/2000/svg" width="400" height="400"><path d="${path}" stroke="red" stroke-width="30" stroke-linejoin="round"/></svg>`;
  const form = new FormData();
  form.append("picture", new Blob([drawing]), "scribble.svg");
  const asked = asSent(form).then((sent) => send({ method: "POST", path: "/own-files", ...sent }));
  const { status, body } = await othersAreAnsweredMeanwhile(asked, 20);
  expect([status, body]).toEqual([422, expect.stringContaining("scribble.svg: this file takes too long to read")]);
});

test("an edit that makes sense is still made", async () => {
  const answer = await send(edit({ type: "set-key", versionId: known.version, key: key() }));
  expect([answer.status, JSON.parse(answer.body)]).toMatchObject([200, { revision: 1 }]);
});

test("the files of a very long version keep nobody else waiting", async () => {
  const frames = 100_000;
  server.write(`
    UPDATE films SET info = json_set(info, '$.frames', ${frames}) WHERE id = '${known.other}';
    UPDATE shots SET end_frame = ${frames} WHERE film_id = '${known.other}' AND end_frame = ${FRAMES};`);
  const [version] = idsOf("versions", known.other);
  const asked = send({ path: `/films/${known.other}/versions/${version}/all.zip` });
  const { status, body } = await othersAreAnsweredMeanwhile(asked, 20);
  expect([status, body.slice(0, 2)]).toEqual([200, "PK"]);
});
