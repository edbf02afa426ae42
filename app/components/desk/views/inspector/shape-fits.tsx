import { Ratio } from "lucide-react";
import { Popover } from "radix-ui";
import { useEffect, useState } from "react";
import { z } from "zod";
import { Button } from "~/components/common/button";
import { SidePanel } from "~/components/common/side-panel";
import type { ShapeFit } from "~/core/checks/shape-fit";
import { fill } from "~/core/composition/composition";
import type { Size } from "~/core/geometry/box";
import { fitInto } from "../../frames/fit";
import { type Still, useStills } from "../../frames/use-stills";
import { useDesk } from "../../hooks/use-desk";
import type { DeskShot } from "../../model/desk-types";
import { inspectorTexts } from "~/texts/inspector";

const t = inspectorTexts.shapeFits;

/** Longest side of a small picture. */
const PICTURE_ROOM: Size = { width: 84, height: 72 };

const Fits = z.array(
  z.object({
    name: z.string(),
    size: z.object({ width: z.number(), height: z.number() }),
    inside: z.number().nullable(),
    travel: z.number(),
    frame: z.number(),
    window: z.object({ x: z.number(), y: z.number(), height: z.number() }),
  }) satisfies z.ZodType<ShapeFit & { name: string; size: Size }>,
);
type Fits = z.infer<typeof Fits>;

/** How well aspect ratios suit a shot: for each, how much of the subject stays inside, and how far the window moves. */
export function ShapeFits({ shot }: { shot: DeskShot }) {
  return (
    <Popover.Root>
      <Popover.Trigger asChild>
        <Button>
          <Ratio className="size-4" aria-hidden />
          {t.compareShapes}
        </Button>
      </Popover.Trigger>
      <SidePanel title={t.shapesForShot(shot.number)} width="w-96">
        <Shapes shot={shot} />
      </SidePanel>
    </Popover.Root>
  );
}

function Shapes({ shot }: { shot: DeskShot }) {
  const { film, source, state, version, versionCommands } = useDesk(
    "film",
    "source",
    "state",
    "version",
    "versionCommands",
  );
  const [fits, setFits] = useState<Fits | "failed" | null>(null);
  useEffect(() => {
    const gone = new AbortController();
    const query = new URLSearchParams({ version: version.id, shot: shot.id });
    fetch(`/films/${film.id}/shapes?${query}`, { signal: gone.signal })
      .then(async (response) => setFits(Fits.parse(await response.json())))
      .catch(() => !gone.signal.aborted && setFits("failed"));
    return () => gone.abort();
  }, [film.id, version.id, shot.id]);
  const known = Array.isArray(fits) ? fits : [];
  const stills = known.map(({ name, size, frame, window }): Still => ({
    id: name,
    frame,
    shown: fill(window, size),
    size: fitInto(size, PICTURE_ROOM),
  }));
  const pictures = useStills(source, stills, film.picture);
  if (fits === null) return <p className="text-sm text-soft">{t.comparing}</p>;
  if (fits === "failed") return <p className="text-sm text-warn">{t.comparisonFailed}</p>;
  return (
    <ul className="flex flex-col gap-3">
      {known.map(({ name, size, inside, travel }, i) => {
        const isThere = state.versions.some((other) => other.width * size.height === other.height * size.width);
        return (
          <li key={name} aria-label={name} className="flex items-center gap-3">
            <span className="flex shrink-0 items-center justify-center" style={PICTURE_ROOM}>
              <span className="block bg-well" style={stills[i]!.size}>
                {pictures.has(name) && <img src={pictures.get(name)} alt="" className="size-full" />}
              </span>
            </span>
            <span className="min-w-0 grow text-sm">
              <b className="block font-semibold">{name}</b>
              <span className="block">{inside === null ? t.noSubject : t.subjectInside(inside)}</span>
              <span className="block text-xs text-soft">
                {travel < 0.05 ? t.theWindowStays : t.windowMoves(travel)}
              </span>
            </span>
            <Button disabled={isThere} onClick={() => versionCommands.add({ ...size, name }, {})}>
              {isThere ? t.added : t.add}
            </Button>
          </li>
        );
      })}
    </ul>
  );
}
