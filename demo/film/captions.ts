/** Captions of a made film, from what is said in it and when. */
import { cutIntoCaptions } from "~/core/captions/break-text";
import type { CaptionText } from "~/core/captions/caption";
import { timeCaptions } from "~/core/captions/time-captions";
import { USUAL_CAPTIONS } from "~/core/captions/caption-settings";
import type { Rate } from "~/core/time/rate";

/** Letters of a line, and lines of a caption. */
const LINE_LENGTH = 28;
const LINES = 2;

/** What is said, cut into captions; those of one line of the script share its time by their syllables. */
export function captionsOfFilm(
  spoken: readonly { person: string; text: string; start: number; end: number }[],
  rate: Rate,
): CaptionText[] {
  const captions = spoken.flatMap(({ person, text, start, end }) => {
    const speaker = person[0]!.toUpperCase() + person.slice(1);
    const said = cutIntoCaptions(text, LINE_LENGTH, LINES).map((part) => ({ ...part, speaker }));
    const range = { start, end };
    return timeCaptions(said, { segments: [range], turns: [] }, range, rate, USUAL_CAPTIONS.rules);
  });
  // Whoever falls in cuts the other one short.
  return captions.map((caption, i) => ({ ...caption, end: Math.min(caption.end, captions[i + 1]?.start ?? Infinity) }));
}
