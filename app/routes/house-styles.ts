import { data } from "react-router";
import { StyleChange } from "~/core/edits/house-style";
import { Refusal } from "~/core/refusal";
import { asSentence } from "~/core/sentence";
import { deleteStyle, listStyles, saveStyle } from "~/db/house-styles.server";
import { db } from "~/db/workplace.server";
import type { Route } from "./+types/house-styles";
import { orDiskFull, readJson } from "./requests.server";

/** The house styles there are. */
export const loader = () => ({ styles: listStyles(db()) });

/** Keeps a house style or forgets one; says why not where it cannot. */
export async function action({ request }: Route.ActionArgs) {
  const change = await readJson(request, StyleChange);
  return orDiskFull(() => {
    try {
      if (change.do === "save") saveStyle(db(), change.style);
      else deleteStyle(db(), change.id);
      return { error: null };
    } catch (error) {
      if (error instanceof Refusal) return data({ error: asSentence(error.message) }, { status: error.status });
      throw error;
    }
  });
}
