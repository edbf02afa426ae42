import { describe, expect, test } from "@jest/globals";
import { frameToSeconds, mediaTimeToFrame, parseRate, seekSeconds } from "./rate";
import { clockOf, formatTimecode, frameAt, parseTimecode, timecodeAt } from "./timecode";

const PAL = { num: 25, den: 1 };
const NTSC = { num: 30000, den: 1001 };
const NTSC60 = { num: 60000, den: 1001 };

describe("rates", () => {
  test("are read as ratios, and nonsense is not", () => {
    expect(parseRate("30000/1001")).toEqual(NTSC);
    expect(parseRate("25")).toEqual(PAL);
    for (const text of ["0/0", "", "abc", "25/0"]) expect(parseRate(text)).toBeNull();
  });

  test("a seek lands inside its frame, and a player's time names the frame, over an hour", () => {
    for (const frame of [0, 1, 599, 107_891]) {
      expect(mediaTimeToFrame(frameToSeconds(frame, NTSC), NTSC)).toBe(frame);
      const seek = seekSeconds(frame, NTSC);
      expect(seek).toBeGreaterThan(frameToSeconds(frame, NTSC));
      expect(seek).toBeLessThan(frameToSeconds(frame + 1, NTSC));
    }
  });
});

describe("timecode", () => {
  test("counts frames, seconds, minutes and hours", () => {
    expect(formatTimecode(0, PAL)).toBe("00:00:00:00");
    expect(formatTimecode(25 * 3661 + 7, PAL)).toBe("01:01:01:07");
  });

  test("drops numbers at each minute but the tenth at 29.97 (ST 12-1)", () => {
    expect(formatTimecode(1799, NTSC)).toBe("00:00:59;29");
    expect(formatTimecode(1800, NTSC)).toBe("00:01:00;02");
    expect(formatTimecode(17982, NTSC)).toBe("00:10:00;00");
    expect(formatTimecode(107892, NTSC)).toBe("01:00:00;00");
    expect(formatTimecode(3600, NTSC60)).toBe("00:01:00;04");
  });

  test.each([PAL, NTSC, NTSC60])("what is written is read back ($num/$den)", (rate) => {
    for (let frame = 0; frame < 120_000; frame += 977) {
      expect(parseTimecode(formatTimecode(frame, rate), rate)).toBe(frame);
    }
  });

  test("short forms and bare frame numbers are understood", () => {
    expect(parseTimecode("3:04", PAL)).toBe(79);
    expect(parseTimecode("1:00:00", PAL)).toBe(1500);
    expect(parseTimecode(" 1204 ", PAL)).toBe(1204);
  });

  test("what does not exist is refused", () => {
    for (const text of ["00:00:00:25", "00:60:00:00", "x", "1:2:3:4:5", ""])
      expect(parseTimecode(text, PAL)).toBeNull();
    expect(parseTimecode("00:01:00;01", NTSC)).toBeNull();
  });
});

describe("a film's own clock", () => {
  test("goes on from the timecode that the file begins with", () => {
    const clock = clockOf(PAL, "10:00:00:00");
    expect([0, 26].map((frame) => timecodeAt(frame, clock))).toEqual(["10:00:00:00", "10:00:01:01"]);
    expect(["10:00:01:01", "1:01", "26", "09:59:59:24"].map((text) => frameAt(text, clock))).toEqual([
      26,
      26,
      26,
      null,
    ]);
  });

  test("drops frames only where the file does", () => {
    const minute = 1800;
    expect(timecodeAt(minute, clockOf(NTSC, "01:00:00;00"))).toBe("01:01:00;02");
    expect(timecodeAt(minute, clockOf(NTSC, "01:00:00:00"))).toBe("01:01:00:00");
    expect(frameAt("01:01:00:00", clockOf(NTSC, "01:00:00:00"))).toBe(minute);
    expect(timecodeAt(minute, clockOf(NTSC, null))).toBe("00:01:00;02");
  });

  test("begins with 0 where the file says nothing that makes sense", () => {
    for (const start of [null, "", "noon", "00:00:00:99"]) expect(clockOf(PAL, start).first).toBe(0);
  });
});
