import { clsx } from "clsx";
import { Check, Flag as FlagIcon, FlagOff } from "lucide-react";
import { nanoid } from "nanoid";
import { useMemo } from "react";
import { Hint, IconButton } from "~/components/common/button";
import { type LayoutOffer, layoutOffers } from "~/core/checks/layout-offers";
import type { Flag } from "~/core/checks/flag";
import { asOne } from "~/core/edits/as-one";
import type { SingleCommand } from "~/core/edits/command";
import { activeArea } from "~/core/shots/shot";
import { boxAt, extentOf } from "~/core/subjects/tracking/track";
import { type Still, useStills } from "../../frames/use-stills";
import { AbsenceFixes } from "./absence-fixes";
import { useDesk } from "../../hooks/use-desk";
import type { DeskShot } from "../../model/desk-types";
import { inspectorTexts } from "~/texts/inspector";

const t = inspectorTexts.shotFlags;

/** Longer side of an offer's picture. */
const PICTURE_SIDE = 72;

/** The shot's flags, each a link to its place, with layouts that would help. */
export function ShotFlags({ shot }: { shot: DeskShot }) {
  const { player, selectPane, checks } = useDesk("player", "selectPane", "checks");
  if (shot.flags.length === 0) return null;
  const go = ({ frame, pane }: Flag) => {
    player?.seek(frame);
    if (pane !== undefined) selectPane(pane);
  };
  // Of several ranges with the same flag, the first offers the layouts, which change the whole shot.
  const firsts = new Map(shot.flags.toReversed().map((flag) => [flag.kind, flag]));
  return (
    <ul aria-label={t.flagged} className="flex flex-col gap-1">
      {shot.flags.map((flag) => (
        <li key={flag.print}>
          <div
            className={clsx(
              "flex items-start rounded-md border border-line",
              flag.isReviewed && "text-soft",
              flag.print === checks.current && "bg-accent-wash",
            )}
          >
            <button
              type="button"
              onClick={() => go(flag)}
              className="flex grow items-start gap-2 rounded-md px-2 py-1 text-left text-xs hover:bg-well"
            >
              <FlagIcon className={clsx("mt-px size-3.5 shrink-0", !flag.isReviewed && "text-warn")} aria-hidden />
              {flag.text}
            </button>
            <IconButton
              label={flag.isReviewed ? t.markUnreviewed : t.markReviewed}
              aria-pressed={flag.isReviewed}
              onClick={() => checks.mark([flag], !flag.isReviewed)}
              className="!h-6 !w-6 shrink-0"
            >
              {flag.isReviewed ? (
                <FlagOff className="size-3.5" aria-hidden />
              ) : (
                <Check className="size-3.5" aria-hidden />
              )}
            </IconButton>
          </div>
          {!flag.isReviewed && flag.kind === "absent" && <AbsenceFixes shot={shot} flag={flag} />}
          {!flag.isReviewed && firsts.get(flag.kind) === flag && <Offers shot={shot} flag={flag} />}
        </li>
      ))}
    </ul>
  );
}

/** Layouts that would show what does not fit the window, each with a small picture. */
function Offers({ shot, flag }: { shot: DeskShot; flag: Flag }) {
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
  const offers = useMemo(() => {
    const boxesOf = (ids: (id: string) => boolean) =>
      shot.tracks.filter((track) => ids(track.id)).flatMap((track) => boxAt(track, flag.frame) ?? []);
    const cut = flag.kind === "text-cut" ? shot.tracks.find(({ id }) => id === flag.otherId) : undefined;
    return layoutOffers(flag, {
      settings: shot.settings,
      start: shot.start,
      area: activeArea(shot, picture),
      frame: version,
      window: windowAt(flag.frame),
      cut: flag.kind === "protected-cut" ? shot.protect : cut ? boxAt(cut, flag.frame) : null,
      other: boxesOf((id) => id === flag.otherId)[0] ?? null,
      text: cut?.kind === "text" ? { range: extentOf(cut), words: cut.words ?? null } : null,
      safeArea: version.safeArea,
    });
  }, [shot, flag, picture, version, windowAt]);
  const stills = useMemo(() => {
    const scale = PICTURE_SIDE / Math.max(version.width, version.height);
    const size = { width: Math.round(scale * version.width), height: Math.round(scale * version.height) };
    return offers.map(({ id, shown }): Still => ({ id, frame: flag.frame, shown, size }));
  }, [offers, flag.frame, version.width, version.height]);
  const pictures = useStills(source, stills, picture);
  const take = ({ change, keys, layers = [] }: LayoutOffer) => {
    const versionId = version.id;
    const own = layers.map((layer) => ({ ...layer, id: nanoid(10) }));
    const last = own.at(-1);
    if (last) {
      setPanel("layers");
      selectLayer(last.id);
    }
    const commands: SingleCommand[] = [
      ...own.map((layer) => ({ type: "put-layer" as const, versionId, layer })),
      ...(Object.keys(change).length > 0
        ? [{ type: "set-framing" as const, versionId, shotIds: [shot.id], change }]
        : []),
      ...keys.map((key) => ({ type: "set-key" as const, versionId, key })),
    ];
    edits.send(asOne(commands));
  };
  if (offers.length === 0) return null;
  return (
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
  );
}
