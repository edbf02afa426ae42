import { type ReactNode, useState } from "react";
import { useStored } from "~/components/common/use-stored";
import { BrokenFilmCard, FilmCard } from "./film-card";
import { FilmList } from "./film-list";
import { LAYOUTS, LibraryTools } from "./library-tools";
import { type BrokenFilmView, type FilmView, ORDERS, type Shelf, shelfOf, SHELVES, shownFilms } from "./library-view";
import { StorageDialog } from "./storage-dialog";
import { useSpaces } from "./use-spaces";
import { libraryTexts } from "~/texts/library";

const t = libraryTexts.shelves;

const names = <Name extends string>(of: Record<Name, unknown>) => Object.keys(of) as Name[];

interface ShelvesProps {
  films: FilmView[];
  broken: BrokenFilmView[];
  children: ReactNode;
}

/** The films of the library, a shelf at a time. */
export function Shelves({ films, broken, children }: ShelvesProps) {
  const [wanted, setShelf] = useState<Shelf>("work");
  const [search, setSearch] = useState("");
  const [order, setOrder] = useStored("glad-pan-order", names(ORDERS), "newest");
  const [layout, setLayout] = useStored("glad-pan-layout", names(LAYOUTS), "cards");
  const { spaces, free } = useSpaces(films);
  const counts = { work: 0, away: 0, deleted: 0 };
  for (const film of films) counts[shelfOf(film)]++;
  // The last film may have left a shelf that is looked at.
  const shelf = counts[wanted] > 0 ? wanted : "work";
  const shown = shownFilms(films, { shelf, search, order }, spaces);
  if (films.length + broken.length === 0) {
    return (
      <>
        <h1 className="font-display text-3xl font-semibold tracking-tight">{t.films}</h1>
        {children}
        <p className="mt-4 max-w-md text-soft">{t.emptyLibrary}</p>
      </>
    );
  }
  return (
    <>
      <div className="flex flex-wrap items-center gap-3">
        <h1 className="mr-auto font-display text-3xl font-semibold tracking-tight">{SHELVES[shelf]}</h1>
        <LibraryTools
          {...{ shelf, counts, search, order, layout }}
          {...{ onShelf: setShelf, onSearch: setSearch, onOrder: setOrder, onLayout: setLayout }}
        />
        <StorageDialog films={films} spaces={spaces} free={free} />
      </div>
      {children}
      {shown.length === 0 && search && <p className="mt-6 text-sm text-soft">{t.noMatches(search)}</p>}
      {layout === "list" && shown.length > 0 && <FilmList films={shown} spaces={spaces} />}
      <ul className="mt-6 grid grid-cols-[repeat(auto-fill,minmax(17rem,1fr))] gap-6">
        {layout === "cards" && shown.map((film) => <FilmCard key={film.id} film={film} space={spaces[film.id]} />)}
        {shelf === "work" && broken.map((film) => <BrokenFilmCard key={film.id} film={film} />)}
      </ul>
    </>
  );
}
