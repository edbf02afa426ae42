import { type ReactNode, useState } from "react";
import { useStored } from "~/components/common/use-stored";
import { BrokenFilmCard, FilmCard } from "./film-card";
import { FilmList } from "./film-list";
import { LAYOUTS, LibraryTools } from "./library-tools";
import {
  type BrokenFilmView,
  type FilmView,
  ORDERS,
  type Section,
  sectionOf,
  SECTIONS,
  shownFilms,
} from "./library-view";
import { StorageDialog } from "./storage-dialog";
import { useSpaces } from "./use-spaces";
import { libraryTexts } from "~/texts/library";

const t = libraryTexts.sections;

const names = <Name extends string>(record: Record<Name, unknown>) => Object.keys(record) as Name[];

interface SectionsProps {
  films: FilmView[];
  broken: BrokenFilmView[];
  children: ReactNode;
}

/** The films of the library, one section at a time. */
export function Sections({ films, broken, children }: SectionsProps) {
  const [wanted, setSection] = useState<Section>("work");
  const [search, setSearch] = useState("");
  const [order, setOrder] = useStored("glad-pan-order", names(ORDERS), "newest");
  const [layout, setLayout] = useStored("glad-pan-layout", names(LAYOUTS), "cards");
  const { spaces, free } = useSpaces(films);
  const counts = { work: 0, away: 0, deleted: 0 };
  for (const film of films) counts[sectionOf(film)]++;
  // The last film may have left the current section.
  const section = counts[wanted] > 0 ? wanted : "work";
  const shown = shownFilms(films, { section, search, order }, spaces);
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
        <h1 className="mr-auto font-display text-3xl font-semibold tracking-tight">{SECTIONS[section]}</h1>
        <LibraryTools
          {...{ section, counts, search, order, layout }}
          {...{ onSection: setSection, onSearch: setSearch, onOrder: setOrder, onLayout: setLayout }}
        />
        <StorageDialog films={films} spaces={spaces} free={free} />
      </div>
      {children}
      {shown.length === 0 && search && <p className="mt-6 text-sm text-soft">{t.noMatches(search)}</p>}
      {layout === "list" && shown.length > 0 && <FilmList films={shown} spaces={spaces} />}
      <ul className="mt-6 grid grid-cols-[repeat(auto-fill,minmax(17rem,1fr))] gap-6">
        {layout === "cards" && shown.map((film) => <FilmCard key={film.id} film={film} space={spaces[film.id]} />)}
        {section === "work" && broken.map((film) => <BrokenFilmCard key={film.id} film={film} />)}
      </ul>
    </>
  );
}
