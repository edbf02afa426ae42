import { figuresOf } from "~/core/checks/measures";
import { framesPerSecond, rangeLength } from "~/core/time/rate";
import { timecodeAt } from "~/core/time/timecode";
import { useDesk } from "../../hooks/use-desk";
import { useMeasures } from "./use-measures";
import { checksTexts } from "~/texts/checks";

const t = checksTexts.checkFigures;

/** The version's figures. */
export function CheckFigures() {
  const { shots, film } = useDesk("shots", "film");
  const measured = useMeasures(shots, film.rate);
  const figures = figuresOf(
    measured.map(({ shot, measures }) => ({ measures, kept: shot.kept, keys: shot.solved?.keys ?? [] })),
  );
  const { keys, inside, headsCut, longestFastMove: move, leastResolution } = figures;
  const rows = [
    [t.shots, String(figures.shots)],
    [t.keys, t.keysBy(keys.solver, keys.hand)],
    [t.inside, inside === null ? t.nothingFollowed : t.insideShare(inside)],
    [t.headsCut, headsCut === 0 ? t.none : t.frames(headsCut)],
    [
      t.longestFastMove,
      move ? t.fastMove(rangeLength(move) / framesPerSecond(film.rate), timecodeAt(move.start, film.clock)) : t.none,
    ],
    [t.largestScale, leastResolution === null ? t.none : t.ofOne(leastResolution)],
  ] as const;
  return (
    <section aria-label={t.figures}>
      <dl className="grid grid-cols-[auto_minmax(0,1fr)] gap-x-4 gap-y-1 text-sm">
        {rows.map(([name, value]) => (
          <div key={name} className="contents">
            <dt className="text-soft">{name}</dt>
            <dd className="text-right">{value}</dd>
          </div>
        ))}
      </dl>
    </section>
  );
}
