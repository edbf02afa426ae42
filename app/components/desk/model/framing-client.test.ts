import { expect, jest, test } from "@jest/globals";
import { USUAL_LIMITS } from "~/core/checks/check-settings";
import { TALL, TWO_SHOTS } from "../../../../tests/support/film-state";
import { shotSettings } from "~/core/version/shot-settings";
import type { ShotResult } from "~/core/version/version-framer";
import type { FramerOrder, FramerReply } from "~/workers/path-worker";
import { FramingClient } from "./framing-client";

const GROUND = {
  limits: USUAL_LIMITS,
  picture: { width: 1920, height: 1080 },
  rate: { num: 30, den: 1 },
  target: TALL,
};
const NEWS = { opinions: { marks: [], trackEdits: new Map(), people: [] }, analysed: [] };
const RESULT = { flags: [], tellingFrame: 4 } as unknown as ShotResult;

function open() {
  const orders: FramerOrder[] = [];
  let reply: (reply: FramerReply) => void = () => {};
  let now = 0;
  const onError = jest.fn<(message: string) => void>();
  const client = new FramingClient(
    { postMessage: (order) => orders.push(order), onReply: (listen) => (reply = listen) },
    onError,
    () => now,
  );
  client.begin(GROUND);
  return { client, orders, onError, reply: (it: FramerReply) => reply(it), pass: (ms: number) => (now += ms) };
}

test("the worker is told what has changed, and nothing twice", () => {
  const { client, orders } = open();
  const settings = shotSettings(TWO_SHOTS, TALL);
  client.tell(settings, NEWS);
  client.tell(settings, NEWS);
  expect(orders).toHaveLength(2);
  expect(orders[1]).toMatchObject({ type: "film", order: ["one", "two"], news: NEWS });
  const key = { pane: 0, frame: 120, x: 700, y: 540, height: 1080, easing: null };
  client.tell(shotSettings(TWO_SHOTS, { ...TALL, handKeys: [key] }), NEWS);
  expect(orders[2]).toMatchObject({ type: "film", changed: [{ shot: TWO_SHOTS.shots[1], handKeys: [key] }] });
  expect(orders[2]).not.toHaveProperty("order");
  client.tell(settings.slice(0, 1), { ...NEWS });
  expect(orders[3]).toMatchObject({ changed: [], order: ["one"], news: NEWS });
  client.begin(GROUND);
  client.tell(settings, NEWS);
  expect(orders[5]).toMatchObject({ order: ["one", "two"], news: NEWS });
});

test("a result is shown at once, and those that follow soon together", () => {
  jest.useFakeTimers();
  const { client, reply, pass } = open();
  const shown = jest.fn();
  client.subscribe(shown);
  for (const id of ["one", "two", "three"]) reply({ version: 1, id, result: RESULT });
  expect([...client.getResults().keys()]).toEqual(["one"]);
  pass(200);
  jest.runAllTimers();
  expect([...client.getResults().keys()]).toEqual(["one", "two", "three"]);
  expect(shown).toHaveBeenCalledTimes(2);
  jest.useRealTimers();
});

test("results of the version before are of no use, and errors are told", () => {
  const { client, reply, onError } = open();
  reply({ version: 1, id: "one", result: RESULT });
  client.begin({ ...GROUND, target: { width: 1080, height: 1080 } });
  expect(client.getResults().size).toBe(0);
  reply({ version: 1, id: "two", result: RESULT });
  expect(client.getResults().size).toBe(0);
  reply({ version: 2, id: "two", error: "no room" });
  expect(onError).toHaveBeenCalledWith("no room");
});
