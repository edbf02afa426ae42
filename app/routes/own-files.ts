import { data } from "react-router";
import { MOST_MOVING_BYTES, MOST_PICTURE_BYTES } from "~/core/composition/picture";
import { isId } from "~/core/basics/ids";
import { Refusal } from "~/core/basics/refusal";
import { parseRate, type Rate } from "~/core/time/rate";
import { findFilm } from "~/db/films.server";
import { withScratchFile } from "~/disk/write-aside.server";
import { keepFont, keepPicture } from "~/library/own/own-files.server";
import { filmsToPlace, keepFilm, keepMoving, keepSequence, movingFolder } from "~/library/own/own-moving.server";
import { db } from "~/db/workplace.server";
import type { Route } from "./+types/own-files";
import { orDiskFull, readBodyTo, readForm, refusal } from "./requests.server";
import { commonTexts } from "~/texts/common";

const t = commonTexts.ownFilesRoute;

/** Bytes of a form beside the file in it. */
const FORM_BYTES = 2 ** 16;
/** Bytes of all pictures of a sequence. */
const MOST_SEQUENCE_BYTES = 400 * 2 ** 20;
/** Frame rate of a sequence for a film that does not say. */
const USUAL_RATE: Rate = { num: 25, den: 1 };

/** Films of the library that can be placed in another. */
export function loader() {
  return { films: filmsToPlace() };
}

/** A film is sent by itself, because it is too large for a form. */
function takeMoving(request: Request) {
  const name = new URL(request.url).searchParams.get("name") ?? "film";
  return withScratchFile(movingFolder(), ".film", async (scratch) => {
    await readBodyTo(request, scratch, MOST_MOVING_BYTES);
    return keepMoving(scratch, name);
  });
}

async function takeForm(request: Request) {
  const form = await readForm(request, MOST_SEQUENCE_BYTES + FORM_BYTES);
  const filmId = form.get("film");
  if (typeof filmId === "string") {
    const film = isId(filmId) ? findFilm(db(), filmId) : null;
    if (!film) throw refusal(404, t.thereIsNoSuchFilm);
    return keepFilm(film);
  }
  const font = form.get("font");
  const files = form.getAll("picture").filter((each) => each instanceof File);
  const file = font instanceof File ? font : files[0];
  if (!file) throw refusal(400, t.nothingSent);
  const bytesOf = async (each: File) => Buffer.from(await each.arrayBuffer());
  if (file === font) return keepFont(await bytesOf(file), file.name);
  if (files.length === 1) {
    if (file.size > MOST_PICTURE_BYTES + FORM_BYTES) throw refusal(413, t.thisIsTooLarge);
    return keepPicture(await bytesOf(file), file.name);
  }
  const said = form.get("rate");
  const rate = (typeof said === "string" && parseRate(said)) || USUAL_RATE;
  const row = await Promise.all(files.map(async (each) => ({ name: each.name, bytes: await bytesOf(each) })));
  return keepSequence(row, rate);
}

/** Stores a selected picture, sequence, film or font; returns why if it cannot. */
export async function action({ request }: Route.ActionArgs) {
  const isMoving = request.headers.get("content-type") === "application/octet-stream";
  return orDiskFull(async () => {
    try {
      return { file: await (isMoving ? takeMoving(request) : takeForm(request)), error: null };
    } catch (error) {
      if (error instanceof Refusal) return data({ file: null, error: error.sentence }, { status: error.status });
      throw error;
    }
  });
}
