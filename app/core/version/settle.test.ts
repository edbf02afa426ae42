import { describe, expect, test } from "@jest/globals";
import { USUAL_FRAMING } from "../path/framing-settings";
import { changeInPane, settle, settledPane, withRules } from "./settle";

const SHOT = { follow: { kind: "track" as const, trackId: "a" }, protect: { x: 1, y: 2, width: 3, height: 4 } };

describe("a shot's panes", () => {
  const settled = settle(SHOT, { calm: 80, panes: [{ movement: "chase" }] });

  test("are as the shot is, but for what is their own; whom they follow they choose themselves", () => {
    expect(settledPane(settled, 0)).toBe(settled);
    expect(settledPane(settled, 1)).toMatchObject({
      settings: { calm: 80, movement: "chase" },
      follow: { kind: "auto" },
      protect: null,
    });
    expect(settledPane(settled, 2).settings.movement).toBe("auto");
  });

  test("are changed one by one: their windows and subjects are their own, the rest is the shot's", () => {
    const change = { calm: 20, follow: { kind: "second" as const }, layout: USUAL_FRAMING.layout };
    expect(changeInPane(settled.settings, 0, change)).toBe(change);
    expect(changeInPane(settled.settings, 2, change)).toEqual({
      layout: USUAL_FRAMING.layout,
      panes: [{ movement: "chase" }, { calm: 20, follow: { kind: "second" } }],
    });
    expect(changeInPane(settled.settings, 1, { calm: 20 })).toEqual({ panes: [{ movement: "chase", calm: 20 }] });
    expect(changeInPane(settled.settings, 1, { layout: USUAL_FRAMING.layout })).toEqual({
      layout: USUAL_FRAMING.layout,
    });
  });

  test("have rules that are replaced in all of them, or left out", () => {
    const track = (trackId: string) => ({ kind: "track" as const, trackId });
    const said = { calm: 20, follow: track("a"), panes: [{ follow: track("b") }, { calm: 10 }] };
    const renamed = withRules(said, (rule) => (rule.kind === "track" ? track(`new ${rule.trackId}`) : rule));
    expect(renamed).toEqual({ calm: 20, follow: track("new a"), panes: [{ follow: track("new b") }, { calm: 10 }] });
    expect(withRules(said, () => null)).toEqual({ calm: 20, panes: [{}, { calm: 10 }] });
  });
});
