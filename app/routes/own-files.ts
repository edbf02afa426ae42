import { data } from "react-router";
import { MOST_PICTURE_BYTES } from "~/core/composition/picture";
import { keepFont, keepPicture } from "~/jobs/own-files.server";
import { OwnFileError } from "~/media/own/own-file";
import type { Route } from "./+types/own-files";
import { orDiskFull, readForm, refusal } from "./requests.server";

/** Of a form, beside the file in it. */
const FORM_BYTES = 2 ** 16;

/** Keeps a picture or a font that was picked; says why not where it cannot. */
export async function action({ request }: Route.ActionArgs) {
  const form = await readForm(request, MOST_PICTURE_BYTES + FORM_BYTES);
  const [picture, font] = [form.get("picture"), form.get("font")];
  const file = picture ?? font;
  if (!(file instanceof File)) throw refusal(400, "There is no picture and no font in this form.");
  return orDiskFull(async () => {
    try {
      const bytes = Buffer.from(await file.arrayBuffer());
      const kept = picture ? await keepPicture(bytes, file.name) : await keepFont(bytes, file.name);
      return { kept, error: null };
    } catch (error) {
      if (error instanceof OwnFileError) return data({ kept: null, error: error.message }, { status: 422 });
      throw error;
    }
  });
}
