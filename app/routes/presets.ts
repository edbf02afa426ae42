import { data } from "react-router";
import { PresetChange } from "~/core/edits/preset";
import { Refusal } from "~/core/basics/refusal";
import { deletePreset, readPresets, savePreset } from "~/db/presets.server";
import { db } from "~/db/workplace.server";
import type { Route } from "./+types/presets";
import { orDiskFull, readJson } from "./requests.server";

/** All presets, and those that cannot be read. */
export const loader = () => readPresets(db());

/** Saves or deletes a preset; returns why if that fails. */
export async function action({ request }: Route.ActionArgs) {
  const change = await readJson(request, PresetChange);
  return orDiskFull(() => {
    try {
      if (change.do === "save") savePreset(db(), change.preset);
      else deletePreset(db(), change.id);
      return { error: null };
    } catch (error) {
      if (error instanceof Refusal) return data({ error: error.sentence }, { status: error.status });
      throw error;
    }
  });
}
