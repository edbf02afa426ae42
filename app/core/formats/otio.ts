import { z } from "zod";
import type { Box, Size } from "../geometry/box";
import type { Key } from "../path/keys";
import { hardTransition, isGradual, TRANSITION_KINDS, type Transition, transitionKindOf } from "../shots/transition";
import { framesPerSecond } from "../time/rate";
import type { Clock } from "../time/timecode";
import { type CutList, FormatError, requireWithin } from "./cut-list";

/**
 * OpenTimelineIO timelines (.otio, JSON). The film is one clip after another of the same file on one video track; a
 * mixture is a transition between two clips that says how far it reaches into each. What the format has no word for
 * (a wipe, a fade, a jump) stands in the metadata under "glad-pan".
 */

const RationalTime = z.object({
  OTIO_SCHEMA: z.literal("RationalTime.1"),
  rate: z.number().positive(),
  value: z.number(),
});
const TimeRange = z.object({
  OTIO_SCHEMA: z.literal("TimeRange.1"),
  start_time: RationalTime,
  duration: RationalTime,
});
const Metadata = z
  .object({
    "glad-pan": z
      .object({ transition: z.string().transform(transitionKindOf).pipe(z.enum(TRANSITION_KINDS)) })
      .partial()
      .optional(),
  })
  .catch({})
  .default({});

interface Item {
  OTIO_SCHEMA: string;
  source_range?: z.infer<typeof TimeRange> | null | undefined;
  children?: Item[] | undefined;
  [key: string]: unknown;
}
const Item: z.ZodType<Item> = z.lazy(() =>
  z.looseObject({
    OTIO_SCHEMA: z.string(),
    source_range: TimeRange.nullish(),
    children: z.array(Item).optional(),
  }),
);
const Timeline = z.looseObject({ OTIO_SCHEMA: z.string().startsWith("Timeline."), tracks: Item });
const Media = z.looseObject({ available_range: TimeRange.nullish() });

/** A transition stores how far it reaches into the neighbouring clips. */
const Offsets = z.looseObject({ in_offset: RationalTime, out_offset: RationalTime });

const seconds = (time: z.infer<typeof RationalTime>) => time.value / time.rate;

/** The crop windows of a shot, as an effect of its clip. */
export interface WindowEffect {
  /** Size of the version. */
  target: Size;
  /** Each pane's place in the frame, and the keys of its window. */
  panes: readonly { place: Box; keys: readonly Key[] }[];
}

/** Metadata of an effect that only Glad Pan reads (docs/formats.md). */
const effectOf = ({ target, panes }: WindowEffect) => ({
  OTIO_SCHEMA: "Effect.1",
  name: "Crop window",
  effect_name: "glad-pan/window",
  metadata: {
    "glad-pan": {
      target: [target.width, target.height],
      panes: panes.map(({ place, keys }) => ({
        place: [place.x, place.y, place.width, place.height],
        keys: keys.map(({ frame, x, y, height, easing, by }) => ({ frame, x, y, height, easing, by })),
      })),
    },
  },
});

/**
 * Writes the cuts of a film as a timeline of clips from it.
 * @param windows of each shot, in order; left out where no version is written
 */
export function writeOtio(
  { title, clock, frames, transitions }: CutList,
  file: string,
  windows: readonly WindowEffect[] = [],
): string {
  const fps = framesPerSecond(clock.rate);
  const time = (value: number) => ({ OTIO_SCHEMA: "RationalTime.1", rate: fps, value });
  const range = (start: number, end: number) => ({
    OTIO_SCHEMA: "TimeRange.1",
    start_time: time(start),
    duration: time(end - start),
  });
  const clip = (number: number, start: number, end: number, kind: Transition["kind"] | null) => ({
    OTIO_SCHEMA: "Clip.1",
    name: `Shot ${number}`,
    source_range: range(start, end),
    ...(windows[number - 1] ? { effects: [effectOf(windows[number - 1]!)] } : {}),
    metadata: kind === null ? {} : { "glad-pan": { transition: kind } },
    media_reference: { OTIO_SCHEMA: "ExternalReference.1", target_url: file, available_range: range(0, frames) },
  });
  const children: unknown[] = [clip(1, 0, transitions[0]?.frame ?? frames, null)];
  transitions.forEach((transition, i) => {
    if (isGradual(transition)) {
      children.push({
        OTIO_SCHEMA: "Transition.1",
        name: transition.kind,
        transition_type: transition.kind === "dissolve" ? "SMPTE_Dissolve" : "Custom_Transition",
        in_offset: time(transition.frame - transition.range.start),
        out_offset: time(transition.range.end - transition.frame),
        metadata: { "glad-pan": { transition: transition.kind } },
      });
    }
    children.push(clip(i + 2, transition.frame, transitions[i + 1]?.frame ?? frames, transition.kind));
  });
  const timeline = {
    OTIO_SCHEMA: "Timeline.1",
    name: title,
    global_start_time: time(0),
    tracks: {
      OTIO_SCHEMA: "Stack.1",
      name: "tracks",
      children: [{ OTIO_SCHEMA: "Track.1", name: "Picture", kind: "Video", children }],
    },
  };
  return `${JSON.stringify(timeline, null, 2)}\n`;
}

/** Length of a clip, gap, or nested track in seconds. */
function lengthOf(item: Item): number {
  if (item.source_range) return seconds(item.source_range.duration);
  if (item.OTIO_SCHEMA.startsWith("Track.")) {
    const solid = (item.children ?? []).filter((child) => !child.OTIO_SCHEMA.startsWith("Transition."));
    return solid.reduce((sum, child) => sum + lengthOf(child), 0);
  }
  if (item.OTIO_SCHEMA.startsWith("Stack.")) return Math.max(0, ...(item.children ?? []).map(lengthOf));
  // A clip without a range of its own is all of its media; newer files list several under keys.
  const media = item["media_references"] as Record<string, unknown> | undefined;
  const key = String(item["active_media_reference_key"] ?? "DEFAULT_MEDIA");
  const reference = Media.safeParse(item["media_reference"] ?? media?.[key]);
  if (!reference.success || !reference.data.available_range) {
    throw new FormatError(`"${String(item["name"] ?? item.OTIO_SCHEMA)}" in the timeline does not say how long it is`);
  }
  return seconds(reference.data.available_range.duration);
}

function findVideoTrack(stack: Item): Item {
  const track = (stack.children ?? []).find(
    (child) => child.OTIO_SCHEMA.startsWith("Track.") && child["kind"] !== "Audio" && (child.children?.length ?? 0) > 0,
  );
  if (!track) throw new FormatError("the timeline has no video track with clips on it");
  return track;
}

/** @throws FormatError if it is nested too deeply */
function parseTimeline(json: unknown) {
  try {
    return Timeline.safeParse(json);
  } catch (error) {
    if (error instanceof RangeError) throw new FormatError("the timeline is nested too deeply");
    throw error;
  }
}

/**
 * Reads the cuts of a film from the first video track of a timeline that is the film.
 *
 * @throws FormatError if the text is no timeline, or its times do not fit the film
 */
export function readOtio(text: string, { rate }: Clock, frames: number): Transition[] {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch {
    throw new FormatError("the file is not JSON, as an .otio file is");
  }
  const parsed = parseTimeline(json);
  if (!parsed.success) {
    const issue = parsed.error.issues[0]!;
    throw new FormatError(`the file is no OpenTimelineIO timeline: ${issue.path.join(".") || "it"}: ${issue.message}`);
  }
  const fps = framesPerSecond(rate);
  const transitions: Transition[] = [];
  let elapsed = 0;
  let mixing: { into: number; kind: Transition["kind"]; before: number } | null = null;
  for (const item of findVideoTrack(parsed.data.tracks).children!) {
    const said = Metadata.parse(item["metadata"])["glad-pan"]?.transition;
    if (item.OTIO_SCHEMA.startsWith("Transition.")) {
      const offsets = Offsets.safeParse(item);
      if (!offsets.success) throw new FormatError("a transition in the timeline does not say how long it is");
      const { in_offset: before, out_offset: into } = offsets.data;
      const smooth = item["transition_type"] === "SMPTE_Dissolve" ? "dissolve" : "wipe";
      mixing = { before: seconds(before) * fps, into: seconds(into) * fps, kind: said ?? smooth };
      continue;
    }
    const frame = Math.round(elapsed * fps);
    if (frame > 0) {
      if (mixing) {
        const range = { start: frame - Math.round(mixing.before), end: frame + Math.round(mixing.into) };
        transitions.push({ frame, kind: mixing.kind, range });
      } else transitions.push(hardTransition(frame, said === "jump" || said === "switch" ? said : "cut"));
    }
    mixing = null;
    elapsed += lengthOf(item);
  }
  requireWithin(transitions, frames);
  return transitions;
}
