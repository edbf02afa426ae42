/** Layouts that would show what the crop window has no room for: offered at a flag, with a picture of each. */
import { clamped } from "../numbers/clamped";
import { type Composition, compose, fill } from "../composition/composition";
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
import type { FrameRange } from "../time/rate";
import type { Flag } from "./flag";
import { flagsTexts } from "../../texts/flags";

const t = flagsTexts.layoutOffers;

export interface LayoutOffer {
  id: "whole" | "stack-two" | "lift" | "replace";
  /** What it is called, and what it does. */
  name: string;
  hint: string;
  /** What it changes of how the shot is framed. */
  change: Partial<FramingSettings>;
  /** Where it puts windows. */
  keys: HandKey[];
  /** What it lays above the picture, from back to front; the last is what the editor goes on with. */
  layers?: readonly Layer[];
  /** What would be shown at the frame of the look, give or take the paths that are laid then. */
  shown: Composition;
}

/** A shot at the frame of a look. */
export interface LookedAt {
  settings: FramingSettings;
  /** Where the shot begins. */
  start: number;
  /** The part of the picture that is not bars. */
  area: Box;
  /** Size of the version. */
  frame: Size;
  /** The window as it is. */
  window: CropWindow;
  /** What is cut off: burnt-in text, or what is protected. */
  cut: Box | null;
  /** What is not followed. */
  other: Box | null;
  /** The frames in which burnt-in text is there; null where what is cut off is no text. */
  textRange: FrameRange | null;
  safeArea: SafeArea | null;
}

/** Room around what is lifted into a pane of its own, as a share of it. */
const LIFT_MARGIN = 0.06;
/** A pane for that has no more of the frame than this: the rest is for what the shot follows. */
const MOST_LIFTED = 0.4;

/** A look at what has no room, each with what would do. */
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

function whole({ settings, area, frame }: LookedAt): LayoutOffer {
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

const stacked = (at: LookedAt, layout: Stack, windows: (panes: readonly Box[]) => CropWindow[]): Composition => {
  const laidOut = layOut({ ...at.settings, layout }, at.area, at.frame);
  return compose(windows(laidOut.panes), laidOut, at.frame);
};

/** The second pane with other settings than it had. */
const secondPane = ({ panes }: FramingSettings, settings: PaneSettings): PaneSettings[] => [
  settings,
  ...panes.slice(1),
];

function stackTwo(at: LookedAt, otherId: string): LayoutOffer | null {
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

/** A stack whose second pane shows a box of the picture and little else, for all of the shot. */
function lift(at: LookedAt): LayoutOffer | null {
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

/** How much higher than the text a bar is that covers it. */
const COVER = 1.35;
/** Height of the letters on it, as a share of it: three lines have room. */
const ON_COVER = 0.24;

/** A bar over what is to be seen of a text, and a text on it that says what it said. */
function replace({ cut, textRange, safeArea, frame, window }: LookedAt): LayoutOffer | null {
  if (!cut || !textRange) return null;
  const filling = fill(window, frame);
  const { source, target } = filling.panes[0]!;
  const text = mapBox(cut, source, target);
  const height = COVER * text.height;
  const top = Math.max(0, Math.min(frame.height - height, boxCentre(text).y - height / 2));
  const ground = groundOf({ ...frame, safeArea });
  const side = Math.min(frame.width, frame.height);
  const during = { range: textRange, arrives: "cut", leaves: "cut" } as const;
  const bar = { ...newBar("replaced-bar"), ...during, width: 1, height: height / side, corner: 0, opacity: 100 };
  const size = clamped((ON_COVER * height) / side, LIMITS.textSize[0], LIMITS.textSize[1]);
  const words = { ...newText("replaced-text", t.yourText), ...during, size, shadow: 0 };
  const line = LINE * size * side;
  const layers = [
    { ...bar, ...placeAt(bar, { x: 0, y: top, width: frame.width, height }, ground) },
    // In the middle of the bar, and across as it is at first.
    { ...words, y: placeAt(words, { x: 0, y: top + (height - line) / 2, width: 0, height: line }, ground).y },
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

/** What is offered at a flag; nothing where the shot is not framed by a crop window alone. */
export function layoutOffers({ kind, otherId }: Pick<Flag, "kind" | "otherId">, at: LookedAt): LayoutOffer[] {
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
