/** Targets of a batch: aspect ratios, or the versions of a preset, in a folder. */
import { basename, join, parse } from "node:path";
import { type Command, InvalidArgumentError } from "commander";
import { freeName, nameBy, namePartsOf } from "~/core/formats/file-names";
import { outputFormat } from "~/core/formats/output-formats";
import type { Size } from "~/core/geometry/box";
import { libraryPreset } from "~/library/films/library-preset.server";
import type { ConvertOptions } from "./convert-film";
import { parseSize, UsageError } from "./options";
import { outputOf } from "./output-options";
import { framedBy, NOTHING_ABOVE, type Target } from "./targets";

/** A requested aspect ratio with its name. */
export interface Shape extends Size {
  name: string;
}

/** Shorter side of an aspect ratio without a size. */
const SHORTER_SIDE = 1080;
/** Numbers above this are a size and not a ratio. */
const MOST_OF_A_RATIO = 64;

/** "9x16" or "9:16" with a shorter side of 1080 pixels, or a size such as "720x1280"; several separated by commas. */
export function parseShapes(text: string): Shape[] {
  return text.split(",").map((each) => {
    const match = /^(\d+(?:\.\d+)?)[x:×](\d+(?:\.\d+)?)$/.exec(each.trim());
    if (!match) throw new InvalidArgumentError("A version is a shape such as 9x16, or a size such as 1080x1920.");
    const [across, down] = [Number(match[1]), Number(match[2])];
    const name = each.trim().replace(/[:×]/, "x");
    if (Math.max(across, down) > MOST_OF_A_RATIO) return { ...parseSize(`${across}x${down}`), name };
    const scale = SHORTER_SIDE / Math.min(across, down);
    const even = (side: number) => 2 * Math.round((side * scale) / 2);
    return { ...parseSize(`${even(across)}x${even(down)}`), name };
  });
}

export interface VersionOptions extends ConvertOptions {
  versions?: Shape[];
  preset?: string;
  out: string;
  name: string;
  report?: never;
  reports?: boolean;
}

/**
 * The files made from a film.
 * @param taken names of other films' files in the same run
 * @throws UsageError where neither aspect ratios nor a preset is given, or both are
 */
export function targetsIn(file: string, options: VersionOptions, command: Command, taken: Set<string>): Target[] {
  const { versions, preset, out: folder, name: pattern } = options;
  if (versions && preset !== undefined) throw new UsageError("use --versions or --preset, not both");
  if (!versions && preset === undefined) throw new UsageError("--versions is needed, or --preset");
  const wanted = versions
    ? versions.map((shape) => ({ ...shape, framing: options, limitSeconds: null, above: NOTHING_ABOVE }))
    : libraryPreset(preset!).versions.map((version) => ({
        name: version.name,
        width: version.width,
        height: version.height,
        framing: framedBy(version, options, command),
        limitSeconds: version.limitSeconds,
        above: version,
      }));
  return wanted.map(({ name, width, height, framing, limitSeconds, above }, i) => {
    const format = options.format ?? above.output.format;
    const { extension } = outputFormat(format);
    const base = nameBy(pattern, namePartsOf(basename(file), { name, width, height }, i + 1));
    const fileName = freeName(base, extension, (each) => taken.has(each));
    taken.add(fileName);
    const out = join(folder, fileName);
    // The name fits by now; this reports anything else that does not.
    outputOf({ ...options, format }, out, above.output);
    const report = options.reports ? join(folder, `${parse(fileName).name}.json`) : undefined;
    return { size: { width, height }, out, report, framing, limitSeconds, above };
  });
}
