import type { Command } from "commander";
import { addCaptionOptions } from "./captions";
import { addFramingOptions } from "./framing-options";
import { addFilmOptions } from "./open-film";
import { addActiveOption, addMarkOption, parseLayers } from "./options";
import { addOutputOptions } from "./output-options";

/** Options for one film and for several. */
export const addCommonOptions = (command: Command): Command =>
  addOutputOptions(addFilmOptions(addFramingOptions(command)))
    .option(
      "--layers <file>",
      "lay texts, shapes, pictures and films above the picture, as a JSON file says (docs/formats.md)",
      parseLayers,
    )
    .option("--parts <folder>", "keep parts of renders there: what has not changed is not rendered again");

/** The same, with those for one film. */
export const addConvertOptions = (command: Command): Command =>
  addCaptionOptions(addActiveOption(addMarkOption(addCommonOptions(command))));
