import { useMemo } from "react";
import { Button, Hint } from "~/components/common/button";
import type { Flag } from "~/core/checks/flag";
import type { LayoutOffer } from "~/core/checks/layout-offers";
import { asOne } from "~/core/edits/as-one";
import { type Still, useStills } from "../../frames/use-stills";
import { useDesk } from "../../hooks/use-desk";
import type { DeskShot } from "../../model/desk-types";
import { commandsOf, offersAt, replaceableTexts } from "../../model/offers";
import { inspectorTexts } from "~/texts/inspector";

const t = inspectorTexts.shotFlags;

/** Longer side of an offer's picture. */
const PICTURE_SIDE = 72;

/** Layouts that would show what does not fit the window, each with a small picture. */
export function FlagOffers({ shot, flag }: { shot: DeskShot; flag: Flag }) {
  const { film, version, source, edits, windowAt, setPanel, selectLayer } = useDesk(
    "film",
    "version",
    "source",
    "edits",
    "windowAt",
    "setPanel",
    "selectLayer",
  );
  const { picture } = film;
  const offers = useMemo(
    () => offersAt(shot, flag, { version, picture, windowAt }),
    [shot, flag, picture, version, windowAt],
  );
  const stills = useMemo(() => {
    const scale = PICTURE_SIDE / Math.max(version.width, version.height);
    const size = { width: Math.round(scale * version.width), height: Math.round(scale * version.height) };
    return offers.map(({ id, shown }): Still => ({ id, frame: flag.frame, shown, size }));
  }, [offers, flag.frame, version.width, version.height]);
  const pictures = useStills(source, stills, picture);
  const take = (offer: LayoutOffer) => {
    const commands = commandsOf(offer, shot, version.id);
    const layer = commands.findLast((command) => command.type === "put-layer")?.layer;
    if (layer) {
      setPanel("layers");
      selectLayer(layer.id);
    }
    edits.send(asOne(commands));
  };
  if (offers.length === 0) return null;
  return (
    <>
      <div role="group" aria-label={t.suggestedLayouts} className="mt-1 flex gap-2">
        {offers.map((offer, i) => (
          <Hint key={offer.id} text={offer.hint}>
            <button
              type="button"
              onClick={() => take(offer)}
              className="flex flex-1 flex-col items-center gap-1 rounded-md border border-line bg-raised p-1.5 text-xs font-medium hover:border-soft"
            >
              <span className="block bg-well" style={stills[i]!.size}>
                {pictures.has(offer.id) && <img src={pictures.get(offer.id)} alt="" className="size-full" />}
              </span>
              {offer.name}
            </button>
          </Hint>
        ))}
      </div>
      {flag.kind === "text-cut" && <ReplaceAll />}
    </>
  );
}

/** Replaces all titles of the film that are cut off and were read, as one step; where there are several. */
function ReplaceAll() {
  const { film, version, shots, edits, windowAt } = useDesk("film", "version", "shots", "edits", "windowAt");
  const { picture } = film;
  const texts = useMemo(
    () => replaceableTexts(shots, { version, picture, windowAt }),
    [shots, version, picture, windowAt],
  );
  if (texts.length < 2) return null;
  const replace = () => edits.send(asOne(texts.flatMap(({ shot, offer }) => commandsOf(offer, shot, version.id))));
  return (
    <Hint text={t.replaceAllHint}>
      <Button className="mt-2 w-full text-xs" onClick={replace}>
        {t.replaceAll(texts.length)}
      </Button>
    </Hint>
  );
}
