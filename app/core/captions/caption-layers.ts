import { clamped } from "../numbers/clamped";
import { newText, type TextLayer } from "../composition/layers/layer";
import { type SafeArea, safeBox } from "../composition/layers/safe-area";
import { LINE, PADDING } from "../composition/layers/text-block";
import type { Size } from "../geometry/box";
import { rangeLength } from "../time/rate";
import { linesOf, lettersOf, wordsOf } from "./break-text";
import type { Caption } from "./caption";
import type { CaptionSettings } from "./caption-settings";
import { syllablesOf } from "./syllables";

/** Mean width of a character, as a share of its em. */
export const LETTER = 0.52;

/**
 * Colours of further speakers beside the captions' own, which is the first one's; each is legible on dark and shown with a
 * letter.
 */
const SPEAKER_COLOURS = ["#8fd3ff", "#9be3a4", "#ffb3c1", "#d7c2ff", "#f5c98f"];

type Look = Pick<CaptionSettings, "size" | "box">;

/** Characters per line that a version has room for; the rules' own limit where they have one. */
export function lineLengthIn(
  { size, box, rules }: Pick<CaptionSettings, "size" | "box" | "rules">,
  frame: Size,
  safe: SafeArea,
): number {
  if (rules.lineLength !== null) return rules.lineLength;
  const em = size * Math.min(frame.width, frame.height);
  const room = safeBox(safe, frame).width - (box ? 2 * PADDING.x * em : 0);
  return clamped(Math.floor(room / (LETTER * em)), 8, 42);
}

/** Approximate size of a caption, in pixels of the frame, without measuring text. */
export function captionSize(lines: readonly string[], { size, box }: Look, frame: Size): Size {
  const em = size * Math.min(frame.width, frame.height);
  const longest = Math.max(0, ...lines.map(lettersOf));
  return {
    width: longest * LETTER * em + (box ? 2 * PADDING.x * em : 0),
    height: lines.length * LINE * em + (box ? 2 * PADDING.y * em : 0),
  };
}

/** How captions show their speakers. */
export class Speakers {
  private readonly order: string[];

  constructor(captions: readonly Pick<Caption, "speaker">[]) {
    this.order = [...new Set(captions.flatMap(({ speaker }) => speaker ?? []))];
  }

  /** Colour of a speaker. */
  colourOf(speaker: string | null, own: string): string {
    const place = speaker === null ? 0 : this.order.indexOf(speaker);
    return place > 0 ? SPEAKER_COLOURS[(place - 1) % SPEAKER_COLOURS.length]! : own;
  }

  get several(): boolean {
    return this.order.length > 1;
  }
}

/** A caption's text in lines, with the speaker where that is shown. */
export function captionLines(
  { text, speaker }: Pick<Caption, "text" | "speaker">,
  lineLength: number,
  tellsSpeaker: boolean,
): string[] {
  const said = tellsSpeaker && speaker !== null ? `${speaker}: ${text}` : text;
  return linesOf(said, lineLength);
}

/** The frames of each word, in proportion to its syllables; of a text already broken into lines. */
function wordSpans(
  lines: readonly string[],
  { start, end }: Caption,
): { from: number; to: number; start: number; end: number }[] {
  const text = lines.join("\n");
  let at = 0;
  const words = lines.flatMap(wordsOf).map((word) => {
    const from = text.indexOf(word, at);
    at = from + word.length;
    return { from, to: at, weight: Math.max(0.5, syllablesOf(word)) };
  });
  const all = words.reduce((sum, { weight }) => sum + weight, 0);
  let before = 0;
  const frameAt = (share: number) => start + Math.round(share * (end - start));
  return words.map(({ from, to, weight }) => {
    const first = frameAt(before / all);
    before += weight;
    return { from, to, start: first, end: frameAt(before / all) };
  });
}

/**
 * Captions as layers: one for each, or one for each word where the spoken word has a colour of its own.
 * @param places place of each in the safe area by its id, 1 at its foot
 */
export function captionLayers(
  captions: readonly Caption[],
  settings: CaptionSettings,
  places: ReadonlyMap<string, number>,
  frame: Size,
  safe: SafeArea,
): TextLayer[] {
  const lineLength = lineLengthIn(settings, frame, safe);
  const speakers = new Speakers(captions);
  const { family, size, weight, box, outline, outlineColour, shadow, highlight } = settings;
  return captions.flatMap((caption) => {
    const tellsSpeaker = settings.speakers && speakers.several;
    const lines = captionLines(caption, lineLength, tellsSpeaker);
    if (lines.length === 0) return [];
    const layer: TextLayer = {
      ...newText(`caption ${caption.id}`, lines.join("\n")),
      family,
      size,
      weight,
      box,
      outline,
      outlineColour,
      shadow,
      shrinks: true,
      width: 1,
      x: 0.5,
      y: places.get(caption.id) ?? 1,
      arrives: "cut",
      leaves: "cut",
      colour: tellsSpeaker ? speakers.colourOf(caption.speaker, settings.colour) : settings.colour,
      range: { start: caption.start, end: caption.end },
    };
    if (highlight === null) return layer;
    return wordSpans(lines, caption)
      .filter((span) => rangeLength(span) > 0)
      .map(({ from, to, start, end }): TextLayer => ({
        ...layer,
        id: `${layer.id} ${from}`,
        range: { start, end },
        highlight: { from, to, colour: highlight },
      }));
  });
}
