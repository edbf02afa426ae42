import { expect, test } from "@jest/globals";
import type { Track } from "~/core/subjects/tracking/track";
import { TestDesk } from "../../../../tests/support/desk-model";
import type { DeskFlag, DeskShot } from "./desk-types";
import { commandsOf, replaceableTexts } from "./offers";

const { shots, version, film, windowAt } = new TestDesk().now;
const to = { version, picture: film.picture, windowAt };
const NAME = { x: 100, y: 800, width: 1500, height: 120 };

const title = (id: string, start: number, more: Partial<Track> = {}): Track => ({
  id,
  kind: "text",
  start,
  boxes: Array.from({ length: 10 }, () => NAME),
  confidence: 1,
  words: { lines: [id], ink: [255, 255, 255], ground: [0, 0, 0] },
  ...more,
});
const cutOff = (track: Track, more: Partial<DeskFlag> = {}): DeskFlag => ({
  kind: "text-cut",
  range: { start: track.start, end: track.start + 10 },
  frame: track.start,
  text: "",
  severity: 50,
  otherId: track.id,
  isReviewed: false,
  print: track.id,
  ...more,
});
const withFlags = (shot: DeskShot, tracks: Track[], flags: DeskFlag[]): DeskShot => ({ ...shot, tracks, flags });

test("titles of all shots are replaced by what they say, each once and while it is there", () => {
  const [one, two] = shots as [DeskShot, DeskShot];
  const [a, b] = [title("Ferrow", one.start), title("Nela Orbin", two.start)];
  const found = replaceableTexts(
    [withFlags(one, [a], [cutOff(a), cutOff(a, { frame: a.start + 5 })]), withFlags(two, [b], [cutOff(b)])],
    to,
  );
  const layers = found.flatMap(({ shot, offer }) =>
    commandsOf(offer, shot, version.id).flatMap((command) => (command.type === "put-layer" ? [command.layer] : [])),
  );
  expect(layers.map(({ kind, range }) => [kind, range?.start, range?.end])).toEqual(
    [a, b].flatMap(({ start }) => ["shape", "text"].map((kind) => [kind, start, start + 10])),
  );
  expect(layers.flatMap((layer) => (layer.kind === "text" ? [layer.text] : []))).toEqual(["Ferrow", "Nela Orbin"]);
  expect(new Set(layers.map(({ id }) => id)).size).toBe(4);
});

test("titles that were not read, or not whole, are left alone, and flags that were reviewed", () => {
  const one = shots[0]!;
  const [unread, seen] = [title("unread", one.start, { words: undefined }), title("seen", one.start)];
  const part = title("part", one.start, { words: { ...seen.words!, isPart: true } });
  const flags = [cutOff(unread), cutOff(part), cutOff(seen, { isReviewed: true })];
  const flagged = withFlags(one, [unread, part, seen], flags);
  expect(replaceableTexts([flagged], to)).toEqual([]);
});
