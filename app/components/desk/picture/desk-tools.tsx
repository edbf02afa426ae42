import { Crosshair, Grid3x3, SquareDashedMousePointer, Users } from "lucide-react";
import type { Ref } from "react";
import { ToggleButton } from "~/components/common/toggle-button";
import { ClipsPanel } from "../clips/clips-panel";
import { ShotTools } from "../shots/shot-tools";
import { LengthPanel } from "../trim/length-panel";
import { useDesk } from "../state/desk-context";
import { Transport } from "./transport";
import { useFrameIs, useShotHere } from "./use-player";
import { useShortcutText } from "../shortcuts/use-shortcut-keys";

/** Under the picture and its lane: playing, the tools of the shot under the playhead, and what is shown of subjects. */
export function DeskTools({ timecodeRef }: { timecodeRef: Ref<HTMLInputElement> }) {
  const keysOf = useShortcutText();
  const { film, shots, player, showsSubjects, setShowsSubjects, showsGuides, setShowsGuides, drawing, setDrawing } =
    useDesk();
  return (
    <div className="flex flex-wrap items-center justify-center gap-x-1.5 gap-y-1 border-t border-line bg-panel px-3 py-1.5">
      <Transport player={player} shots={shots} clock={film.clock} frames={film.frames} timecodeRef={timecodeRef} />
      <ShotToolsHere />
      <ToggleButton
        label="Show subjects"
        shortcut={keysOf("subjects")}
        Icon={Users}
        isOn={showsSubjects}
        onChange={setShowsSubjects}
      />
      <ToggleButton
        label="Mark a subject: draw a box around it"
        shortcut={keysOf("mark")}
        Icon={SquareDashedMousePointer}
        isOn={drawing === "mark"}
        onChange={(isOn) => setDrawing(isOn ? "mark" : null)}
      />
      <ToggleButton
        label="Centre the window: click what should be in the middle"
        shortcut={keysOf("centre")}
        Icon={Crosshair}
        isOn={drawing === "centre"}
        onChange={(isOn) => setDrawing(isOn ? "centre" : null)}
      />
      <ToggleButton
        label="Show thirds and centre"
        shortcut={keysOf("guides")}
        Icon={Grid3x3}
        isOn={showsGuides}
        onChange={setShowsGuides}
      />
      <ClipsPanel />
      <LengthPanel />
    </div>
  );
}

/** The tools of the shot under the playhead; apart, so that the rest is not drawn again with every shot. */
function ShotToolsHere() {
  const { player, shots, shotEdits } = useDesk();
  const shot = useShotHere(player, shots);
  const isAtStart = useFrameIs(player, shot?.start ?? 0);
  return (
    <ShotTools
      shot={shot}
      canSplit={shot !== undefined && !isAtStart}
      last={shot?.number === shots.length}
      onSplit={shotEdits.splitHere}
      onJoin={shotEdits.joinNext}
      onExclude={shotEdits.excludeHere}
    />
  );
}
