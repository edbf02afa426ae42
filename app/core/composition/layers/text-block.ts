/** Breaks a text into balanced lines, and computes its size. */
import type { Size } from "../../geometry/box";
import { fontOf } from "./font-families";
import type { TextLayer } from "./layer";
import type { Pen } from "./pen";

/** Line height, and distance from a line's top to its baseline, in em. */
export const LINE = 1.22;
const BASELINE = 0.94;
/** Padding beside and above a text in its box, in em. */
export const PADDING = { x: 0.5, y: 0.28 };
/** Factor of each step of shrinking, and the smallest share of the size. */
const SHRINK_STEP = 0.94;
const LEAST_SHRUNK = 0.25;
/** Precision to which line widths are balanced, in em. */
const BALANCE_STEP = 0.1;

export interface TextBlock extends Size {
  /** Pixels of an em. */
  em: number;
  font: string;
  /** Each with its start, from the block's corner, and the index of its first character in the layer's text. */
  lines: { text: string; x: number; baseline: number; first: number }[];
  /** Whether it fits its room. */
  fits: boolean;
}

/** Pieces after which a line may end: words, and characters of scripts without spaces. */
const pieces = (text: string): string[] =>
  text.match(
    /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}]\s*|[^\s\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}]+\s*|\s+/gu,
  ) ?? [];

/** Lines of a paragraph, each as full as possible. */
function filled(parts: readonly string[], width: number, lengthOf: (text: string) => number): string[] {
  const lines: string[] = [];
  let line = "";
  for (const part of parts) {
    if (line !== "" && lengthOf((line + part).trimEnd()) > width) {
      lines.push(line.trimEnd());
      line = "";
    }
    line += part;
  }
  return [...lines, line.trimEnd()];
}

/** The same number of lines, as even as possible: in the smallest width that needs no more. */
function balanced(paragraph: string, width: number, em: number, lengthOf: (text: string) => number): string[] {
  const parts = pieces(paragraph);
  const lines = filled(parts, width, lengthOf);
  if (lines.length === 1) return lines;
  let [low, high] = [width / lines.length, width];
  while (high - low > BALANCE_STEP * em) {
    const middle = (low + high) / 2;
    if (filled(parts, middle, lengthOf).length > lines.length) low = middle;
    else high = middle;
  }
  return filled(parts, high, lengthOf);
}

function blockOf(layer: TextLayer, em: number, room: Size, pen: Pen): TextBlock {
  const font = fontOf(layer, em);
  pen.font = font;
  const lengthOf = (text: string) => pen.measureText(text).width;
  const padding = layer.box ? { x: PADDING.x * em, y: PADDING.y * em } : { x: 0, y: 0 };
  const most = layer.width * room.width - 2 * padding.x;
  const texts = layer.text.split("\n").flatMap((paragraph) => balanced(paragraph, most, em, lengthOf));
  const longest = Math.max(...texts.map(lengthOf));
  const share = { left: 0, centre: 0.5, right: 1 }[layer.align];
  const height = texts.length * LINE * em + 2 * padding.y;
  let read = 0;
  return {
    em,
    font,
    width: longest + 2 * padding.x,
    height,
    lines: texts.map((text, i) => {
      const first = layer.text.indexOf(text, read);
      read = first + text.length;
      return {
        text,
        first,
        x: padding.x + share * (longest - lengthOf(text)),
        baseline: padding.y + (i * LINE + BASELINE) * em,
      };
    }),
    fits: longest <= most + 1 && height <= room.height + 1,
  };
}

/**
 * A text in lines.
 * @param frame size of the version
 * @param room size of its safe area
 * @param pen measures text; its font is changed
 */
export function textBlock(layer: TextLayer, frame: Size, room: Size, pen: Pen): TextBlock {
  const em = layer.size * Math.min(frame.width, frame.height);
  let block = blockOf(layer, em, room, pen);
  for (let share = 1; layer.shrinks && !block.fits && share > LEAST_SHRUNK; share *= SHRINK_STEP) {
    block = blockOf(layer, em * share * SHRINK_STEP, room, pen);
  }
  return block;
}
