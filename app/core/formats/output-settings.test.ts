import { describe, expect, test } from "@jest/globals";
import { outputFormat } from "./output-formats";
import { outputDepth, outputRate, pictureArguments, qualityNumber, USUAL_OUTPUT } from "./output-settings";

const MP4 = outputFormat("mp4");

describe("how a version is exported", () => {
  test("at a quality in words or by the encoder's own number, a whole one within what it takes", () => {
    const { small, good, best, least, most } = MP4.quality!;
    expect((["small", "good", "best"] as const).map((word) => qualityNumber(MP4, word))).toEqual([small, good, best]);
    expect([20, 20.4, 0.5, -3, 300].map((number) => qualityNumber(MP4, number))).toEqual([20, 20, 1, least, most]);
    const without = { ...MP4, quality: null };
    expect([qualityNumber(without, "best"), qualityNumber(without, 20)]).toEqual([0, 0]);
    expect(pictureArguments({ ...USUAL_OUTPUT, quality: 21 }, 8)).toContain("21");
  });

  test("at the film's rate, or at another one that is really another", () => {
    const film = { num: 30_000, den: 1001 };
    expect(outputRate({ rate: null }, film)).toEqual({ rate: film, isOther: false });
    expect(outputRate({ rate: { num: 60_000, den: 2002 } }, film)).toEqual({ rate: film, isOther: false });
    expect(outputRate({ rate: { num: 30, den: 1 } }, film)).toEqual({ rate: { num: 30, den: 1 }, isOther: true });
  });

  test("with as many bits as the film has, or as are asked for, where the format has a choice", () => {
    const depth = (format: "mp4" | "hevc" | "prores", wanted: 8 | 10 | null, film: number) =>
      outputDepth({ format, depth: wanted }, film);
    expect([depth("hevc", null, 8), depth("hevc", null, 10), depth("hevc", null, 12)]).toEqual([8, 10, 10]);
    expect([depth("hevc", 8, 10), depth("hevc", 10, 8)]).toEqual([8, 10]);
    expect([depth("mp4", null, 10), depth("prores", null, 8)]).toEqual([8, 10]);
  });
});
