import { csvFormatRows, csvParse } from "d3-dsv";
import {
  hardTransition,
  isGradual,
  shotsBetween,
  TRANSITION_KINDS,
  type Transition,
  transitionKindOf,
} from "../shots/transition";
import { type Clock, frameAt, timecodeAt } from "../time/timecode";
import { type CutList, FormatError, requireWithin } from "./cut-list";

/** One row per shot. Ends are exclusive. */
const COLUMNS = ["shot", "start_frame", "end_frame", "start", "end", "transition", "mixed_from", "mixed_to"] as const;

/** Writes the shots of a film, one row each, with their transitions. */
export function writeCutsCsv({ clock, frames, transitions }: CutList): string {
  const rows = shotsBetween(transitions, { start: 0, end: frames }).map(({ start, end }, i) => {
    const transition = transitions[i - 1];
    const mixed = transition && isGradual(transition) ? transition.range : null;
    return [
      String(i + 1),
      String(start),
      String(end),
      timecodeAt(start, clock),
      timecodeAt(end, clock),
      transition?.kind ?? "",
      mixed ? String(mixed.start) : "",
      mixed ? String(mixed.end) : "",
    ];
  });
  return `${csvFormatRows([[...COLUMNS], ...rows])}\n`;
}

/**
 * Reads cuts from a table with a header row. Required is a column `start_frame` with frames, or `start` with timecodes;
 * other columns are optional. A row that begins at frame 0 is the first shot.
 * @throws FormatError, with the row, if the table cannot be read or does not fit the film
 */
export function readCutsCsv(text: string, clock: Clock, frames: number): Transition[] {
  const table = csvParse(text.replace(/^\uFEFF/, ""));
  const column = ["start_frame", "start"].find((name) => table.columns.includes(name));
  if (!column) throw new FormatError('the table has no column "start_frame" (frames) or "start" (timecodes)');
  const transitions: Transition[] = [];
  table.forEach((row, i) => {
    const line = i + 2;
    const frame = frameAt(row[column] ?? "", clock);
    if (frame === null) throw new FormatError(`row ${line}: "${row[column]}" is no frame or timecode`);
    if (frame === 0) return;
    const kind = transitionKindOf(row["transition"] || "cut");
    if (!kind)
      throw new FormatError(
        `row ${line}: "${row["transition"]}" is no transition; there are ${TRANSITION_KINDS.join(", ")}`,
      );
    const [start, end] = [row["mixed_from"], row["mixed_to"]].map((text) => (text ? Number(text) : NaN)) as [
      number,
      number,
    ];
    if (kind === "cut" || kind === "jump" || kind === "switch") transitions.push(hardTransition(frame, kind));
    else if (start <= frame && end > frame) transitions.push({ frame, kind, range: { start, end } });
    else throw new FormatError(`row ${line}: a ${kind} needs "mixed_from" and "mixed_to" around its start`);
  });
  requireWithin(transitions, frames);
  return transitions;
}
