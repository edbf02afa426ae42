/** The demo film, with a little work on it as an editor might have done. */
import { captionsOf } from "~/core/captions/caption";
import { readCaptions } from "~/core/captions/read-captions";
import { newText } from "~/core/composition/layers/layer";
import { WHOLE } from "~/core/composition/layout";
import { findFilm, listFilms } from "~/db/films.server";
import { listShots } from "~/db/shots.server";
import { listVersions } from "~/db/versions.server";
import { readText } from "~/disk/read-text.server";
import { editFilm } from "./edit-film.server";
import { addFilm } from "./films.server";
import { db } from "~/db/workplace.server";

/** End of the title; a cut placed by hand stays when shots are found. */
const TITLE_END = 84;
const LINE = { text: "What the wind brings", range: { start: 300, end: 420 } };

/**
 * Adds the demo film unless the library has one of its name: its title is shown whole, a line lies above one scene, and it
 * has captions.
 */
export async function addDemoFilm(file: string, captionsFile: string, name: string): Promise<void> {
  if (listFilms(db()).some((film) => film.name === name)) return;
  const { cues } = readCaptions(await readText(captionsFile), captionsFile);
  const id = await addFilm(file, name, "copy");
  const { rate, frames } = findFilm(db(), id)!.info;
  const captions = captionsOf(cues, rate, frames).map((caption, i) => ({ ...caption, id: `demo-${i + 1}` }));
  const [title] = listShots(db(), id);
  const versionId = listVersions(db(), id)[0]!.id;
  const change = { layout: { ...WHOLE, place: 1 / 3 }, edge: { look: "shadow" as const, corner: 20 } };
  editFilm(id, 0, {
    do: "edit",
    command: {
      type: "batch",
      commands: [
        { type: "split-shot", frame: TITLE_END, kind: "cut" },
        { type: "set-framing", versionId, shotIds: [title!.id], change },
        { type: "change-captions", removed: [], put: captions, how: "imported" },
        { type: "put-layer", versionId, layer: { ...newText("demo-line", LINE.text), range: LINE.range, y: 0.95 } },
      ],
    },
  });
}
