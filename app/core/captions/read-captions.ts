/**
 * Reads SubRip (SRT) and WebVTT files as they are found: with or without numbers, with commas or points, tight arrows,
 * hours beyond 99, lines without a caption. The file is split here, in linear time; a parser reads the markup of each
 * caption. Anything unusable is reported by its line, and not dropped in silence.
 */
import { tokenizeVTTCue, VTTCue, type VTTNode } from "media-captions";
import { Refusal } from "../basics/refusal";
import { type CaptionCue, MOST_CAPTION_TEXT, MOST_CAPTIONS } from "./caption";
import { captionsTexts } from "../../texts/captions";

const t = captionsTexts.readCaptions;

export interface ReadCaptions {
  /** In order of time. */
  cues: CaptionCue[];
  /** Problems of the file, by line, from 1. */
  problems: { line: number; text: string }[];
}

const CLOCK = String.raw`(?:(\d+):)?(\d{1,2}):(\d{1,2})(?:[.,](\d{1,3}))?`;
const TIMES = new RegExp(String.raw`^\s*${CLOCK}\s*-{1,2}>\s*${CLOCK}(.*)$`);
/** WebVTT blocks without a caption. */
const NO_CAPTION = /^(WEBVTT|NOTE|STYLE|REGION)\b/;
/** Position and style tags of some SubRip files. */
const OVERRIDES = /\{\\[^{}]*\}/g;
/** Most characters of a caption that are read, more than are kept, since they include markup. */
const MOST_READ = 4 * MOST_CAPTION_TEXT;

const secondsOf = ([hours = "0", minutes = "0", seconds = "0", fraction = ""]: readonly (
  string | undefined
)[]): number => 3600 * Number(hours) + 60 * Number(minutes) + Number(seconds) + Number(`0.${fraction || 0}`);

/** A caption with its lines in the file. */
interface Block {
  line: number;
  start: number;
  end: number;
  text: string[];
}

/** Splits a file at its timing lines: the only ones that every such file has. */
function blocksOf(lines: readonly string[], problems: ReadCaptions["problems"]): Block[] {
  const blocks: Block[] = [];
  let isSkipped = false;
  lines.forEach((line, i) => {
    const times = TIMES.exec(line);
    const current = blocks.at(-1);
    if (times) {
      isSkipped = false;
      // A number or name just above the timing belongs to the caption, and is not text of the one before.
      const id = lines[i - 1]?.trim() ?? "";
      const isId = id !== "" && (/^\d+$/.test(id) || (lines[i - 2]?.trim() ?? "") === "");
      if (isId && current && current.text.at(-1) === id) current.text.pop();
      const [first, second] = [times.slice(1, 5), times.slice(5, 9)];
      blocks.push({ line: i + 1, start: secondsOf(first), end: secondsOf(second), text: [] });
      return;
    }
    const before = lines[i - 1]?.trim() ?? "";
    if (NO_CAPTION.test(line) && before === "") isSkipped = true;
    else if (line.trim() === "") isSkipped = false;
    if (isSkipped || line.trim() === "") return;
    if (current) return void current.text.push(line.trim());
    // Above the first timing, only the first caption's number or name is expected.
    if (!TIMES.test(lines[i + 1] ?? "")) problems.push({ line: i + 1, text: t.strayLine });
  });
  return blocks;
}

/** The plain text, and the first voice named. */
function plain(nodes: readonly VTTNode[]): { text: string; speaker: string | null } {
  let speaker: string | null = null;
  const textOf = (node: VTTNode): string => {
    if (node.type === "text") return node.data;
    if (node.type === "timestamp") return node.children.map(textOf).join("");
    if (node.type === "v" && node.voice) speaker ??= node.voice;
    return node.children.map(textOf).join("");
  };
  const text = nodes.map(textOf).join("");
  return { text, speaker };
}

/**
 * Reads captions from the text of a file.
 * @param name of the file, for messages
 * @throws Refusal if it contains no caption
 */
export function readCaptions(content: string, name: string): ReadCaptions {
  const problems: ReadCaptions["problems"] = [];
  const lines = content.replace(/^\uFEFF/, "").split(/\r\n|\r|\n/);
  const usable = blocksOf(lines, problems).filter(({ line, start, end, text }) => {
    const why = end <= start ? t.endsBeforeStart : text.length === 0 ? t.emptyCaption : null;
    if (why) problems.push({ line, text: t.itIsLeftOut(why) });
    return why === null;
  });
  if (usable.length > MOST_CAPTIONS) throw new Refusal(t.tooManyCaptions(name, MOST_CAPTIONS));
  // The times are read; only each caption's text is left to parse.
  const found = usable
    .map((block) => {
      const text = block.text.join("\n").slice(0, MOST_READ).replaceAll(OVERRIDES, "");
      return { block, ...plain(tokenizeVTTCue(new VTTCue(0, 1, text))) };
    })
    .filter(({ text }) => text.trim() !== "");
  if (found.length === 0) {
    throw new Refusal(t.noCaptions(name));
  }
  const inOrder = [...found].sort((a, b) => a.block.start - b.block.start);
  if (inOrder.some((one, i) => one !== found[i])) {
    problems.push({ line: 1, text: t.sorted });
  }
  const cues = inOrder.map(({ block, text, speaker }, i): CaptionCue => {
    const next = inOrder[i + 1]?.block;
    const isOver = next !== undefined && next.start > block.start && next.start < block.end;
    if (isOver) problems.push({ line: block.line, text: t.overlapsNext });
    return { start: block.start, end: isOver ? next.start : block.end, text, speaker };
  });
  return { cues, problems: problems.sort((a, b) => a.line - b.line) };
}
