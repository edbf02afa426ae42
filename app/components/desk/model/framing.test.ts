import { expect, test } from "@jest/globals";
import { USUAL_LIMITS } from "~/core/checks/check-settings";
import { shotSettings } from "~/core/version/shot-settings";
import type { FramerOrder, FramerReply } from "~/workers/path-worker";
import { TWO_SHOTS } from "../../../../tests/support/film-state";
import { Framing } from "./framing";

const GROUND = {
  picture: { width: 1920, height: 1080 },
  rate: { num: 30, den: 1 },
  target: { width: 1080, height: 1920 },
  limits: USUAL_LIMITS,
};
const NEWS = { opinions: { marks: [], trackEdits: new Map(), people: [] }, analysed: [{ start: 0, end: 300 }] };
const SETTINGS = shotSettings(TWO_SHOTS, TWO_SHOTS.versions[0]!);

function port() {
  const orders: FramerOrder[] = [];
  let reply: (reply: FramerReply) => void = () => {};
  return {
    orders,
    reply: (with_: FramerReply) => reply(with_),
    postMessage: (order: FramerOrder) => void orders.push(order),
    onReply: (listen: (reply: FramerReply) => void) => {
      reply = listen;
    },
  };
}

const loaded = { analysed: [{ start: 0, end: 300, tracks: [] }], marks: [] };

test("what was said before a worker is there is said to it when it comes, and to the next one again", async () => {
  const asked: unknown[] = [];
  const framing = new Framing(
    (ranges) => {
      asked.push(ranges);
      return Promise.resolve(loaded);
    },
    () => 0,
    () => {},
  );
  framing.begin(GROUND);
  framing.tell(SETTINGS, NEWS);
  framing.want({ analysed: NEWS.analysed, marks: [] });
  framing.waitFor(["one"]);
  expect(asked).toEqual([]);
  for (const worker of [port(), port()]) {
    const close = framing.open(worker);
    await new Promise((resolve) => setTimeout(resolve));
    expect(worker.orders.map(({ type }) => type)).toEqual(["version", "film", "tracks"]);
    close();
    framing.tell(SETTINGS, NEWS);
    expect(worker.orders).toHaveLength(3);
  }
  expect(asked).toHaveLength(2);
});

test("whoever listens is told of tracks and results, and a version that begins anew has none", async () => {
  const framing = new Framing(
    () => Promise.resolve(loaded),
    () => 0,
    () => {},
  );
  const worker = port();
  framing.open(worker);
  let told = 0;
  const stop = framing.subscribe(() => told++);
  framing.begin(GROUND);
  framing.tell(SETTINGS, NEWS);
  framing.want({ analysed: NEWS.analysed, marks: [] });
  await new Promise((resolve) => setTimeout(resolve));
  expect(told).toBe(1);
  const result = { framed: {}, flags: [] } as unknown as Extract<FramerReply, { result: unknown }>["result"];
  worker.reply({ version: 1, id: "one", result });
  expect([told, [...framing.getNow().results.keys()]]).toEqual([2, ["one"]]);
  framing.begin(GROUND);
  expect(framing.getNow().results.size).toBe(0);
  worker.reply({ version: 1, id: "one", result });
  expect(framing.getNow().results.size).toBe(0);
  stop();
});
