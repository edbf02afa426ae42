import { Button, Hint } from "~/components/common/button";
import type { Box, Size } from "~/core/geometry/box";
import { largestWindow } from "~/core/geometry/crop-window";
import { eyesAt, heightForEyes } from "~/core/path/eye-line";
import { MAX_ZOOM } from "~/core/path/framing-settings";
import { useFrame } from "../../hooks/use-player";
import { useDesk } from "../../hooks/use-desk";
import { type DeskShot, followedIn } from "../../model/desk-types";
import { inspectorTexts } from "~/texts/inspector";

const t = inspectorTexts.eyeLineOffer;

interface EyeLineOfferProps {
  shot: DeskShot;
  /** The part of the picture in which the window may be. */
  area: Box;
  /** Size of its place in the frame. */
  pane: Size;
}

/** Distance of the eyes from their line, as a share of the window, that is close enough. */
const NEAR = 0.02;

/**
 * Where a window has no room to bring its subject's eyes to their line: the smallest zoom that gives it, with the scale of
 * the picture then.
 */
export function EyeLineOffer({ shot, area, pane }: EyeLineOfferProps) {
  const { player, windowAt, shotCommands } = useDesk("player", "windowAt", "shotCommands");
  const frame = useFrame(player);
  const followed = followedIn(shot);
  const eyes = followed ? eyesAt(followed.track, frame) : null;
  if (eyes === null) return null;
  const eyeLine = shot.settings.eyeLine / 100;
  const window = windowAt(frame);
  const at = (eyes - window.y) / window.height + 0.5;
  const largest = largestWindow(area, pane).height;
  const factor = Math.ceil((100 * largest) / heightForEyes(eyes - area.y, eyeLine, area.height, largest)) / 100;
  const isThere = Math.abs(at - eyeLine) < NEAR || largest / window.height >= factor;
  if (isThere || factor > MAX_ZOOM) return null;
  const enlarged = (pane.height * factor) / largest;
  return (
    <div role="note" className="flex flex-col gap-1.5 text-xs text-soft">
      <span>{t.eyesOutOfReach(at, shot.settings.eyeLine)}</span>
      <Hint text={t.zoomHint}>
        <Button
          className="self-start"
          onClick={() => shotCommands.setFraming([shot], { zoom: { kind: "fixed", factor } })}
        >
          {t.zoomTo(factor, enlarged)}
        </Button>
      </Hint>
    </div>
  );
}
