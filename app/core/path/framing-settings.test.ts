import { describe, expect, test } from "@jest/globals";
import { commonSettings, FramingSettings, USUAL_FRAMING } from "./framing-settings";

describe("framing settings", () => {
  test("of several shots are those that are equal in all", () => {
    const zoom = { kind: "free" as const, min: 1, max: 2 };
    const all = [
      { ...USUAL_FRAMING, zoom, calm: 20 },
      { ...USUAL_FRAMING, zoom: { ...zoom }, calm: 60 },
    ];
    const { calm, ...others } = all[0]!;
    expect(commonSettings(all)).toEqual(others);
    expect(commonSettings([all[0]!])).toEqual({ ...others, calm });
    expect(commonSettings([])).toEqual({});
  });

  test("have a least zoom that is no more than the most", () => {
    const zoom = { kind: "free", min: 2, max: 1.5 };
    expect(FramingSettings.safeParse({ ...USUAL_FRAMING, zoom }).error?.issues[0]?.message).toContain("least zoom");
  });
});
