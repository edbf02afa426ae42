import { GalleryHorizontalEnd, Plus } from "lucide-react";
import { Dialog, Popover } from "radix-ui";
import { useEffect, useState } from "react";
import { useFetcher } from "react-router";
import { toast } from "sonner";
import { Button, Hint } from "~/components/common/button";
import { DialogPanel } from "~/components/common/dialog-panel";
import { SidePanel } from "~/components/common/side-panel";
import { FilmPicker, type PickableFilm } from "~/components/library/film-picker";
import { useDesk } from "../../hooks/use-desk";
import { ClipList } from "./clip-list";
import { type DraftClip, isDrafted, useClipDraft } from "./use-clip-draft";
import { deskTexts } from "~/texts/desk";

const t = deskTexts.clipsPanel;

/** The clips of the film: their order, in and out points, adding and removing. */
export function ClipsPanel() {
  const { state } = useDesk("state");
  const { clips } = state;
  return (
    <Popover.Root>
      <Hint text={t.whatTheFilmIsMade}>
        <Popover.Trigger
          aria-label={t.clips}
          className="flex items-center gap-1.5 rounded-md border border-line px-2 py-1 text-xs hover:border-soft"
        >
          <GalleryHorizontalEnd className="size-3.5" aria-hidden />
          {clips.length > 0 && clips.length}
        </Popover.Trigger>
      </Hint>
      <SidePanel title={t.clips} width="w-96">
        <Arranging />
      </SidePanel>
    </Popover.Root>
  );
}

function Arranging() {
  const { film, state } = useDesk("film", "state");
  const { data, load } = useFetcher<{ films: PickableFilm[] }>();
  useEffect(() => void load(`/films/${film.id}/clips`), [load, film.id]);
  const films = data?.films ?? [];
  const draft = useClipDraft(film, state.clips);
  const [picking, setPicking] = useState<"add" | DraftClip | null>(null);
  const arranging = useFetcher<{ error: string | null }>();
  useEffect(() => {
    if (arranging.data?.error) toast.error(arranging.data.error);
  }, [arranging.data]);
  const arrange = () => {
    const choices = draft.clips.map(({ clipId, from }) => ({ clipId, filmId: from?.id ?? null }));
    void arranging.submit(
      { choices },
      { method: "post", action: `/films/${film.id}/clips`, encType: "application/json" },
    );
  };
  const isBusy = arranging.state !== "idle";
  const hasChanged = isDrafted(draft.clips, state.clips, film);
  return (
    <>
      {state.clips.length === 0 && <p className="text-xs text-soft">{t.thisFilmIsOneFile}</p>}
      <ClipList clips={draft.clips} onMove={draft.move} onReplace={setPicking} onTakeOut={draft.takeOut} />
      <Button className="self-start" onClick={() => setPicking("add")} disabled={isBusy}>
        <Plus className="size-4" aria-hidden />
        {t.addClips}
      </Button>
      {hasChanged && (
        <div className="flex items-center gap-2 border-t border-line pt-3">
          <p className="mr-auto text-xs text-soft">{t.keysSubjectsAndMarksMove}</p>
          <Button onClick={draft.reset} disabled={isBusy}>
            {t.discard}
          </Button>
          <Button variant="accent" onClick={arrange} disabled={isBusy || draft.clips.length === 0}>
            {isBusy ? t.arranging : t.arrange}
          </Button>
        </div>
      )}
      {picking && (
        <PickDialog
          films={films}
          replaced={picking === "add" ? null : picking}
          onPick={(picked) => (picking === "add" ? draft.add(picked) : draft.replace(picking, picked[0]!))}
          onClose={() => setPicking(null)}
        />
      )}
    </>
  );
}

interface PickDialogProps {
  films: readonly PickableFilm[];
  /** The clip that the film replaces; null where films are added. */
  replaced: DraftClip | null;
  onPick: (films: PickableFilm[]) => void;
  onClose: () => void;
}

function PickDialog({ films, replaced, onPick, onClose }: PickDialogProps) {
  const [selected, setSelected] = useState<string[]>([]);
  const pick = () => {
    onPick(selected.flatMap((id) => films.find((film) => film.id === id) ?? []));
    onClose();
  };
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <DialogPanel
        title={replaced ? t.replaceClip(replaced.name) : t.addClips}
        width="w-[32rem]"
        layout="flex flex-col gap-4"
      >
        <p className="text-sm text-soft">{replaced ? t.replaceHint : t.selectFilms}</p>
        <FilmPicker films={films} selected={selected} single={replaced !== null} onChange={setSelected} />
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>{t.cancel}</Button>
          <Button variant="accent" disabled={selected.length === 0} onClick={pick}>
            {replaced ? t.replace : t.addCount(selected.length)}
          </Button>
        </div>
      </DialogPanel>
    </Dialog.Root>
  );
}
