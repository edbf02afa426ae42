import { Button, Hint } from "~/components/common/button";
import { MOVEMENT_TEXT } from "~/core/path/movement";
import { useDesk } from "../hooks/use-desk";
import type { DeskShot } from "../model/desk-types";
import type { OwnSetting } from "../model/shot-commands";
import { TickBox } from "~/components/common/tick-box";
import { paneBox } from "~/core/composition/layout";
import { largestWindow } from "~/core/geometry/crop-window";
import { activeArea } from "~/core/shots/shot";
import { isSame } from "~/core/basics/structure";
import { mostZoom } from "~/core/path/zoom-goals";
import { ActiveArea } from "./inspector/active-area";
import { ChoiceBar } from "~/components/common/choice-bar";
import { CaptionsPanel } from "./captions/captions-panel";
import { KeysPanel } from "./keys/keys-panel";
import { LayersPanel } from "./layers/layers-panel";
import { ApplyFraming } from "./inspector/apply-framing";
import { BulkSettings } from "./inspector/bulk-settings";
import { EyeLineOffer } from "./inspector/eye-line-offer";
import { FramingControls } from "./inspector/framing-controls";
import { KeptEnd } from "./inspector/kept-end";
import { LayoutControls } from "./inspector/layout-controls";
import { PaneChoice } from "./inspector/pane-choice";
import { ResetFraming } from "./inspector/reset-framing";
import { ShapeFits } from "./inspector/shape-fits";
import { ShotBegin } from "./inspector/shot-begin";
import { ShotFlags } from "./inspector/shot-flags";
import { ShotName } from "./fields/shot-name";
import { SpreadLayout } from "./inspector/spread-layout";
import { SubjectChoice } from "./fields/subject-choice";
import { TextAreas } from "./inspector/text-areas";
import { TrackTools } from "./inspector/track-tools";
import { SwitchControls } from "./inspector/switch-controls";
import { WindowHere } from "./inspector/window-here";
import { useShotToEdit } from "../hooks/use-player";
import { inspectorTexts } from "~/texts/inspector";

const t = inspectorTexts.inspector;

const PANELS = [
  { value: "shot", name: t.shot, hint: t.shotHint },
  { value: "keys", name: t.keys, hint: t.keyframesHint },
  { value: "layers", name: t.layers, hint: t.layersHint },
  { value: "captions", name: t.captions, hint: t.captionsHint },
] as const;

/** Settings of the shot on screen, or of what lies above the picture. */
export function Inspector() {
  const { panel, setPanel } = useDesk("panel", "setPanel");
  return (
    <div className="flex flex-col gap-4">
      <ChoiceBar label={t.settingsOf} choices={PANELS} value={panel} onChange={setPanel} className="grid-cols-4" />
      {panel === "layers" && <LayersPanel />}
      {panel === "captions" && <CaptionsPanel />}
      {panel === "keys" && <KeysPanel />}
      {panel === "shot" && <ShotPanel />}
    </div>
  );
}

/** Settings of the shot under the playhead and the window at this frame, or of the selected shots. */
function ShotPanel() {
  const { shots, selection } = useDesk("shots", "selection");
  const selected = shots.filter(({ id }) => selection.ids.has(id));
  return selected.length > 1 ? <BulkSettings shots={selected} /> : <ShotSettings />;
}

function ShotSettings() {
  const { film, source, player, shots, version, shotCommands, subjectCommands, setDrawing } = useDesk(
    "film",
    "source",
    "player",
    "shots",
    "version",
    "shotCommands",
    "subjectCommands",
    "setDrawing",
  );
  const shot = useShotToEdit(player, shots);
  if (!shot) return null;
  const before = shots[shot.number - 2];
  const area = activeArea(shot, film.picture);
  const pane = paneBox(shot.settings.layout, area, version, shot.pane);
  const { zoom } = shot.settings;
  const differs = shots.some(({ settings }) => !isSame(settings.zoom, zoom));
  return (
    <div className="flex flex-col gap-5">
      <section aria-label={t.shotNumbered(shot.number)} className="flex flex-col gap-3">
        <ShotName
          key={shot.id}
          number={shot.number}
          name={shot.name}
          onRename={(name) => shotCommands.change([shot], { name })}
        />
        <ShotFlags shot={shot} />
        <PaneChoice shot={shot} />
        <SubjectChoice shot={shot} onChange={(rule) => shotCommands.follow([shot], rule)} />
        {shot.pane === 0 && <OwnAnswer shot={shot} setting="follow" />}
        <SwitchControls shot={shot} />
        <KeptEnd
          shot={shot}
          window={largestWindow(area, pane)}
          onChange={(keepEnd) => shotCommands.setFraming([shot], { keepEnd })}
        />
        <TrackTools
          shot={shot}
          player={player}
          onEdit={subjectCommands.editTrack}
          onUnmark={(at) => subjectCommands.unmark(shot, at)}
          onSeek={(at) => player?.seek(at)}
        />
        <LayoutControls
          settings={shot.settings}
          area={area}
          frame={version}
          onChange={(change) => shotCommands.setFraming([shot], change)}
        />
        <SpreadLayout shot={shot} />
        <FramingControls
          settings={shot.settings}
          bears={(largestScale) => mostZoom(area, pane, largestScale)}
          reason={
            shot.framed?.movementReason && `${MOVEMENT_TEXT[shot.framed.movement].name}: ${shot.framed.movementReason}`
          }
          onChange={(change) => shotCommands.setFraming([shot], change)}
        />
        <EyeLineOffer shot={shot} area={area} pane={pane} />
        <div className="flex flex-wrap gap-2">
          <ApplyFraming shot={shot} />
          <ResetFraming shot={shot} />
          <ShapeFits shot={shot} />
        </div>
        <div className="flex items-center justify-between gap-2">
          <span className="text-xs text-soft">{shot.protect ? t.protectedArea : t.titleLogo}</span>
          {shot.protect ? (
            <Button className="shrink-0" onClick={() => shotCommands.protect(shot, null)}>
              {t.stopProtecting}
            </Button>
          ) : (
            <Hint text={t.protectHint}>
              <Button onClick={() => setDrawing("protect")}>{t.protectAnArea}</Button>
            </Hint>
          )}
        </div>
        <OwnAnswer shot={shot} setting="protect" />
        <TextAreas
          shot={shot}
          window={largestWindow(area, pane)}
          onEdit={subjectCommands.editTrack}
          onSeek={(at) => player?.seek(at)}
        />
        <ActiveArea
          shot={shot}
          shots={shots}
          picture={film.picture}
          onDraw={() => setDrawing("active")}
          onChange={(some, active) => shotCommands.change(some, { active })}
        />
        {differs && <Button onClick={() => shotCommands.setFraming(shots, { zoom })}>{t.zoomInAllShots}</Button>}
      </section>
      <WindowHere shot={shot} />
      {before && (
        <ShotBegin
          shot={shot}
          before={before}
          source={source}
          picture={film.picture}
          clock={film.clock}
          onMove={(start) => shotCommands.moveCut(shot, start)}
          onCarry={(carry) => shotCommands.change([shot], { carry })}
        />
      )}
    </div>
  );
}

const OWN_TEXT: Record<OwnSetting, string> = {
  follow: t.ownSubject,
  protect: t.ownProtectedArea,
};

/** Whether the version overrides the film's subject or protected area in a shot. */
function OwnAnswer({ shot, setting }: { shot: DeskShot; setting: OwnSetting }) {
  const { state, version, shotCommands } = useDesk("state", "version", "shotCommands");
  const own = shot.own[setting];
  if (state.versions.length < 2 && !own) return null;
  return (
    <label className="flex items-center gap-2 text-xs">
      <TickBox checked={own} onChange={(checked) => shotCommands.setOwn(shot, setting, checked)} />
      <Hint text={t.ownSettingHint}>
        <span className={own ? "text-ink" : "text-soft"}>{t.in(OWN_TEXT[setting], version.name)}</span>
      </Hint>
    </label>
  );
}
