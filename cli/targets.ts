/** Targets of a conversion: one version from the options, or those of a preset. */
import { join, parse } from "node:path";
import type { Command } from "commander";
import type { PresetVersion } from "~/core/edits/preset";
import { USUAL_CAPTIONS } from "~/core/captions/caption-settings";
import { USUAL_OUTPUT } from "~/core/formats/output-settings";
import type { ReadLayers } from "~/core/formats/layers";
import type { Size } from "~/core/geometry/box";
import { libraryPreset } from "~/library/films/library-preset.server";
import type { FramingOptions } from "./framing-options";
import { UsageError } from "./options";

export interface TargetOptions extends FramingOptions {
  size?: Size;
  preset?: string;
  out: string;
  report?: string;
  /** Layers above the picture; the preset's if left out. */
  layers?: ReadLayers & { from: string };
}

export const NOTHING_ABOVE: Target["above"] = {
  layers: [],
  safeArea: null,
  captions: USUAL_CAPTIONS,
  output: USUAL_OUTPUT,
};

/** A version to be rendered. */
export interface Target {
  size: Size;
  out: string;
  report: string | undefined;
  framing: FramingOptions;
  limitSeconds: number | null;
  /** What lies above the picture. */
  above: Pick<PresetVersion, "layers" | "safeArea" | "captions" | "output">;
}

/** "out.mp4" for one of several versions: "out 1080x1920.mp4". */
function nameFor(file: string, { width, height }: Size, taken: ReadonlySet<string>): string {
  const { dir, name, ext } = parse(file);
  for (let n = 1; ; n++) {
    const free = join(dir, `${name} ${width}x${height}${n === 1 ? "" : ` (${n})`}${ext}`);
    if (!taken.has(free)) return free;
  }
}

/** Framing of a preset's version, where no option overrides it. */
function framingOf({ usual }: PresetVersion, options: FramingOptions, isSaid: (option: string) => boolean) {
  const { follow, ...settings } = usual;
  const framing = { ...settings, ...(follow && !isSaid("keepBoth") ? { follow } : {}) };
  const unsaid = Object.fromEntries(Object.entries(framing).filter(([option]) => !isSaid(option)));
  return { ...options, ...unsaid };
}

/** The same, by which options were given to a command. */
export function framedBy(version: PresetVersion, options: FramingOptions, command: Command): FramingOptions {
  return framingOf(version, options, (option) => command.getOptionValueSource(option) === "cli");
}

/**
 * The requested versions.
 * @param command tells which options were given, and which have their defaults
 * @throws UsageError where neither a size nor a preset is given, or both are
 * @throws StartError if there is no such preset
 */
export function targetsOf(options: TargetOptions, command: Command): Target[] {
  const { size, preset, out, report } = options;
  if (size && preset !== undefined) throw new UsageError("use --size or --preset, not both; the preset has sizes");
  if (size) return [{ size, out, report, framing: options, limitSeconds: null, above: NOTHING_ABOVE }];
  if (preset === undefined) throw new UsageError("--size is needed, or --preset for the sizes of a preset");
  const { versions } = libraryPreset(preset);
  const taken = new Set<string>();
  return versions.map((version) => {
    const target = { width: version.width, height: version.height };
    const file = versions.length === 1 ? out : nameFor(out, target, taken);
    taken.add(file);
    return {
      size: target,
      out: file,
      report: report && (versions.length === 1 ? report : `${join(parse(report).dir, parse(file).name)}.json`),
      framing: framedBy(version, options, command),
      limitSeconds: version.limitSeconds,
      above: version,
    };
  });
}
