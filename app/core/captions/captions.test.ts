import { describe, expect, test } from "@jest/globals";
import { type CaptionText, captionsIn, captionsOf, retimed } from "./caption";
import { readCaptions } from "./read-captions";
import { writeSrt, writeVtt } from "./write-captions";

const read = async (text: string) => readCaptions(text, "talk.srt");
const cue = (start: number, end: number, text: string, speaker: string | null = null) => ({
  start,
  end,
  text,
  speaker,
});
const RATE = { num: 25, den: 1 };

describe("a file of captions", () => {
  test("is read with numbers or without, with commas, points, tight arrows and any line ends", async () => {
    const files = [
      "1\n00:00:01,000 --> 00:00:02,500\nThe wind\nturns\n\n2\n00:00:03,000 --> 00:00:04,000\nHold on\n",
      "\uFEFF1\r\n00:00:01,000 --> 00:00:02,500\r\nThe wind\r\nturns\r\n\r\n2\r\n00:00:03,000 --> 00:00:04,000\r\nHold on\r\n",
      "00:00:01.000-->00:00:02.500\nThe wind\nturns\n00:00:03.000-->00:00:04.000\nHold on",
      "WEBVTT\n\nNOTE made by hand\nin two lines\n\nfirst\n00:01.000 --> 00:02.500 line:10% align:left\nThe wind\nturns\n\n00:03.000 --> 00:04.000\nHold on\n",
      "1\n0:00:01,0 --> 0:00:02,5\nThe wind\n\nturns\n\n2\n0:00:03 --> 0:00:04\nHold on\n",
    ];
    for (const file of files) {
      expect(await read(file)).toEqual({ cues: [cue(1, 2.5, "The wind\nturns"), cue(3, 4, "Hold on")], problems: [] });
    }
  });

  test("gives text without markup, and who speaks", async () => {
    const { cues } = await read(
      "WEBVTT\n\n00:01.000 --> 00:02.000\n<v Ada>Up <i>there</i> &amp; away\n\n00:02.000 --> 00:03.000\n{\\an8}<b>Now</b>\n",
    );
    expect(cues).toEqual([cue(1, 2, "Up there & away", "Ada"), cue(2, 3, "Now")]);
  });

  test("tells by line what cannot be used, and keeps the rest in order", async () => {
    const { cues, problems } = await read(
      "What a day\n\n1\n00:00:05,000 --> 00:00:04,000\nbackwards\n\n2\n00:00:08,000 --> 00:00:09,000\nlate\n\n3\n00:00:06,000 --> 00:00:07,000\n\n4\n100:00:00,000 --> 100:00:01,000\nfar\n\n5\n00:00:01,000 --> 00:00:02,000\nearly\n",
    );
    expect(cues.map(({ start, text }) => [start, text])).toEqual([
      [1, "early"],
      [8, "late"],
      [360_000, "far"],
    ]);
    expect(problems).toEqual([
      { line: 1, text: "This line belongs to no caption." },
      { line: 1, text: "The captions were out of order and have been sorted." },
      { line: 4, text: "This caption ends before it starts; it is left out." },
      { line: 12, text: "This caption is empty; it is left out." },
    ]);
  });

  test("in which two overlap has the first end where the next begins, and says so", async () => {
    const { cues, problems } = await read("00:01.000 --> 00:04.000\na\n\n00:03.000 --> 00:05.000\nb\n");
    expect(cues).toEqual([cue(1, 3, "a"), cue(3, 5, "b")]);
    expect(problems).toEqual([{ line: 1, text: "This caption overlaps the next; it ends where that begins." }]);
  });

  test("is read in a time that grows with its length, whatever is in it", async () => {
    const cues = Array.from({ length: 20_000 }, (_, i) => `${i}\n00:00:01,000 --> 00:00:02,000\nHold on\n`);
    expect((await read(cues.join("\n"))).cues).toHaveLength(20_000);
    await expect(read([...cues, cues[0]].join("\n"))).rejects.toThrow("talk.srt: a film has at most 20000 captions");
    const times = "00:00:01,000 --> 00:00:02,000\n";
    for (const text of ["{\\".repeat(200_000), "a\n".repeat(200_000), "<b>".repeat(200_000), "&".repeat(200_000)]) {
      const { cues: found } = await read(`${times}${text}x\n\n${times}Hold on\n`);
      expect(found.at(-1)!.text).toBe("Hold on");
    }
  });

  test("in which there is none is refused by its name", async () => {
    for (const text of ["", "WEBVTT\n\n", "just words\nand more", "\u0000\u0001"]) {
      await expect(read(text)).rejects.toThrow("talk.srt: no captions found");
    }
  });
});

describe("captions of a film", () => {
  test("are on its grid, later by an offset, and not beyond its end", () => {
    const cues = [cue(1, 2.02, "a"), cue(3.5, 9, "b"), cue(10, 11, "c")];
    expect(captionsOf(cues, RATE, 125).map(({ start, end, text }) => [start, end, text])).toEqual([
      [25, 51, "a"],
      [88, 125, "b"],
    ]);
    expect(captionsOf(cues, RATE, 125, -1.5)[0]).toMatchObject({ start: 0, end: 13 });
  });

  test("that were timed at another rate stay at their frames", () => {
    expect(retimed([cue(10, 12, "a")], 24, RATE)).toEqual([cue(9.6, 11.52, "a")]);
  });

  const caption = (start: number, end: number, text: string): CaptionText => ({ start, end, text, speaker: null });

  test("lose what a version leaves out, and move up", () => {
    const all = [caption(10, 30, "a"), caption(40, 60, "b"), caption(70, 90, "c")];
    const kept = [
      { start: 20, end: 50 },
      { start: 55, end: 65 },
    ];
    expect(captionsIn(all, kept)).toEqual([caption(0, 10, "a"), caption(20, 35, "b")]);
    expect(captionsIn(all, [])).toEqual([]);
  });

  test("are written so that they are read again as they were", async () => {
    const all: CaptionText[] = [
      { start: 25, end: 51, text: "Tea < coffee\n& cake", speaker: null },
      { start: 90_000, end: 90_050, text: "Good", speaker: "Ada" },
    ];
    const again = captionsOf((await read(writeVtt(all, RATE))).cues, RATE, 100_000);
    expect(again).toEqual(all);
    expect(writeSrt(all, RATE)).toBe(
      "1\n00:00:01,000 --> 00:00:02,040\nTea < coffee\n& cake\n\n2\n01:00:00,000 --> 01:00:02,000\nGood\n",
    );
  });
});
