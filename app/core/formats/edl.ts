import { assertNever } from "../basics/assert-never";
import { hardTransition, isGradual, type Transition } from "../shots/transition";
import { type Clock, formatTimecode, parseTimecode, timecodeAt } from "../time/timecode";
import { type CutList, FormatError, requireWithin } from "./cut-list";

/**
 * CMX 3600 edit decision lists. The film is one reel, and as long as the programme, so that source and record
 * times are the same: the film's own timecode. An event line is
 *
 *     003  AX       V     D    024 00:00:10:00 00:00:20:00 00:00:10:00 00:00:20:00
 *
 * number, reel, channel, kind (C for cut, D dissolve, W and a number for a wipe), length of the mixture in frames,
 * then source in and out, record in and out; an out is the first frame that does not belong. A mixture begins at
 * the record in of the incoming event. A fade goes by way of the reel BL, black.
 */

const REEL = "AX";
const BLACK = "BL";

interface EdlEvent {
  reel: string;
  kind: "C" | "D" | `W${string}`;
  /** Frames of the mixture with which the event begins. */
  length: number;
  recordIn: number;
  recordOut: number;
}

function eventLine(number: number, event: EdlEvent, clock: Clock): string {
  const code = (frame: number) => timecodeAt(frame, clock);
  const lasting = (frames: number) => formatTimecode(frames, clock.rate, clock.drop);
  const [from, to] = [code(event.recordIn), code(event.recordOut)];
  const source = event.reel === BLACK ? [lasting(0), lasting(event.recordOut - event.recordIn)] : [from, to];
  const length = event.kind === "C" ? "   " : String(event.length).padStart(3, "0");
  const head = `${String(number).padStart(3, "0")}  ${event.reel.padEnd(8)} V     ${event.kind.padEnd(4)} ${length}`;
  return `${head} ${source.join(" ")} ${from} ${to}`;
}

/** The events of a transition, the last of which lasts until `end`. */
function eventsOf({ kind, frame, range }: Transition, end: number): EdlEvent[] {
  const shot = { reel: REEL, recordOut: end };
  switch (kind) {
    case "cut":
    case "jump":
    case "switch":
      return [{ ...shot, kind: "C", length: 0, recordIn: frame }];
    case "dissolve":
      return [{ ...shot, kind: "D", length: range.end - range.start, recordIn: range.start }];
    case "wipe":
      return [{ ...shot, kind: "W001", length: range.end - range.start, recordIn: range.start }];
    case "fade":
      return [
        { reel: BLACK, kind: "D", length: frame - range.start, recordIn: range.start, recordOut: frame },
        { ...shot, kind: "D", length: range.end - frame, recordIn: frame },
      ];
    default:
      return assertNever(kind);
  }
}

/** A name on a single line, as lists need it. */
const oneLine = (name: string): string => name.replaceAll(/\s+/g, " ").trim();

/** Writes the cuts of a film. Switches are left out: the picture does not change there. */
export function writeEdl({ title, clock, frames, transitions }: CutList): string {
  const cuts = transitions.filter(({ kind }) => kind !== "switch");
  const startOf = (t: Transition) => (isGradual(t) ? t.range.start : t.frame);
  const lines = [`TITLE: ${oneLine(title)}`, `FCM: ${clock.drop ? "DROP FRAME" : "NON-DROP FRAME"}`];
  let number = 1;
  const ends = [...cuts.map(startOf), frames];
  lines.push(eventLine(number, { reel: REEL, kind: "C", length: 0, recordIn: 0, recordOut: ends[0]! }, clock));
  cuts.forEach((transition, i) => {
    for (const event of eventsOf(transition, ends[i + 1]!)) {
      number++;
      if (event.kind !== "C") {
        // The outgoing source, repeated without length, as the format requires.
        const reel = event.reel === REEL && transition.kind === "fade" ? BLACK : REEL;
        const from: EdlEvent = { reel, kind: "C", length: 0, recordIn: event.recordIn, recordOut: event.recordIn };
        lines.push(eventLine(number, from, clock));
      }
      lines.push(eventLine(number, event, clock));
    }
    if (transition.kind === "jump") lines.push("* JUMP CUT");
  });
  return `${lines.join("\r\n")}\r\n`;
}

const EVENT =
  /^\d+\s+(?<reel>\S+)\s+(?<channel>\S+)\s+(?<kind>C|D|W\d*|KB?|KO?)\s+(?:(?<length>\d+)\s+)?(?<times>\d\d[:;.]\d\d[:;.]\d\d[:;.]\d\d(?:\s+\d\d[:;.]\d\d[:;.]\d\d[:;.]\d\d){3})\s*$/i;

interface ReadEvent extends EdlEvent {
  jump: boolean;
}

function readEvents(text: string, { rate, drop }: Clock): ReadEvent[] {
  const events: ReadEvent[] = [];
  text.split(/\r?\n/).forEach((line, i) => {
    if (/^\*\s*JUMP CUT\s*$/i.test(line) && events.length > 0) events.at(-1)!.jump = true;
    if (!/^\s*\d+\s/.test(line)) return;
    const match = EVENT.exec(line.trim());
    if (!match) throw new FormatError(`line ${i + 1} is no event of a CMX 3600 list: "${line.trim()}"`);
    const { reel, channel, kind, length, times } = match.groups as Record<string, string>;
    // Audio-only events do not cut the picture.
    if (!/^(B|.*V\d*)$/i.test(channel!)) return;
    const [recordIn, recordOut] = times!
      .split(/\s+/)
      .slice(2)
      .map((time) => {
        const frame = parseTimecode(time, rate, drop);
        if (frame === null) throw new FormatError(`line ${i + 1}: ${time} is no timecode at this film's frame rate`);
        return frame;
      }) as [number, number];
    if (recordOut < recordIn) throw new FormatError(`line ${i + 1} ends before it begins`);
    // The line that repeats the outgoing source has no length.
    if (recordOut === recordIn) return;
    events.push({
      reel: reel!.toUpperCase(),
      kind: kind!.toUpperCase() as EdlEvent["kind"],
      length: Number(length ?? 0),
      recordIn,
      recordOut,
      jump: false,
    });
  });
  return events;
}

/** Halfway through a mixture, of which the list gives only the length. */
function mixture(event: ReadEvent): Transition {
  const range = { start: event.recordIn, end: event.recordIn + event.length };
  return { frame: range.start + (event.length >> 1), kind: event.kind === "D" ? "dissolve" : "wipe", range };
}

/**
 * Reads the cuts of a film from a list whose programme is the film, by its record times, counted from the first.
 * @throws FormatError, with the line, if the text is no such list, or its times do not fit the film
 */
export function readEdl(text: string, clock: Clock, frames: number): Transition[] {
  const events = readEvents(text, clock);
  if (events.length === 0) throw new FormatError("the list has no event that cuts the picture");
  const origin = Math.min(...events.map((event) => event.recordIn));
  for (const event of events) {
    event.recordIn -= origin;
    event.recordOut -= origin;
  }
  events.sort((a, b) => a.recordIn - b.recordIn);
  const transitions: Transition[] = [];
  for (let i = 1; i < events.length; i++) {
    const event = events[i]!;
    const next = events[i + 1];
    if (event.reel === BLACK && next) {
      const range = { start: event.recordIn, end: next.recordIn + next.length };
      transitions.push({ frame: next.recordIn, kind: "fade", range });
      i++;
    } else if (event.length > 0) transitions.push(mixture(event));
    else transitions.push(hardTransition(event.recordIn, event.jump ? "jump" : "cut"));
  }
  requireWithin(transitions, frames);
  return transitions;
}
