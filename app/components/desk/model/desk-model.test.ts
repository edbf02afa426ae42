import { beforeEach, describe, expect, test } from "@jest/globals";
import type { Caption } from "~/core/captions/caption";
import { newBar } from "~/core/composition/layers/layer";
import { TestDesk } from "../../../../tests/support/desk-model";
import { TWO_SHOTS } from "../../../../tests/support/film-state";
import type { DeskFlag } from "./desk-types";
import { wayOf } from "./reshaping";

let desk: TestDesk;
beforeEach(() => {
  desk = new TestDesk();
});

const WINDOW = { x: 700, y: 540, height: 1080 };
const BOX = { x: 100, y: 100, width: 300, height: 300 };
const keysNow = () => desk.now.version.handKeys.map(({ frame, x }) => [frame, x]);
const shot = (number: 1 | 2) => desk.now.shots[number - 1]!;

test("what has not changed stays the very same, so that no view is drawn again for it", () => {
  const before = desk.now;
  desk.now.setPanel("keys");
  const { selection, selectedKeys, captionCommands, checks, rangeCommands, look, shotCommands, windowAt } = desk.now;
  expect(desk.now.panel).toBe("keys");
  expect([selection, selectedKeys, captionCommands, checks, rangeCommands, look, shotCommands, windowAt]).toEqual([
    before.selection,
    before.selectedKeys,
    before.captionCommands,
    before.checks,
    before.rangeCommands,
    before.look,
    before.shotCommands,
    before.windowAt,
  ]);
  expect(selection).toBe(before.selection);
  expect(captionCommands).toBe(before.captionCommands);
  expect(checks).toBe(before.checks);
});

describe("selected shots", () => {
  const ids = () => [...desk.now.selection.ids];

  test("are one, several in a row, or each by itself, and drop out when they are gone", () => {
    const { only, extend, toggle, all, clear } = desk.now.selection;
    only("two");
    expect(ids()).toEqual(["two"]);
    extend("one", desk.now.shots);
    expect(ids()).toEqual(["one", "two"]);
    toggle("two");
    expect(ids()).toEqual(["one"]);
    all(desk.now.shots);
    desk.apply({ type: "join-shots", shotIds: ["one", "two"] });
    expect(ids()).toEqual(["one"]);
    clear();
    expect(ids()).toEqual([]);
  });
});

describe("keyframes", () => {
  test("are placed, moved with their easing, eased and deleted", () => {
    const { place, ease, release } = desk.now.keyCommands;
    place(20, WINDOW);
    ease(desk.now.version.handKeys[0]!, "linear");
    place(30, { ...WINDOW, x: 800 }, 20);
    expect(desk.now.version.handKeys).toMatchObject([{ frame: 30, x: 800, easing: "linear" }]);
    release(29);
    release(30);
    expect(keysNow()).toEqual([]);
    expect(desk.sent.map(({ type }) => type)).toEqual(["set-key", "set-key", "move-key", "remove-key"]);
  });

  test("stay inside the picture, and what is shown before they are placed is not sent", () => {
    desk.now.keyCommands.preview(20, { ...WINDOW, x: -400 });
    expect(desk.previewed).toMatchObject([{ key: { x: 303.75 } }]);
    desk.now.keyCommands.preview(20, null);
    expect([desk.previewed.at(-1), desk.sent]).toEqual([null, []]);
  });

  test("go to the other versions as one step, when there are any", () => {
    expect(desk.now.keyCommands.copyToOthers).toBeNull();
    desk.apply({ type: "duplicate-version", versionId: "tall", id: "other", name: "Other" });
    desk.now.keyCommands.place(20, WINDOW);
    desk.now.keyCommands.copyToOthers!(shot(1), desk.now.version.handKeys[0]!);
    expect(desk.now.state.versions[1]!.handKeys).toMatchObject([{ frame: 20, x: 700 }]);
    expect(desk.told).toEqual([expect.stringContaining("Other")]);
  });

  test("that are selected move together in one step, and none across a cut", () => {
    for (const frame of [90, 95, 120]) desk.now.keyCommands.place(frame, WINDOW);
    const { select, move, toggle } = desk.now.selectedKeys;
    select([90, 95]);
    toggle(120);
    toggle(120);
    const steps = desk.sent.length;
    move(20, { x: 10, y: 0 });
    expect(desk.sent).toHaveLength(steps + 1);
    expect(keysNow()).toEqual([
      [94, 710],
      [99, 710],
      [120, 700],
    ]);
    expect([...desk.now.selectedKeys.frames]).toEqual([94, 99]);
  });

  test("are shown elsewhere while they are dragged, and are selected all the time", () => {
    desk.now.keyCommands.place(40, WINDOW);
    const { select, previewMove, giveUpMove } = desk.now.selectedKeys;
    select([40]);
    previewMove(5, { x: 0, y: 0 });
    expect(desk.previewed.at(-1)).toMatchObject({ type: "batch" });
    expect([...desk.now.selectedKeys.frames]).toEqual([40]);
    giveUpMove();
    expect([desk.previewed.at(-1), keysNow()]).toEqual([null, [[40, 700]]]);
  });

  test("are copied, and pasted as far as the shot has room", () => {
    for (const frame of [10, 40]) desk.now.keyCommands.place(frame, WINDOW);
    desk.now.selectedKeys.select([10, 40]);
    desk.now.selectedKeys.copy();
    desk.now.selectedKeys.paste!(80);
    expect(keysNow().map(([frame]) => frame)).toEqual([10, 40, 80]);
    expect(desk.told).toHaveLength(2);
    desk.now.selectedKeys.remove();
    expect(keysNow().map(([frame]) => frame)).toEqual([80]);
    expect([...desk.now.selectedKeys.frames]).toEqual([]);
  });
});

describe("ranges", () => {
  test("are marked from both ends, left out, and brought back", () => {
    const { beginRange, endRange, toggleRange, markRange } = desk.now.rangeCommands;
    desk.frame = 30;
    beginRange();
    expect(desk.now.rangeCommands.marked).toEqual({ start: 30, end: 31 });
    desk.frame = 49;
    endRange();
    toggleRange();
    expect(desk.now.version.trim.leftOut).toEqual([{ start: 30, end: 50 }]);
    expect(desk.now.rangeCommands.marked).toBeNull();
    markRange({ start: 35, end: 45 });
    toggleRange();
    expect(desk.now.version.trim.leftOut).toEqual([
      { start: 30, end: 35 },
      { start: 45, end: 50 },
    ]);
    const steps = desk.sent.length;
    toggleRange();
    expect(desk.sent).toHaveLength(steps);
  });

  test("begin and end with the in and out points", () => {
    desk.frame = 12;
    desk.now.rangeCommands.setIn();
    desk.frame = 80;
    desk.now.rangeCommands.setOut();
    expect(desk.now.version.trim).toMatchObject({ in: 12, out: 81 });
    desk.now.rangeCommands.clear("in");
    expect(desk.now.version.trim).toMatchObject({ in: null, out: 81 });
  });
});

describe("shots", () => {
  test("are split, joined and left out where the playhead is", () => {
    desk.frame = 100;
    desk.now.shotCommands.splitHere("cut");
    expect(desk.sent).toEqual([]);
    desk.frame = 150;
    desk.now.shotCommands.splitHere("switch");
    expect(desk.now.shots.map(({ start, begins }) => [start, begins])).toEqual([
      [0, "cut"],
      [100, "cut"],
      [150, "switch"],
    ]);
    desk.frame = 120;
    desk.now.shotCommands.joinNext();
    desk.now.shotCommands.excludeHere();
    expect(desk.now.shots.map(({ excluded }) => excluded)).toEqual([false, true]);
    desk.frame = 299;
    desk.now.shotCommands.joinNext();
    expect(desk.now.shots).toHaveLength(2);
  });

  test("begin earlier or later, but not where another one would have no frame", () => {
    desk.frame = 100;
    desk.now.shotCommands.nudgeCut(-1);
    expect([shot(2).start, desk.frame]).toEqual([99, 99]);
    desk.now.shotCommands.nudgeCut(-99);
    expect(shot(2).start).toBe(99);
    desk.frame = 5;
    desk.now.shotCommands.nudgeCut(1);
    expect(shot(1).start).toBe(0);
  });

  test("follow in the film, or in the version where it has a setting of its own", () => {
    desk.now.shotCommands.follow([shot(1)], { kind: "speaker" });
    expect(desk.now.state.shots[0]!.follow).toEqual({ kind: "speaker" });
    desk.now.shotCommands.setOwn(shot(1), "follow", true);
    desk.now.shotCommands.follow([shot(1)], { kind: "none" });
    expect(desk.now.state.shots[0]!.follow).toEqual({ kind: "speaker" });
    expect(shot(1).follow).toEqual({ kind: "none" });
    desk.now.shotCommands.setOwn(shot(1), "follow", false);
    expect(shot(1).follow).toEqual({ kind: "speaker" });
    desk.now.shotCommands.setFraming([], { movement: "still" });
    expect(desk.sent).toHaveLength(4);
  });
});

describe("subjects", () => {
  test("are marked and followed in one step; the last mark takes the subject with it", () => {
    desk.now.subjectCommands.mark(10, BOX);
    expect(desk.sent).toHaveLength(1);
    const { follow } = shot(1);
    expect(follow).toMatchObject({ kind: "track", trackId: expect.stringMatching(/^mark-/) });
    desk.now.subjectCommands.mark(40, BOX);
    expect(new Set(desk.now.state.marks.map(({ thing }) => thing)).size).toBe(1);
    desk.now.subjectCommands.unmark(shot(1), 41);
    desk.now.subjectCommands.unmark(shot(1), 40);
    expect(shot(1).follow).toEqual(follow);
    desk.now.subjectCommands.unmark(shot(1), 10);
    expect([shot(1).follow, desk.now.state.marks]).toEqual([{ kind: "auto" }, []]);
    desk.now.subjectCommands.mark(500, BOX);
    expect(desk.now.state.marks).toEqual([]);
  });

  test("have names", () => {
    desk.now.subjectCommands.changePerson({ id: "p1", number: 0, name: "Ilse", mergedInto: null });
    expect(desk.now.state.people[0]).toMatchObject({ name: "Ilse" });
    // Nobody has been seen.
    desk.now.subjectCommands.followEverywhere(desk.now.state.people[0]!);
    expect(desk.sent).toHaveLength(1);
  });
});

describe("captions", () => {
  const caption = (id: string, start: number, end: number, text = "Hold on"): Caption => ({
    id,
    start,
    end,
    text,
    speaker: null,
  });
  const put = (...captions: Caption[]) =>
    desk.apply({ type: "change-captions", removed: [], put: captions, how: "added" });
  const times = () => desk.now.state.captions.map(({ start, end }) => [start, end]);

  test("are added where none is, up to the next one, and selected where one is", () => {
    put(caption("late", 50, 90));
    desk.frame = 20;
    desk.now.captionCommands.add();
    expect(times()).toEqual([
      [20, 50],
      [50, 90],
    ]);
    expect(desk.now.captionCommands.selected).toMatchObject({ start: 20, text: "" });
    desk.frame = 60;
    desk.now.captionCommands.add();
    expect(desk.now.captionCommands.selected).toMatchObject({ id: "late" });
    expect(desk.sent).toHaveLength(1);
  });

  test("begin and end at the playhead; the next is selected when one ends", () => {
    put(caption("a", 10, 40), caption("b", 60, 90));
    desk.now.captionCommands.select("a");
    desk.frame = 15;
    desk.now.captionCommands.markIn();
    desk.frame = 29;
    desk.now.captionCommands.markOut();
    expect(times()[0]).toEqual([15, 30]);
    expect(desk.now.captionCommands.selected?.id).toBe("b");
  });

  test("are split, or it is said why not; and merged with the next one", () => {
    put(caption("a", 10, 100, "Hold on to it"));
    desk.now.captionCommands.select("a");
    expect(desk.now.captionCommands.merge).toBeNull();
    desk.now.captionCommands.split(desk.now.state.captions[0]!, 0);
    expect([desk.told.length, desk.now.state.captions.length]).toEqual([1, 1]);
    desk.now.captionCommands.split(desk.now.state.captions[0]!, 7);
    expect(desk.now.state.captions.map(({ text }) => text)).toEqual(["Hold on", "to it"]);
    desk.now.captionCommands.select(desk.now.state.captions[0]!.id);
    desk.now.captionCommands.merge!(desk.now.state.captions[0]!);
    expect(desk.now.state.captions).toMatchObject([{ text: "Hold on to it", start: 10, end: 100 }]);
  });

  test("are laid along the voice between their neighbours", () => {
    put(caption("a", 0, 10), caption("b", 20, 30), caption("c", 200, 260));
    desk.speech = [{ start: 60, end: 120 }];
    desk.renew();
    desk.now.captionCommands.time([desk.now.state.captions[1]!]);
    expect(times()[1]![0]).toBe(60);
    expect([times()[0], times()[2]]).toEqual([
      [0, 10],
      [200, 260],
    ]);
  });

  test("come in beside those there are, or instead of them, and are counted", () => {
    put(caption("a", 0, 10));
    const text = { start: 50, end: 80, text: "Let go", speaker: null };
    desk.now.captionCommands.bringIn([text], false);
    expect(desk.now.state.captions).toHaveLength(2);
    desk.now.captionCommands.bringIn([text], true);
    expect(times()).toEqual([[50, 80]]);
    desk.now.captionCommands.replace("go", "fly");
    expect(desk.now.state.captions[0]!.text).toBe("Let fly");
    desk.now.captionCommands.mend(desk.now.state.captions);
    expect(desk.told).toHaveLength(4);
  });

  test("come to rest at a cut nearby when they are dragged", () => {
    put(caption("a", 40, 97));
    const [first] = desk.now.state.captions;
    expect(desk.now.captionCommands.dragged(first!, "end", 1, 5)).toMatchObject({ start: 40, end: 100 });
    expect(desk.now.captionCommands.dragged(first!, "end", 1, 0)).toMatchObject({ start: 40, end: 98 });
    desk.now.captionCommands.set({ burnt: false });
    expect(desk.now.version.captions.burnt).toBe(false);
  });
});

describe("layers", () => {
  test("are selected when they are added, and not any more when they are removed", () => {
    desk.now.layerCommands.add(newBar);
    const [layer] = desk.now.version.layers;
    expect(desk.now.layerId).toBe(layer!.id);
    expect(desk.now.layerCommands.copyToOthers).toBeNull();
    desk.apply({ type: "duplicate-version", versionId: "tall", id: "other", name: "Other" });
    desk.now.layerCommands.put({ ...layer!, opacity: 40 });
    desk.now.layerCommands.copyToOthers!(desk.now.version.layers[0]!);
    expect(desk.now.state.versions[1]!.layers).toMatchObject([{ opacity: 40 }]);
    desk.now.layerCommands.remove(layer!);
    expect([desk.now.version.layers, desk.now.layerId]).toEqual([[], null]);
  });
});

describe("versions", () => {
  test("are shown when they are made or duplicated", () => {
    desk.now.versionCommands.add({ name: "Square", width: 1080, height: 1080 }, { limitSeconds: 60 });
    const [, square] = desk.now.state.versions;
    expect(square).toMatchObject({ name: "Square", limitSeconds: 60 });
    expect(desk.shownVersion).toBe(square!.id);
    desk.now.versionCommands.duplicate(square!);
    expect(desk.shownVersion).toBe(desk.now.state.versions[2]!.id);
  });

  test("that are removed can be brought back at once", () => {
    desk.now.versionCommands.add({ name: "Square", width: 1080, height: 1080 }, {});
    desk.now.versionCommands.remove(desk.now.state.versions[1]!);
    expect(desk.now.state.versions).toHaveLength(1);
    desk.offered!();
    expect(desk.undone).toBe(1);
  });
});

describe("flags", () => {
  const flag = (print: string, frame: number, severity: number, isReviewed = false): DeskFlag => ({
    kind: "jolt",
    range: { start: frame, end: frame + 5 },
    frame,
    severity,
    text: print,
    print,
    isReviewed,
  });
  beforeEach(() => {
    desk.flags = { one: [flag("mild", 10, 20), flag("bad", 50, 90)], two: [flag("fair", 150, 50, true)] };
    desk.renew();
  });
  const prints = () => desk.now.checks.rows.map(({ print }) => print);

  test("are listed the worst first or as they come, of one kind, with those that are reviewed or without", () => {
    const { setFilter } = desk.now.checks;
    expect([prints(), desk.now.checks.left]).toEqual([["bad", "mild"], 2]);
    setFilter({ order: "time", withReviewed: true });
    expect(prints()).toEqual(["mild", "bad", "fair"]);
    setFilter({ kind: "black" });
    expect(prints()).toEqual([]);
    setFilter({ kind: null, letter: "A" });
    expect(prints()).toEqual([]);
  });

  test("are gone to one after the other, on the desk", () => {
    desk.now.setPanel("keys");
    desk.now.checks.setOpen(true);
    desk.now.checks.step(1);
    expect([desk.frame, desk.now.checks.current, desk.now.checks.isOpen, desk.now.panel]).toEqual([
      50,
      "bad",
      false,
      "shot",
    ]);
    desk.now.checks.step(1);
    expect(desk.frame).toBe(10);
    desk.now.checks.step(1);
    expect(desk.frame).toBe(10);
    desk.now.checks.step(-1);
    expect(desk.frame).toBe(50);
  });

  test("are reviewed, and prints of what nobody can see any more are forgotten", () => {
    desk.apply({ type: "change-version", versionId: "tall", change: { reviewedFlags: ["gone", "fair"] } });
    desk.now.checks.step(1);
    desk.now.checks.reviewedAndNext();
    expect(desk.now.version.reviewedFlags).toEqual(["fair", "bad"]);
    expect(desk.frame).toBe(10);
    desk.now.checks.mark(desk.now.checks.all, false);
    expect(desk.now.version.reviewedFlags).toEqual([]);
    desk.now.checks.setLimits({ black: 3 });
    expect(desk.now.version.checkLimits.black).toBe(3);
  });
});

describe("a path that is reshaped", () => {
  const reshaping = () => {
    const windows = Array.from({ length: 60 }, (_, i) => ({ ...WINDOW, x: 600 + 2 * i }));
    const framed = { ...shot(1), framed: { windows } } as (typeof desk.now.shots)[number];
    return wayOf([framed], { start: 10, end: 40 }, "shifted")!;
  };

  test("is shown until it is kept, and nothing is left of it when it is discarded", () => {
    desk.now.reshape.show(null);
    expect(desk.now.reshape.reshaping).toBeNull();
    desk.now.reshape.show(reshaping());
    expect(desk.now.reshape.keys).toBeGreaterThan(0);
    desk.now.reshape.discard();
    expect([desk.now.reshape.reshaping, desk.previewed.at(-1), desk.sent]).toEqual([null, null, []]);
    desk.now.reshape.show(reshaping());
    desk.now.reshape.keep();
    expect([desk.now.reshape.reshaping, desk.sent.length]).toEqual([null, 1]);
    expect(desk.now.version.handKeys.length).toBeGreaterThan(0);
  });
});

test("the result is compared with something, or with nothing", () => {
  desk.now.look.setComparison({ kind: "centre" });
  desk.now.look.setShowsOther(true);
  expect(desk.now.look).toMatchObject({ view: "fit", comparison: { kind: "centre" }, showsOther: true });
  expect(desk.now.free).toEqual({ x: true, y: false });
  expect(desk.now.analysed).toEqual([{ start: 0, end: TWO_SHOTS.film.frames }]);
});
