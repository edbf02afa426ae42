/** Layouts that show what has no room in the crop window, offered at a flag, each with a picture. */
import { clamped } from "../numbers/clamped";
import { type Composition, compose, fill } from "../composition/composition";
import { colourOf } from "../composition/colour";
import { groundOf, placeAt } from "../composition/layers/draw-layer";
import { type Layer, LIMITS, newBar, newText } from "../composition/layers/layer";
import type { SafeArea } from "../composition/layers/safe-area";
import { LINE } from "../composition/layers/text-block";
import { layOut, paneBox, WHOLE } from "../composition/layout";
import { dividedSide, LEAST_SHARE, STACK, type Stack } from "../composition/stack";
import { type Box, boxCentre, mapBox, type Size } from "../geometry/box";
import { aspectRatio, centredWindow, clampWindow, type CropWindow, largestWindowHeight } from "../geometry/crop-window";
import { type FramingSettings, MAX_ZOOM, type PaneSettings } from "../path/framing-settings";
import type { HandKey } from "../path/hand-key";
import type { Words } from "../subjects/text/words";
import type { FrameRange } from "../time/rate";
import type { Flag } from "./flag";
import { flagsTexts } from "../../texts/flags";

const t = flagsTexts.layoutOffers;

export interface LayoutOffer {
  id: "whole" | "stack-two" | "lift" | "replace";
  /** Its name, and what it does. */
  name: string;
  hint: string;
  /** The settings that it changes. */
  change: Partial<FramingSettings>;
  /** Keys that it places. */
  keys: HandKey[];
  /** Layers that it adds, from back to front; the last one is then selected. */
  layers?: readonly Layer[];
  /** The composition at the flag's frame, approximately: its paths are laid afterwards. */
  shown: Composition;
}

/** A shot at the frame of a flag. */
export interface ShotAtFlag {
  settings: FramingSettings;
  /** Where the shot begins. */
  start: number;
  /** The picture area without letterbox. */
  area: Box;
  /** Size of the version. */
  frame: Size;
  /** The present window. */
  window: CropWindow;
  /** Box that is cut off: burnt-in text, or a protected area. */
  cut: Box | null;
  /** Box of what is not followed. */
  other: Box | null;
  /** The burnt-in text, with what was read of it; null where what is cut off is no text. */
  text: { range: FrameRange; words: Words | null } | null;
  safeArea: SafeArea | null;
}

/** Margin around what is lifted into a pane of its own, as a share of it. */
const LIFT_MARGIN = 0.06;
/** Largest share of the frame for that pane; the rest is for the subject. */
const MOST_LIFTED = 0.4;

/** Offers for each kind of flag. */
const HELPS: Partial<Record<Flag["kind"], readonly LayoutOffer["id"][]>> = {
  "text-cut": ["whole", "lift", "replace"],
  "protected-cut": ["whole", "lift"],
  absent: ["whole"],
  "two-alike": ["whole", "stack-two"],
  "two-apart": ["stack-two", "whole"],
};

/** The window of a pane around a place of the picture. */
const around = (place: Box, pane: Box, area: Box): CropWindow => {
  const aspect = aspectRatio(pane);
  return clampWindow({ ...boxCentre(place), height: largestWindowHeight(area, aspect) }, area, aspect);
};

function whole({ settings, area, frame }: ShotAtFlag): LayoutOffer {
  const laidOut = layOut({ ...settings, layout: WHOLE }, area, frame);
  return {
    id: "whole",
    name: t.showItWhole,
    hint: t.wholeHint,
    change: { layout: WHOLE },
    keys: [],
    shown: compose(
      laidOut.panes.map((pane) => centredWindow(area, aspectRatio(pane))),
      laidOut,
      frame,
    ),
  };
}

const stacked = (at: ShotAtFlag, layout: Stack, windows: (panes: readonly Box[]) => CropWindow[]): Composition => {
  const laidOut = layOut({ ...at.settings, layout }, at.area, at.frame);
  return compose(windows(laidOut.panes), laidOut, at.frame);
};

/** The settings with the second pane's changed. */
const secondPane = ({ panes }: FramingSettings, settings: PaneSettings): PaneSettings[] => [
  settings,
  ...panes.slice(1),
];

function stackTwo(at: ShotAtFlag, otherId: string): LayoutOffer | null {
  const { settings, area, window, other } = at;
  if (!other) return null;
  return {
    id: "stack-two",
    name: t.stackTheTwo,
    hint: t.stackHint,
    change: { layout: STACK, panes: secondPane(settings, { follow: { kind: "track", trackId: otherId } }) },
    keys: [],
    shown: stacked(at, STACK, ([first, second]) => [
      around({ ...window, width: 0, height: 0 }, first!, area),
      around(other, second!, area),
    ]),
  };
}

/** A stack whose second pane shows a box of the picture and little else, throughout the shot. */
function lift(at: ShotAtFlag): LayoutOffer | null {
  const { settings, start, area, frame, window, cut } = at;
  if (!cut) return null;
  const wanted = { width: (1 + 2 * LIFT_MARGIN) * cut.width, height: (1 + 2 * LIFT_MARGIN) * cut.height };
  const share =
    dividedSide(frame) === "height"
      ? wanted.height / wanted.width / (frame.height / frame.width)
      : wanted.width / wanted.height / aspectRatio(frame);
  const lifted = clamped(share, LEAST_SHARE, MOST_LIFTED);
  const places = [
    { pane: 0, share: 1 - lifted },
    { pane: 1, share: lifted },
  ];
  const layout: Stack = { ...STACK, places };
  const aspect = aspectRatio(paneBox(layout, area, frame, 1));
  const height = Math.max(wanted.height, wanted.width / aspect, largestWindowHeight(area, aspect) / MAX_ZOOM);
  const place = clampWindow({ ...boxCentre(cut), height }, area, aspect);
  return {
    id: "lift",
    name: t.giveItAPane,
    hint: t.paneHint,
    change: { layout, panes: secondPane(settings, { follow: { kind: "none" }, movement: "still" }) },
    keys: [{ pane: 1, frame: start, easing: "hold", ...place }],
    shown: stacked(at, layout, ([first]) => [around({ ...window, width: 0, height: 0 }, first!, area), place]),
  };
}

/** Height of a covering bar, relative to the text. */
const COVER = 1.35;
/** Shares of the bar's height and width that its lines take up, and mean width of a letter, relative to its size. */
const ON_COVER = { width: 0.85, height: 0.9 };
const LETTER = 0.55;
/** Lines for which there is room where nothing was read. */
const UNREAD = ["", "", ""];

/** Rows into which a line breaks between words, so many letters in each; without end where a word is longer. */
function rowsOf(line: string, letters: number): number {
  let [rows, inRow] = [1, 0];
  for (const { length } of line.split(" ")) {
    if (length > letters) return Infinity;
    const withWord = inRow === 0 ? length : inRow + 1 + length;
    if (withWord <= letters) inRow = withWord;
    else [rows, inRow] = [rows + 1, length];
  }
  return rows;
}

/**
 * The largest letters in which lines fit on a bar.
 * @param bar its size in pixels
 * @returns their size in pixels, and the rows that the lines take up
 */
function fitWords(lines: readonly string[], bar: Size): { rows: number; letterSize: number } {
  for (let rows = lines.length; ; rows++) {
    const letterSize = (ON_COVER.height * bar.height) / (rows * LINE);
    const letters = Math.floor((ON_COVER.width * bar.width) / (LETTER * letterSize));
    if (lines.reduce((sum, line) => sum + rowsOf(line, letters), 0) <= rows) return { rows, letterSize };
  }
}

/** A bar over the visible part of a text, in the colour around it, with a text layer on it that says the same. */
function replace({ cut, text: replaced, safeArea, frame, window }: ShotAtFlag): LayoutOffer | null {
  if (!cut || !replaced) return null;
  const { range, words } = replaced;
  const filling = fill(window, frame);
  const { source, target } = filling.panes[0]!;
  const text = mapBox(cut, source, target);
  const height = COVER * text.height;
  const top = Math.max(0, Math.min(frame.height - height, boxCentre(text).y - height / 2));
  const ground = groundOf({ ...frame, safeArea });
  const side = Math.min(frame.width, frame.height);
  const during = { range, arrives: "cut", leaves: "cut" } as const;
  const bar = {
    ...newBar("replaced-bar"),
    ...during,
    ...(words && { colour: colourOf(words.ground) }),
    width: 1,
    height: height / side,
    corner: 0,
    opacity: 100,
  };
  // A title of which only some was read is typed by the editor: a guess would be overlooked.
  const lines = words && !words.isPart ? words.lines : null;
  const { rows, letterSize } = fitWords(lines ?? UNREAD, { width: frame.width, height });
  const size = clamped(letterSize / side, LIMITS.textSize[0], LIMITS.textSize[1]);
  const said = { ...newText("replaced-text", lines?.join("\n") ?? t.yourText), ...during, size, shadow: 0 };
  if (words) said.colour = colourOf(words.ink);
  const block = (lines ? rows : 1) * LINE * size * side;
  const layers = [
    { ...bar, ...placeAt(bar, { x: 0, y: top, width: frame.width, height }, ground) },
    // Vertically centred on the bar, horizontally where it is at first.
    { ...said, y: placeAt(said, { x: 0, y: top + (height - block) / 2, width: 0, height: block }, ground).y },
  ];
  return {
    id: "replace",
    name: t.replaceIt,
    hint: t.replaceTextHint,
    change: {},
    keys: [],
    layers,
    shown: {
      ...filling,
      layers: { ground, at: layers.map((layer) => ({ layer, opacity: 1, shift: { x: 0, y: 0 } })) },
    },
  };
}

/** Layouts offered at a flag; none where the shot is not framed by a crop window alone. */
export function layoutOffers({ kind, otherId }: Pick<Flag, "kind" | "otherId">, at: ShotAtFlag): LayoutOffer[] {
  if (at.settings.layout.kind !== "fill") return [];
  return (HELPS[kind] ?? []).flatMap((id) => {
    switch (id) {
      case "whole":
        return whole(at);
      case "stack-two":
        return (otherId && stackTwo(at, otherId)) || [];
      case "lift":
        return lift(at) ?? [];
      case "replace":
        return replace(at) ?? [];
    }
  });
}
