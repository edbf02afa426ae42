import { describe, expect, test } from "@jest/globals";
import { planFollowing } from "./follow";
import type { FollowPlan } from "./follow-plan";
import { USUAL_ATTENTION } from "../attention/attention-settings";
import { type FollowRule, readRule, writeRule } from "./follow-rule";
import { boxAt, type Track } from "../tracking/track";

const PICTURE = { width: 1920, height: 1080 };
const SHOT = { start: 0, end: 90 };
const RATE = { num: 30, den: 1 };
const TALL = { width: 607, height: 1080 };

function track(id: string, kind: Track["kind"], x: number, size: number, more: Partial<Track> = {}): Track {
  const boxes = Array.from({ length: 90 }, () => ({ x: x - size / 2, y: 300, width: size, height: size }));
  return { id, kind, start: 0, boxes, confidence: 0.9, ...more };
}
const plan = (rule: string, tracks: Track[], more: Partial<Parameters<typeof planFollowing>[0]> = {}) =>
  planFollowing({
    rule: readRule(rule),
    shot: SHOT,
    tracks,
    picture: PICTURE,
    window: TALL,
    rate: RATE,
    before: null,
    attention: USUAL_ATTENTION,
    ...more,
  });
const large = track("large", "face", 500, 260, { who: "p1" });
const small = track("small", "face", 1500, 120, { who: "p2" });
const near = track("near", "face", 750, 200, { who: "p3" });

describe("a rule", () => {
  test("is stored as text that can be read again", () => {
    for (const stored of [
      "auto",
      "second",
      "both",
      "speaker",
      "speaker-pan",
      "everything",
      "none",
      "person:p1",
      "track:x",
    ])
      expect(writeRule(readRule(stored))).toBe(stored);
    const switches = {
      kind: "switches",
      switches: [
        { frame: 4, trackIds: ["s1-face-1", "mark:x"] },
        { frame: 90, trackIds: [] },
      ],
    };
    expect(readRule(writeRule(switches as FollowRule))).toEqual(switches);
    for (const wrong of ["switches:", "switches:[]", "switches:{", 'switches:[{"frame":-1,"trackIds":[]}]'])
      expect(readRule(wrong)).toEqual({ kind: "auto" });
    expect(readRule("person:p1")).toEqual({ kind: "person", who: "p1" });
    expect(readRule("track:s1-face-1")).toEqual({ kind: "track", trackId: "s1-face-1" });
    for (const text of ["whatever", "", "track:", "person:../x", "none:x "]) {
      expect(["auto", "none"]).toContain(readRule(text).kind);
    }
  });
});

describe("following", () => {
  test("the first and the second, with reasons", () => {
    expect(plan("auto", [small, large])).toMatchObject({
      trackId: "large",
      who: "p1",
      reason: "largest face, 100% of the shot",
    });
    expect(plan("second", [small, large]).trackId).toBe("small");
    expect(plan("second", [large])).toMatchObject({ trackId: "large" });
    expect(plan("second", [large]).reason).toMatch(/^there is no second; /);
    expect(plan("auto", [])).toMatchObject({ trackId: null, reason: "no clear subject" });
  });

  test("two together if they fit, and says so if they do not", () => {
    const together = plan("both", [large, near]);
    const box = boxAt(together.spans[0]!.subject!.track, 10)!;
    expect([box.x, box.x + box.width]).toEqual([370, 850]);
    expect(together.reason).toMatch(/^two together, 100%/);
    expect(plan("both", [large, small])).toMatchObject({ trackId: "large", other: { trackId: "small", why: "apart" } });
    expect(plan("both", [large, small]).reason).toMatch(/^the two do not fit together; /);
    expect(plan("both", [large, small], { window: PICTURE }).reason).toMatch(/^two together/);
  });

  test("somebody by name, whichever track they have here", () => {
    expect(plan("person:p2", [small, large]).trackId).toBe("small");
    expect(plan("person:p9", [small, large]).reason).toMatch(/^not in this shot; largest face/);
  });

  test("everything is the balance of what is there", () => {
    const balance = plan("everything", [large, small]);
    const box = boxAt(balance.spans[0]!.subject!.track, 10)!;
    const centre = box.x + box.width / 2;
    expect(centre).toBeGreaterThan(500);
    expect(centre).toBeLessThan(1000);
    expect(balance.trackId).toBeNull();
  });

  test("whoever speaks, by cuts or by pans", () => {
    const speaking = (from: number, to: number) => [{ start: from, end: to }];
    const tracks = [
      { ...large, speaking: speaking(0, 45) },
      { ...small, speaking: speaking(45, 90) },
    ];
    const jumping = plan("speaker", tracks);
    expect(jumping.spans.map(({ start, end, subject }) => [start, end, subject!.track.id])).toEqual([
      [0, 41, "large"],
      [41, 90, "small"],
    ]);
    const how = (rule: string) => plan(rule, tracks).spans.map(({ comesBy }) => comesBy);
    expect([how("speaker"), how("speaker-pan")]).toEqual([
      ["cut", "cut"],
      ["cut", "pan"],
    ]);
    expect(jumping).toMatchObject({ reason: "two talk in turn, 1 switch", certainty: 0.9 });
    expect(plan("speaker", [large, small]).reason).toMatch(/^nobody seen speaking; /);
  });

  test("whoever speaks: those who fit into the window together stay in it", () => {
    const talk = [
      { ...large, speaking: [{ start: 0, end: 45 }] },
      { ...near, speaking: [{ start: 45, end: 90 }] },
    ];
    for (const rule of ["speaker", "speaker-pan"]) {
      const { spans, trackId, reason } = plan(rule, talk);
      expect(spans).toHaveLength(1);
      expect(boxAt(spans[0]!.subject!.track, 20)).toEqual({ x: 370, y: 300, width: 480, height: 260 });
      expect([trackId, reason]).toEqual(["large", "two speak, all in the window"]);
    }
    // In a smaller window they do not.
    expect(plan("speaker", talk, { window: { width: 400, height: 711 } }).spans).toHaveLength(2);
  });

  test("one after the other, as the editor has set it", () => {
    const switches = (...all: [number, ...string[]][]) =>
      writeRule({ kind: "switches", switches: all.map(([frame, ...trackIds]) => ({ frame, trackIds })) });
    const spansOf = ({ spans }: FollowPlan) => spans.map(({ start, end, trackIds }) => [start, end, ...trackIds]);
    const set = plan(switches([0, "large"], [30, "small"], [60, "large", "near"]), [large, small, near]);
    expect(spansOf(set)).toEqual([
      [0, 30, "large"],
      [30, 60, "small"],
      [60, 90, "large", "near"],
    ]);
    expect(set).toMatchObject({ reason: "2 switches, set by you", certainty: 1, trackId: "large" });
    expect(boxAt(set.spans[2]!.subject!.track, 70)!.width).toBe(480);
    // In a part of the shot those count that reach into it.
    const part = plan(switches([0, "large"], [30, "small"], [200, "near"]), [large, small, near], {
      shot: { start: 40, end: 90 },
    });
    expect(spansOf(part)).toEqual([[40, 90, "small"]]);
    expect(plan(switches([0, "gone"]), [large]).reason).toMatch(/^what you selected is no longer in this shot; /);
    const nobody = plan(switches([0, "large"], [30]), [large]);
    expect(nobody.spans[1]).toMatchObject({ start: 30, subject: null });
  });

  test("switches cut or pan as is asked, and by themselves cut only to a speaker far away", () => {
    const voice = (from: number, to: number) => [{ start: from, end: to }];
    const talk = [
      { ...large, speaking: voice(0, 45) },
      { ...track("far", "face", 1500, 240, { who: "p2" }), speaking: voice(45, 90) },
    ];
    const beside = [talk[0]!, { ...track("beside", "face", 1000, 240, { who: "p2" }), speaking: voice(45, 90) }];
    const how = (tracks: Track[], switchBy: "auto" | "cut" | "pan") =>
      plan("auto", tracks, { attention: { ...USUAL_ATTENTION, switchBy } }).spans.map(({ comesBy }) => comesBy)[1];
    expect([how(talk, "auto"), how(talk, "cut"), how(talk, "pan")]).toEqual(["cut", "cut", "pan"]);
    expect([how(beside, "auto"), how(beside, "cut")]).toEqual(["pan", "cut"]);
  });

  test("who must be in the picture, and says where they are not", () => {
    const must = (who: string) => ({ attention: { ...USUAL_ATTENTION, mustHave: [who] } });
    expect(plan("auto", [large, small], must("p2"))).toMatchObject({
      trackId: "small",
      reason: "must be in the picture",
    });
    expect(plan("auto", [large], must("p2")).reason).toMatch(
      /^somebody who must be in the picture is missing; only face/,
    );
  });

  test("goes on with who was followed before where others are as good", () => {
    const twins = [track("left", "face", 700, 150, { who: "p1" }), track("right", "face", 1220, 150, { who: "p2" })];
    expect(plan("auto", twins, { before: "p2" })).toMatchObject({ trackId: "right" });
    expect(plan("auto", twins, { before: "p1" })).toMatchObject({ trackId: "left" });
    expect(plan("auto", twins, { before: "p1" }).reason).toContain("followed before");
  });

  test("something that stands out rather than a faint face that no body belongs to, and never text", () => {
    const faint = { ...track("pattern", "face", 1500, 200), confidence: 0.66 };
    const thing = { ...track("thing", "salient", 500, 200), confidence: 0.9 };
    expect(plan("auto", [faint, thing]).trackId).toBe("thing");
    expect(plan("auto", [{ ...faint, personId: "person" }, thing]).trackId).toBe("pattern");
    expect(plan("auto", [track("text", "text", 500, 300)]).trackId).toBeNull();
  });

  test("what is there all the time rather than a face that is there for a moment", () => {
    const passing = { ...track("passing", "face", 1500, 200), boxes: track("x", "face", 1500, 200).boxes.slice(0, 10) };
    const thing = { ...track("thing", "salient", 500, 200), confidence: 1 };
    expect(plan("auto", [passing, thing]).trackId).toBe("thing");
  });

  test("two things alike: both if they fit, or always the same one, and says which it leaves out", () => {
    const things = (apart: number) => [
      track("left", "object", 900 - apart, 200),
      track("right", "object", 900 + apart, 200),
    ];
    const fitting = plan("auto", things(150));
    expect(fitting.reason).toMatch(/^two alike, 100%/);
    expect(boxAt(fitting.spans[0]!.subject!.track, 10)!.width).toBe(500);
    const apart = plan("auto", things(600));
    expect(new Set([apart.trackId, apart.other?.trackId])).toEqual(new Set(["left", "right"]));
    expect(apart.other?.why).toBe("alike");
    // People are known one by one, and a smaller thing is no equal.
    expect(plan("auto", [track("a", "face", 300, 150), track("b", "face", 1500, 150)]).other).toBeUndefined();
    expect(plan("auto", [track("left", "object", 300, 300), track("right", "object", 1500, 90)]).other).toBeUndefined();
  });

  test("is less certain between equals than where one stands out", () => {
    const twins = [track("left", "face", 700, 150), track("right", "face", 1220, 150)];
    expect(plan("auto", twins).certainty).toBeLessThan(0.5);
    expect(plan("auto", [large, small]).certainty).toBeGreaterThan(0.9);
  });
});
