import { Crosshair, Hand, ScanEye, SquareDashedMousePointer, Users } from "lucide-react";
import type { Ref } from "react";
import { ToggleButton } from "~/components/common/toggle-button";
import { ClipsPanel } from "./clips/clips-panel";
import { ShotTools } from "./shots/shot-tools";
import { LengthPanel } from "./trim/length-panel";
import { useDesk } from "../hooks/use-desk";
import { PictureLookPanel } from "./picture/picture-look-panel";
import { Transport } from "./picture/transport";
import { useFrameIs, useShotToEdit } from "../hooks/use-player";
import { useShortcutText } from "../hooks/use-shortcut-keys";
import { pictureTexts } from "~/texts/picture";

const t = pictureTexts.deskTools;

/** Below picture and lane: playback, tools for the shot under the playhead, and display of subjects. */
export function DeskTools({ timecodeRef }: { timecodeRef: Ref<HTMLInputElement> }) {
  const keysOf = useShortcutText();
  const { film, shots, player, pictureLook, setPictureLook, drawing, setDrawing, rangeCommands } = useDesk(
    "film",
    "shots",
    "player",
    "pictureLook",
    "setPictureLook",
    "drawing",
    "setDrawing",
    "rangeCommands",
  );
  return (
    <div className="flex flex-wrap items-center justify-center gap-x-1 gap-y-1 border-t border-line bg-panel px-3 py-1.5 [&_.w-8]:w-7">
      <Transport
        player={player}
        shots={shots}
        range={rangeCommands.marked}
        clock={film.clock}
        frames={film.frames}
        timecodeRef={timecodeRef}
      />
      <ShotToolsHere />
      <ToggleButton
        label={t.showSubjects}
        shortcut={keysOf("subjects")}
        Icon={Users}
        isOn={pictureLook.subjects}
        onChange={(subjects) => setPictureLook({ subjects })}
      />
      <ToggleButton
        label={t.markSubject}
        shortcut={keysOf("mark")}
        Icon={SquareDashedMousePointer}
        isOn={drawing === "mark"}
        onChange={(isOn) => setDrawing(isOn ? "mark" : null)}
      />
      <ToggleButton
        label={t.centreWindow}
        shortcut={keysOf("centre")}
        Icon={Crosshair}
        isOn={drawing === "centre"}
        onChange={(isOn) => setDrawing(isOn ? "centre" : null)}
      />
      <ToggleButton
        label={t.eyesHere}
        shortcut={keysOf("eyes")}
        Icon={ScanEye}
        isOn={drawing === "eyes"}
        onChange={(isOn) => setDrawing(isOn ? "eyes" : null)}
      />
      <ToggleButton
        label={t.steer}
        shortcut={keysOf("steer")}
        Icon={Hand}
        isOn={drawing === "steer"}
        onChange={(isOn) => setDrawing(isOn ? "steer" : null)}
      />
      <PictureLookPanel />
      <ClipsPanel />
      <LengthPanel />
    </div>
  );
}

/** Tools of the shot under the playhead, in a component of their own so that the rest does not render with every shot. */
function ShotToolsHere() {
  const { player, shots, shotCommands } = useDesk("player", "shots", "shotCommands");
  const shot = useShotToEdit(player, shots);
  const isAtStart = useFrameIs(player, shot?.start ?? 0);
  return (
    <ShotTools
      shot={shot}
      canSplit={shot !== undefined && !isAtStart}
      last={shot?.number === shots.length}
      onSplit={shotCommands.splitHere}
      onJoin={shotCommands.joinNext}
      onExclude={shotCommands.excludeHere}
    />
  );
}
