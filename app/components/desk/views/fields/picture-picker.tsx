import { Clapperboard, ImagePlus } from "lucide-react";
import { useState } from "react";
import { Button } from "~/components/common/button";
import { Menu, MenuItem } from "~/components/common/menu";
import { OwnFilePicker, useBringing } from "~/components/common/own-file-picker";
import { filmsToTake, sendPicture, takeFilm } from "~/components/common/send-own-file";
import type { Picture } from "~/core/composition/picture";
import { useDesk } from "../../hooks/use-desk";
import { inspectorTexts } from "~/texts/inspector";

const t = inspectorTexts.picturePicker;

const ACCEPTED = "image/png,image/jpeg,image/webp,image/svg+xml,image/gif,video/*,.mov,.mkv,.mxf";
const HINT = t.fileHint;

interface PicturePickerProps {
  /** Label of the file button. */
  text: string;
  onPicked: (picture: Picture) => void;
}

/** Buttons that add a picture or film: from a file, or from the library. */
export function PicturePicker({ text, onPicked }: PicturePickerProps) {
  const { num, den } = useDesk("film").film.rate;
  return (
    <>
      <OwnFilePicker
        text={text}
        hint={HINT}
        Icon={ImagePlus}
        accept={ACCEPTED}
        multiple
        send={(files) => sendPicture(files, `${num}/${den}`)}
        onPicked={onPicked}
      />
      <LibraryFilms onPicked={onPicked} />
    </>
  );
}

function LibraryFilms({ onPicked }: Pick<PicturePickerProps, "onPicked">) {
  const [films, setFilms] = useState<{ id: string; name: string }[] | null>(null);
  const { isBringing, bring } = useBringing(onPicked);
  return (
    <Menu
      align="end"
      onOpen={() => void filmsToTake().then(setFilms)}
      trigger={
        <Button disabled={isBringing}>
          <Clapperboard className="size-3.5" aria-hidden /> {isBringing ? t.adding : t.fromLibrary}
        </Button>
      }
    >
      {films === null ? (
        <p className="px-2 py-1.5 text-sm text-soft">{t.loading}</p>
      ) : (
        films.map(({ id, name }) => (
          <MenuItem key={id} onSelect={() => void bring(takeFilm(id))}>
            {name}
          </MenuItem>
        ))
      )}
    </Menu>
  );
}
