import { readFileSync } from "node:fs";
import { type Command, InvalidArgumentError, Option } from "commander";
import { LayersError, type ReadLayers, readLayers } from "~/core/formats/layers";
import { USUAL_FORMAT } from "~/core/formats/output-formats";
import type { Box, Size } from "~/core/geometry/box";
import type { FrameRange } from "~/core/time/rate";
import { LEAST_ACTIVE_SIDE } from "~/core/shots/shot";
import { AUTO, type FollowRule } from "~/core/subjects/choosing/follow-rule";

/** The options make no sense together, or not for this film. */
export class UsageError extends Error {
  override name = "UsageError";
}

/** "1080x1920" */
export function parseSize(text: string): Size {
  const match = /^(\d+)[x×](\d+)$/.exec(text);
  if (!match) throw new InvalidArgumentError("A size is written WIDTHxHEIGHT, such as 1080x1920.");
  const size = { width: Number(match[1]), height: Number(match[2]) };
  const sides = [size.width, size.height];
  const { least, most } = USUAL_FORMAT.side;
  if (sides.some((side) => side % 2 !== 0 || side < least || side > most)) {
    throw new InvalidArgumentError(`Both sides must be even and from ${least} to ${most}.`);
  }
  return size;
}

export function parseSensitivity(text: string): number {
  if (!/^\d+$/.test(text) || Number(text) > 100) throw new InvalidArgumentError("It is a whole number from 0 to 100.");
  return Number(text);
}

/** "2/4": the second of four. */
export function parseShare(text: string): { number: number; count: number } {
  const match = /^([1-9]\d{0,3})\/([1-9]\d{0,3})$/.exec(text);
  const [number, shares] = [Number(match?.[1]), Number(match?.[2])];
  if (!match || number > shares) throw new InvalidArgumentError("A share is written K/N, such as 2/4.");
  return { number, count: shares };
}

export function parseFrame(text: string): number {
  if (!/^\d+$/.test(text)) throw new InvalidArgumentError("A frame is a whole number, counted from 0.");
  return Number(text);
}

/** "120-180": frames 120 to 179. Collects several. */
export function collectDrop(text: string, earlier: FrameRange[]): FrameRange[] {
  const match = /^(\d+)-(\d+)$/.exec(text);
  const [start, end] = [Number(match?.[1]), Number(match?.[2])];
  if (!match || end <= start) {
    throw new InvalidArgumentError("A range is written A-B, such as 120-180, from frame A up to frame B.");
  }
  return [...earlier, { start, end }];
}

/** Reads a layers file. */
export function parseLayers(file: string): ReadLayers & { from: string } {
  try {
    return { ...readLayers(readFileSync(file, "utf8")), from: file };
  } catch (error) {
    const why = error instanceof LayersError ? error.message : "it cannot be read";
    throw new InvalidArgumentError(`${file}: ${why}.`);
  }
}

/** Names of follow rules on the command line. */
const FOLLOW = { first: "auto", second: "second", both: "both", speaker: "speaker", none: "none" } as const;

/** "first", "second", "both", "speaker" or "none". */
export function parseFollow(text: string): FollowRule {
  const kind = Object.entries(FOLLOW).find(([name]) => name === text)?.[1];
  if (!kind) throw new InvalidArgumentError(`It is one of ${Object.keys(FOLLOW).join(", ")}.`);
  return { kind };
}

export interface MarkOption {
  frame: number;
  box: Box;
}

/** "120:800,300,160,200": at frame 120, the box with its top left corner at 800, 300. Collects several. */
export function collectMark(text: string, earlier: MarkOption[]): MarkOption[] {
  const match = /^(\d+):(-?[\d.]+),(-?[\d.]+),([\d.]+),([\d.]+)$/.exec(text);
  const numbers = match?.slice(1).map(Number);
  if (!numbers?.every(Number.isFinite)) {
    throw new InvalidArgumentError("A mark is written FRAME:X,Y,WIDTH,HEIGHT, such as 120:800,300,160,200.");
  }
  const [frame, x, y, width, height] = numbers as [number, number, number, number, number];
  if (width <= 0 || height <= 0) throw new InvalidArgumentError("A mark's box needs a width and a height.");
  return [...earlier, { frame, box: { x, y, width, height } }];
}

export const addFollowOption = (command: Command): Command =>
  command.addOption(
    new Option(
      "--follow <whom>",
      `whom to follow: ${Object.keys(FOLLOW).join(", ")}; the first is who matters most, or each in turn`,
    )
      .argParser(parseFollow)
      .default(AUTO, "first"),
  );

export const addMarkOption = (command: Command): Command =>
  command.option(
    "--mark <mark>",
    "follow what the box FRAME:X,Y,W,H holds, in its shot; may be given again",
    collectMark,
    [],
  );

/** "0,140,1920,800": the box with its top left corner at 0, 140; "whole" for a picture without bars. */
export function parseActive(text: string): Box | null {
  if (text === "whole") return null;
  const numbers = /^(\d+),(\d+),(\d+),(\d+)$/.exec(text)?.slice(1).map(Number);
  const [x, y, width, height] = numbers ?? [];
  if (!width || !height || width < LEAST_ACTIVE_SIDE || height < LEAST_ACTIVE_SIDE) {
    throw new InvalidArgumentError(
      `A picture area is written X,Y,WIDTH,HEIGHT, such as 0,140,1920,800, with sides of at least ${LEAST_ACTIVE_SIDE} pixels; or whole.`,
    );
  }
  return { x: x!, y: y!, width, height };
}

export const addActiveOption = (command: Command): Command =>
  command.option(
    "--picture-area <area>",
    "the part of the picture inside its letterbox: X,Y,W,H, or whole; found automatically if left out",
    parseActive,
  );
