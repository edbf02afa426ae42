import { data } from "react-router";
import { MOST_PICTURE_BYTES } from "~/core/composition/picture";
import { keepPicture } from "~/jobs/pictures.server";
import { PictureError } from "~/media/pictures/read-picture.server";
import type { Route } from "./+types/pictures";
import { orDiskFull, readForm, refusal } from "./requests.server";

/** Of a form, beside the picture in it. */
const FORM_BYTES = 2 ** 16;

/** Keeps a picture that was picked; says why not where it cannot. */
export async function action({ request }: Route.ActionArgs) {
  const file = (await readForm(request, MOST_PICTURE_BYTES + FORM_BYTES)).get("picture");
  if (!(file instanceof File)) throw refusal(400, "There is no picture in this form.");
  return orDiskFull(async () => {
    try {
      return { picture: await keepPicture(Buffer.from(await file.arrayBuffer()), file.name), error: null };
    } catch (error) {
      if (error instanceof PictureError) return data({ picture: null, error: error.message }, { status: 422 });
      throw error;
    }
  });
}
