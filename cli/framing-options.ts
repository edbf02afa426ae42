/** Movement and size of the window, as options of the command line. */
import { type Command, InvalidArgumentError, Option } from "commander";
import { Backdrop, USUAL_BACKDROP } from "~/core/composition/backdrop";
import { Edge, EDGE_LOOKS } from "~/core/composition/edge";
import { FILL, Layout, WHOLE } from "~/core/composition/layout";
import { LEAST_SHARE, STACK, Stack } from "~/core/composition/stack";
import {
  END_CHOICES,
  EYE_LINE_RANGE,
  FramingSettings,
  MOVEMENT_CHOICES,
  type MovementChoice,
  MOST_SCALE,
  MAX_ZOOM,
  MOST_OFFSET,
  USUAL_FRAMING,
  Zoom,
} from "~/core/path/framing-settings";
import { SHORTEST_STAY, SWITCH_STYLES } from "~/core/subjects/attention/attention-settings";
import { numberOfLetter, personId } from "~/core/subjects/choosing/people";
import type { FollowRule } from "~/core/subjects/choosing/follow-rule";
import { type BackdropFile, isFilmFile } from "./own-files";
import { addFollowOption } from "./options";

/** Options are named after their settings. */
export interface FramingOptions extends Omit<FramingSettings, "panes" | "backdrop"> {
  /** The panes of a stack, from a preset; there is no option for them. */
  panes?: FramingSettings["panes"];
  /** Place of a picture that does not fill the frame; the layout's if left out. */
  place?: number;
  backdrop: Backdrop | BackdropFile;
  follow: FollowRule;
  keepBoth?: boolean;
}

/** Strongest free zoom if none is given. */
const USUAL_MOST = 1.5;

export function parseMovement(text: string): MovementChoice {
  const movement = MOVEMENT_CHOICES.find((name) => name === text);
  if (!movement) throw new InvalidArgumentError(`A movement is one of ${MOVEMENT_CHOICES.join(", ")}.`);
  return movement;
}

export const numberFrom =
  (least: number, most: number) =>
  (text: string): number => {
    const value = Number(text);
    if (text.trim() === "" || !(value >= least && value <= most)) {
      throw new InvalidArgumentError(`It is a number from ${least} to ${most}.`);
    }
    return value;
  };

/** "fixed:1.3", "free", or "free:1-2". */
export function parseZoom(text: string): Zoom {
  const fixed = /^fixed:([\d.]+)$/.exec(text);
  const free = /^free(?::([\d.]+)-([\d.]+))?$/.exec(text);
  const zoom = fixed
    ? { kind: "fixed", factor: Number(fixed[1]) }
    : free && { kind: "free", min: Number(free[1] ?? 1), max: Number(free[2] ?? USUAL_MOST) };
  const parsed = Zoom.safeParse(zoom);
  if (parsed.success) return parsed.data;
  throw new InvalidArgumentError(`A zoom is fixed:N, free or free:MIN-MAX, with factors from 1 to ${MAX_ZOOM}.`);
}

/** "60-40" as a stack with two panes. */
function parseStack(text: string): Layout | null {
  const shares = text.split("-").map((part) => Number(part) / 100);
  const sum = shares.reduce((all, share) => all + share, 0);
  const places = shares.map((share, pane) => ({ pane, share: share / sum }));
  return Stack.safeParse({ ...STACK, places }).data ?? null;
}

/** "fill", "whole", "whole:0.6" for a size between the two, "stack", or "stack:60-40". */
export function parseLayout(text: string): Layout {
  if (text === "fill") return FILL;
  const stack = /^stack(?::(.+))?$/.exec(text);
  const stacked = stack && (stack[1] === undefined ? STACK : parseStack(stack[1]));
  if (stacked) return stacked;
  const whole = /^whole(?::([\d.]+))?$/.exec(text);
  const parsed = Layout.safeParse(whole && { ...WHOLE, amount: Number(whole[1] ?? 1) });
  if (parsed.success) return parsed.data;
  throw new InvalidArgumentError(
    `A layout is fill, whole, whole:AMOUNT with an amount from 0 to 1, stack, or stack:SHARES such as stack:60-40, with no share under ${100 * LEAST_SHARE}%.`,
  );
}

const PLACES = new Map([
  ["top", 0],
  ["third", 1 / 3],
  ["middle", 0.5],
  ["bottom", 1],
]);

/** "top", "third", "middle", "bottom", or a share of the rest of the frame. */
export function parsePlace(text: string): number {
  const place = PLACES.get(text) ?? Number(text);
  if (text.trim() !== "" && place >= 0 && place <= 1) return place;
  throw new InvalidArgumentError(`A place is one of ${[...PLACES.keys()].join(", ")}, or a number from 0 to 1.`);
}

/** "blur", "blur:STRENGTH-DARKNESS", "mirror", "mirror:DARKNESS", "#rrggbb", "#rrggbb-#rrggbb", or a picture or film file. */
export function parseBackdrop(text: string): Backdrop | BackdropFile {
  if (/\.(png|jpe?g|webp|svg)$/i.test(text) || isFilmFile(text)) return { kind: "file", file: text };
  const blur = /^blur(?::(\d+)-(\d+))?$/.exec(text);
  const mirror = /^mirror(?::(\d+))?$/.exec(text);
  const [top, foot] = text.toLowerCase().split("-");
  const wanted = blur
    ? { ...USUAL_BACKDROP, ...(blur[1] ? { strength: Number(blur[1]), darkness: Number(blur[2]) } : {}) }
    : mirror
      ? { kind: "mirror", darkness: Number(mirror[1] ?? 0) }
      : foot !== undefined
        ? { kind: "gradient", top, foot }
        : { kind: "colour", colour: top };
  const parsed = Backdrop.safeParse(wanted);
  if (parsed.success) return parsed.data;
  throw new InvalidArgumentError(
    "A backdrop is blur, blur:STRENGTH-DARKNESS or mirror:DARKNESS with numbers from 0 to 100, mirror, a colour such as #20242c, two such colours with a - between them, or a picture or film file.",
  );
}

/** "none", "shadow" or "feather", with ":CORNER" for the roundness of its corners. */
export function parseEdge(text: string): Edge {
  const [look, corner = "0"] = text.split(":");
  const parsed = Edge.safeParse({ look, corner: Number(corner) });
  if (parsed.success) return parsed.data;
  throw new InvalidArgumentError(
    `An edge is ${EDGE_LOOKS.join(", ")}, each with :CORNER for how round its corners are, 0 to 100.`,
  );
}

/** "10,-5": percent to the right and down. */
export function parseOffset(text: string): FramingSettings["offset"] {
  const shares = text.split(",").map((percent) => (percent.trim() === "" ? Number.NaN : Number(percent) / 100));
  const [x = 0, y = 0] = shares;
  if (shares.length <= 2 && [x, y].every((share) => Math.abs(share) <= MOST_OFFSET)) return { x, y };
  throw new InvalidArgumentError(
    `An offset is one or two numbers from ${-100 * MOST_OFFSET} to ${100 * MOST_OFFSET}, such as 10,-5.`,
  );
}

/** "A,C": the people with these letters. */
export function parseMustHave(text: string): string[] {
  return text.split(",").map((letter) => {
    const number = numberOfLetter(letter.trim());
    if (number === null) throw new InvalidArgumentError("People are said by their letters, such as A or A,C.");
    return personId(number);
  });
}

/** Options whose picture has been read. */
export type ReadyOptions = Omit<FramingOptions, "backdrop"> & { backdrop: Backdrop };

export const settingsOf = ({ panes = [], place, layout, ...options }: ReadyOptions): FramingSettings =>
  FramingSettings.parse({
    ...options,
    panes,
    layout: layout.kind === "whole" && place !== undefined ? { ...layout, place } : layout,
  });

/** The rule for whom to follow; keeping two is one of them. */
export const ruleOf = ({ follow, keepBoth }: Pick<FramingOptions, "follow" | "keepBoth">): FollowRule =>
  keepBoth ? { kind: "both" } : follow;

export const addFramingOptions = (command: Command): Command =>
  addFollowOption(command)
    .option(
      "--movement <movement>",
      `how the window moves: ${MOVEMENT_CHOICES.join(", ")}`,
      parseMovement,
      USUAL_FRAMING.movement,
    )
    .option("--calm <0..100>", "how calm it moves; 50 is the movement's own", numberFrom(0, 100), USUAL_FRAMING.calm)
    .addOption(
      new Option("--zoom <zoom>", "how large the window is: fixed:N, or free[:MIN-MAX]")
        .argParser(parseZoom)
        .default(USUAL_FRAMING.zoom, "fixed:1"),
    )
    .option(
      "--headroom <percent>",
      "of the window's height, kept free above a head",
      numberFrom(0, 40),
      USUAL_FRAMING.headroom,
    )
    .addOption(
      new Option(
        "--largest-scale <percent>",
        "the largest scale of the picture in percent: a free zoom goes no closer, any other zoom gets a flag",
      )
        .argParser((text) => numberFrom(100, 100 * MOST_SCALE)(text) / 100)
        .default(USUAL_FRAMING.largestScale, "150"),
    )
    .addOption(
      new Option("--keep-end <end>", "the end to keep of an animal or a thing that is wider than the window")
        .choices(END_CHOICES)
        .default(USUAL_FRAMING.keepEnd),
    )
    .option(
      "--eye-line <percent>",
      "where eyes are placed, in percent of the window's height from its top",
      numberFrom(EYE_LINE_RANGE.least, EYE_LINE_RANGE.most),
      USUAL_FRAMING.eyeLine,
    )
    .addOption(
      new Option(
        "--offset <x,y>",
        "how far right of and below the subject the window stands, in percent of its width and height",
      )
        .argParser(parseOffset)
        .default(USUAL_FRAMING.offset, "0,0"),
    )
    .addOption(
      new Option(
        "--layout <layout>",
        "how the film fills the frame: fill, whole, whole:AMOUNT between the two (0 to 1), stack, or stack:SHARES such as 60-40",
      )
        .argParser(parseLayout)
        .default(USUAL_FRAMING.layout, "fill"),
    )
    .option(
      "--place <place>",
      "where a picture that does not fill the frame stands: top, third, middle, bottom, or 0 to 1",
      parsePlace,
    )
    .addOption(
      new Option(
        "--backdrop <backdrop>",
        "what lies behind it: blur[:STRENGTH-DARKNESS], mirror[:DARKNESS], #rrggbb, #rrggbb-#rrggbb, or a picture or film file",
      )
        .argParser(parseBackdrop)
        .default(USUAL_FRAMING.backdrop, "blur"),
    )
    .addOption(
      new Option(
        "--edge <edge>",
        `the border of such a picture: ${EDGE_LOOKS.join(", ")}, and :CORNER for round corners, 0 to 100`,
      )
        .argParser(parseEdge)
        .default(USUAL_FRAMING.edge, "none"),
    )
    .option(
      "--shortest-stay <seconds>",
      "the shortest time the window stays with a subject before it switches to another within a shot",
      numberFrom(SHORTEST_STAY.least, SHORTEST_STAY.most),
      USUAL_FRAMING.shortestStay,
    )
    .addOption(
      new Option("--switch-by <how>", "how the window gets from one subject to the next within a shot: it cuts or pans")
        .choices(SWITCH_STYLES)
        .default(USUAL_FRAMING.switchBy),
    )
    .addOption(
      new Option(
        "--must-have <who>",
        "the letters of the people who have to be in the picture, such as A or A,C (analyse tells who is who)",
      )
        .argParser(parseMustHave)
        .default(USUAL_FRAMING.mustHave, "nobody"),
    )
    .option("--keep-both", "keep the first two in the window where they fit; the same as --follow both");
