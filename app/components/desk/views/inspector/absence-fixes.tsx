import { Button } from "~/components/common/button";
import type { Flag } from "~/core/checks/flag";
import { asSwitches, followBetween } from "~/core/subjects/attention/edit-switches";
import { boxAt } from "~/core/subjects/tracking/track";
import { inspectorTexts } from "~/texts/inspector";
import { useDesk } from "../../hooks/use-desk";
import type { DeskShot } from "../../model/desk-types";

const t = inspectorTexts.absenceFixes;

/** Remedies for a range in which a person is missing who must be in it. */
export function AbsenceFixes({ shot, flag }: { shot: DeskShot; flag: Flag }) {
  const { shotCommands, rangeCommands } = useDesk("shotCommands", "rangeCommands");
  const { range, who } = flag;
  const middle = Math.floor((range.start + range.end) / 2);
  const next = shot.cast.find(({ track }) => track.who !== who && boxAt(track, middle));
  const { framed } = shot;
  const isAll = range.start <= shot.start && range.end >= shot.end;
  return (
    <div role="group" aria-label={t.whatCanBeDone} className="mt-1 flex flex-wrap gap-2">
      {next && framed && (
        <Button
          onClick={() =>
            shotCommands.follow([shot], followBetween(asSwitches(framed.spans), range, [next.track.id], shot))
          }
        >
          {t.follow(next.name ?? next.letter)}
        </Button>
      )}
      <Button
        onClick={() => (isAll ? shotCommands.change([shot], { excluded: true }) : rangeCommands.leaveOut([range]))}
      >
        {isAll ? t.leaveOutTheShot : t.leaveOutRange}
      </Button>
      <Button
        onClick={() =>
          shotCommands.setFraming([shot], { mustHave: shot.settings.mustHave.filter((other) => other !== who) })
        }
      >
        {t.notNeededHere}
      </Button>
    </div>
  );
}
