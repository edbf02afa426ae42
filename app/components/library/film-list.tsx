import { Link } from "react-router";
import { formatBytes } from "~/core/numbers/bytes";
import { formatRate } from "~/core/time/rate";
import { formatTimecode } from "~/core/time/timecode";
import { isUnderWay } from "~/components/common/use-polling";
import { FilmMenu } from "./film-menu";
import { type FilmView, hasPoster, type Spaces, totalSpace } from "./library-view";
import { Poster } from "./poster";
import { libraryTexts } from "~/texts/library";

const t = libraryTexts.filmList;

const CELL = "px-3 py-1.5 text-left";
const DAY = new Intl.DateTimeFormat(undefined, { dateStyle: "medium" });

/** Films as a list, one per line. */
export function FilmList({ films, spaces }: { films: readonly FilmView[]; spaces: Spaces }) {
  return (
    <table className="mt-4 w-full border-collapse text-sm">
      <thead className="text-xs text-soft">
        <tr className="border-b border-line">
          <th className={CELL} aria-label={t.picture} />
          <th className={`${CELL} w-full`}>{t.name}</th>
          <th className={CELL}>{t.length}</th>
          <th className={CELL}>{t.picture}</th>
          <th className={CELL}>{t.shots}</th>
          <th className={CELL}>{t.versions}</th>
          <th className={CELL}>{t.space}</th>
          <th className={CELL}>{t.added}</th>
          <th className={CELL} aria-label={t.more} />
        </tr>
      </thead>
      <tbody>
        {films.map((film) => (
          <FilmLine key={film.id} film={film} spaces={spaces} />
        ))}
      </tbody>
    </table>
  );
}

function FilmLine({ film, spaces }: { film: FilmView; spaces: Spaces }) {
  const { picture, rate, frames } = film.info;
  const space = spaces[film.id];
  return (
    <tr className="border-b border-line whitespace-nowrap hover:bg-panel">
      <td className={CELL}>
        <div className="w-16">
          <Poster film={film} ready={hasPoster(film)} />
        </div>
      </td>
      <td className={`${CELL} max-w-0 truncate`}>
        {film.deletedAt === null ? (
          <Link to={`/films/${film.id}`} aria-label={t.open(film.name)} className="font-medium hover:underline">
            {film.name}
          </Link>
        ) : (
          <span className="font-medium">{film.name}</span>
        )}
        <LineStatus film={film} />
      </td>
      <td className={`${CELL} font-mono text-xs`}>{formatTimecode(frames, rate)}</td>
      <td className={CELL}>{t.fps(picture.width, picture.height, formatRate(rate))}</td>
      <td className={CELL}>{film.shots}</td>
      <td className={CELL}>{film.versions}</td>
      <td className={CELL}>{space ? formatBytes(totalSpace(space)) : ""}</td>
      <td className={CELL}>{DAY.format(film.addedAt)}</td>
      <td className={CELL}>
        <FilmMenu film={film} space={space} />
      </td>
    </tr>
  );
}

/** Short status of a film: what is under way, or what failed. */
function LineStatus({ film }: { film: FilmView }) {
  if (film.isMissing) return <span className="ml-2 text-xs text-warn">{t.fileMissing}</span>;
  const under = film.jobs.find(isUnderWay);
  const failed = film.jobs.filter(({ state }) => state === "failed");
  if (failed.length > 0) return <span className="ml-2 text-xs text-warn">{t.failed(failed.length)}</span>;
  if (!under) return null;
  return <span className="ml-2 text-xs text-soft">{t.underWay(under.step || t.waiting, under.progress)}</span>;
}
