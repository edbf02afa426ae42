import { clsx } from "clsx";
import { useEffect, useState } from "react";
import { isSilent } from "~/core/composition/stack";
import { useSize } from "../../common/use-size";
import { Compared } from "./compare/compared";
import { useShotHere } from "../hooks/use-player";
import { useDesk } from "../hooks/use-desk";
import { ResultBar } from "./result-bar";
import { SingleResult } from "./result/single-result";
import { resultTexts } from "~/texts/result";

const t = resultTexts.result;

/** What the version shows at the frame on screen, alone or beside what it is compared with. */
export function Result() {
  const { player, shots, look } = useDesk("player", "shots", "look");
  const { view, comparison, setPart } = look;
  const [element, setElement] = useState<HTMLDivElement | null>(null);
  const room = useSize(element);
  const layout = useShotHere(player, shots)?.settings.layout;
  const filmIsSilent = layout?.kind === "stack" && isSilent(layout);
  const isTrueSize = view === "true" && !comparison;
  // A result larger than its room is first shown at its centre.
  useEffect(() => {
    if (!element || !isTrueSize) return;
    element.scrollTo(
      (element.scrollWidth - element.clientWidth) / 2,
      (element.scrollHeight - element.clientHeight) / 2,
    );
  }, [element, isTrueSize]);
  useEffect(() => player?.setShotSilent(filmIsSilent), [player, filmIsSilent]);
  return (
    <section ref={setPart} aria-label={t.result} className="flex h-full flex-col gap-1 bg-panel p-2">
      <ResultBar />
      <div
        ref={setElement}
        tabIndex={isTrueSize ? 0 : undefined}
        className={clsx("flex min-h-0 grow", isTrueSize ? "overflow-auto" : "overflow-hidden")}
      >
        {comparison ? (
          <div className="m-auto">
            <Compared comparison={comparison} room={room} />
          </div>
        ) : (
          <SingleResult room={room} />
        )}
      </div>
    </section>
  );
}
