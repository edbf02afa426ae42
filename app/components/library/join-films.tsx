import { Dialog } from "radix-ui";
import { useEffect, useState } from "react";
import { useFetcher, useNavigate } from "react-router";
import { toast } from "sonner";
import { Button } from "~/components/common/button";
import { DialogPanel } from "~/components/common/dialog-panel";
import { FilmPicker, type PickableFilm } from "./film-picker";
import { libraryTexts } from "~/texts/library";

const t = libraryTexts.joinFilms;

interface JoinFilmsProps {
  /** The first film. */
  first: PickableFilm;
  onJoin: (filmIds: string[], name: string) => void;
  onClose: () => void;
}

/** Joins films, with a message that links to the result. */
export function useJoin(): (filmIds: string[], name: string) => void {
  const { submit, data } = useFetcher<{ filmId: string | null; error: string | null }>();
  const navigate = useNavigate();
  useEffect(() => {
    if (data?.error) toast.error(data.error);
    if (!data?.filmId) return;
    const open = () => void navigate(`/films/${data.filmId}`);
    toast(t.filmsJoined, { action: { label: t.open, onClick: open } });
  }, [data, navigate]);
  return (filmIds, name) =>
    void submit({ filmIds, name }, { method: "post", action: "/join", encType: "application/json" });
}

/** "Kite morning" of "Kite morning.mp4": the title of a film that is not a file. */
const titleOf = (name: string): string => name.replace(/\.\w{1,5}$/, "");

/** Joins films into one: which, in what order, and its name. */
export function JoinFilms({ first, onJoin, onClose }: JoinFilmsProps) {
  const { data, load } = useFetcher<{ films: PickableFilm[] }>();
  useEffect(() => void load(`/films/${first.id}/clips`), [load, first.id]);
  const [selected, setSelected] = useState<string[]>([first.id]);
  const [name, setName] = useState(t.andMore(titleOf(first.name)));
  const canJoin = selected.length > 1 && name.trim() !== "";
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <DialogPanel title={t.joinFilms} width="w-[34rem]">
        <form
          className="flex flex-col gap-4"
          onSubmit={(event) => {
            event.preventDefault();
            if (!canJoin) return;
            onJoin(selected, name.trim());
            onClose();
          }}
        >
          <p className="text-sm text-soft">{t.joinHint}</p>
          <FilmPicker films={[first, ...(data?.films ?? [])]} selected={selected} onChange={setSelected} />
          <label className="flex flex-col gap-1 text-sm">
            <span className="text-xs text-soft">{t.name}</span>
            <input
              value={name}
              maxLength={200}
              onChange={(event) => setName(event.target.value)}
              className="rounded-md border border-line bg-raised px-2 py-1.5"
            />
          </label>
          <div className="flex justify-end gap-2">
            <Button onClick={onClose}>{t.cancel}</Button>
            <Button type="submit" variant="accent" disabled={!canJoin}>
              {selected.length > 1 ? t.joinCount(selected.length) : t.join}
            </Button>
          </div>
        </form>
      </DialogPanel>
    </Dialog.Root>
  );
}
