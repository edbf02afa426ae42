import { clsx } from "clsx";
import { Check, Flag as FlagIcon, FlagOff } from "lucide-react";
import { IconButton } from "~/components/common/button";
import type { Flag } from "~/core/checks/flag";
import { AbsenceFixes } from "./absence-fixes";
import { FlagOffers } from "./flag-offers";
import { useDesk } from "../../hooks/use-desk";
import type { DeskShot } from "../../model/desk-types";
import { inspectorTexts } from "~/texts/inspector";

const t = inspectorTexts.shotFlags;

/** The shot's flags, each a link to its place, with layouts that would help. */
export function ShotFlags({ shot }: { shot: DeskShot }) {
  const { player, selectPane, checks } = useDesk("player", "selectPane", "checks");
  if (shot.flags.length === 0) return null;
  const go = ({ frame, pane }: Flag) => {
    player?.seek(frame);
    if (pane !== undefined) selectPane(pane);
  };
  // Of several ranges with the same flag about the same thing, the first offers the layouts, which change the whole shot.
  const aboutOf = ({ kind, otherId = "" }: Flag) => `${kind} ${otherId}`;
  const firsts = new Map(shot.flags.toReversed().map((flag) => [aboutOf(flag), flag]));
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
          {!flag.isReviewed && firsts.get(aboutOf(flag)) === flag && <FlagOffers shot={shot} flag={flag} />}
        </li>
      ))}
    </ul>
  );
}
