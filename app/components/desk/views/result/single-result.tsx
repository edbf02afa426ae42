import { clsx } from "clsx";
import { lazy, Suspense } from "react";
import { assertNever } from "~/core/basics/assert-never";
import type { Size } from "~/core/geometry/box";
import { useShotHere } from "../../hooks/use-player";
import { useDesk } from "../../hooks/use-desk";
import type { DeskShot } from "../../model/desk-types";
import { ComposedCanvas } from "../../frames/composed-canvas";
import { fitInto } from "../../frames/fit";
import { PaneHandle } from "./pane-handle";
import { SafeAreaOutline } from "./safe-area-outline";
import { SharpFrame } from "./sharp-frame";
import { StackHandles } from "./stack-handles";
import type { ResultView } from "../../model/result-look";
import { resultTexts } from "~/texts/result";

const t = resultTexts.singleResult;

// The canvas library is large and runs in browsers only.
const LayerStage = lazy(() => import("../layers/layer-stage"));

/** Approximate aspect ratio of a phone's screen today. */
const PHONE: Size = { width: 9, height: 19.5 };
/** Pixels around it. */
const PHONE_BORDER = 8;

/** Size of the result on the screen, and of the phone around it. */
function sizesIn(room: Size, version: Size, view: ResultView): { frame: Size; phone: Size | null } {
  if (view === "true") {
    const density = typeof window === "undefined" ? 1 : window.devicePixelRatio;
    return { frame: { width: version.width / density, height: version.height / density }, phone: null };
  }
  if (view === "fit") return { frame: fitInto(version, room), phone: null };
  const inner = { width: room.width - 2 * PHONE_BORDER, height: room.height - 2 * PHONE_BORDER };
  const phone = fitInto(PHONE, inner);
  return { frame: fitInto(version, phone), phone };
}

/** The version's frame, with handles for what can be moved in it. */
export function SingleResult({ room }: { room: Size }) {
  const { player, version, shots, shownAt, panel, look, pictureLook } = useDesk(
    "player",
    "version",
    "shots",
    "shownAt",
    "panel",
    "look",
    "pictureLook",
  );
  const shot = useShotHere(player, shots);
  const { frame, phone } = sizesIn(room, version, look.view);
  return (
    <div
      className={clsx(
        "m-auto flex shrink-0 items-center justify-center",
        phone && "overflow-hidden rounded-[2rem] border-8 border-well bg-black outline outline-line",
      )}
      style={phone ? { width: phone.width + 2 * PHONE_BORDER, height: phone.height + 2 * PHONE_BORDER } : frame}
    >
      <div className="relative" style={frame}>
        <ComposedCanvas label={t.whatShows(version.name)} shownAt={shownAt} size={frame} />
        <SharpFrame size={frame} />
        {pictureLook.safeArea && panel !== "layers" && <SafeAreaOutline />}
        {shot && (
          <div className="pointer-events-none absolute inset-0">
            {panel === "layers" ? (
              <Suspense>
                <SafeAreaOutline />
                <div className="pointer-events-auto absolute inset-0">
                  <LayerStage size={frame} />
                </div>
              </Suspense>
            ) : (
              <Handles shot={shot} size={frame} />
            )}
          </div>
        )}
      </div>
    </div>
  );
}

/** The parts of a shot's layout that can be moved on the result. */
function Handles({ shot, size }: { shot: DeskShot; size: Size }) {
  const { layout } = shot.settings;
  switch (layout.kind) {
    case "fill":
      return null;
    case "whole":
      return <PaneHandle shot={shot} layout={layout} size={size} />;
    case "stack":
      return <StackHandles shot={shot} stack={layout} size={size} />;
    default:
      return assertNever(layout);
  }
}
