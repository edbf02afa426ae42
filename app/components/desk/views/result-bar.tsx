import { ArrowLeftRight, Maximize, Minimize, ScanSearch, Smartphone, X } from "lucide-react";
import { useSyncExternalStore } from "react";
import { IconButton } from "~/components/common/button";
import { ChoiceBar } from "~/components/common/choice-bar";
import { ToggleButton } from "~/components/common/toggle-button";
import { CompareMenu } from "./compare/compare-menu";
import { isSameShape } from "../model/comparison";
import { useShortcutText } from "../hooks/use-shortcut-keys";
import { useDesk } from "../hooks/use-desk";
import { toggleFullScreen } from "../model/result-look";
import { resultTexts } from "~/texts/result";

const t = resultTexts.resultBar;

const VIEWS = [
  { value: "beside", name: t.beside, hint: t.sideBySide },
  { value: "split", name: t.split, hint: t.splitHint },
  { value: "flip", name: t.flip, hint: t.oneAtATime },
] as const;

function subscribe(listener: () => void): () => void {
  document.addEventListener("fullscreenchange", listener);
  return () => document.removeEventListener("fullscreenchange", listener);
}

/** Display of the result, and what it is compared with. */
export function ResultBar() {
  const { look } = useDesk("look");
  const keysOf = useShortcutText();
  const isFull = useSyncExternalStore(
    subscribe,
    () => document.fullscreenElement !== null,
    () => false,
  );
  const icon = "size-4";
  return (
    <div className="flex flex-wrap items-center justify-end gap-0.5">
      {look.comparison ? <ComparisonViews /> : <Views />}
      {/* What opens over the page is not seen beside what fills the screen. */}
      {!isFull && <CompareMenu />}
      {look.comparison && (
        <IconButton label={t.stopComparing} shortcut={keysOf("compare")} onClick={() => look.setComparison(null)}>
          <X className={icon} aria-hidden />
        </IconButton>
      )}
      <IconButton
        label={isFull ? t.leaveFullScreen : t.fullScreen}
        shortcut={keysOf("full-screen")}
        onClick={() => void toggleFullScreen(look)}
      >
        {isFull ? <Minimize className={icon} aria-hidden /> : <Maximize className={icon} aria-hidden />}
      </IconButton>
    </div>
  );
}

function Views() {
  const { view, setView } = useDesk("look").look;
  const keysOf = useShortcutText();
  return (
    <>
      <ToggleButton
        label={t.trueSizeHint}
        shortcut={keysOf("true-size")}
        Icon={ScanSearch}
        isOn={view === "true"}
        onChange={(isOn) => setView(isOn ? "true" : "fit")}
      />
      <ToggleButton
        label={t.asOnAPhone}
        shortcut={keysOf("phone")}
        Icon={Smartphone}
        isOn={view === "phone"}
        onChange={(isOn) => setView(isOn ? "phone" : "fit")}
      />
    </>
  );
}

/** For frames of one aspect ratio: side by side, or over each other. */
function ComparisonViews() {
  const { state, version, look } = useDesk("state", "version", "look");
  const { comparison, comparisonView, setComparisonView, showsOther, setShowsOther } = look;
  const keysOf = useShortcutText();
  const isOfOneShape =
    comparison?.kind !== "versions" ||
    state.versions.some((other) => comparison.versionIds.includes(other.id) && isSameShape(other, version));
  if (!isOfOneShape) return null;
  return (
    <>
      <ChoiceBar
        label={t.compareBy}
        choices={VIEWS}
        value={comparisonView}
        onChange={setComparisonView}
        className="mr-auto grid-cols-3 [&_button]:px-2 [&_button]:py-0.5"
      />
      {comparisonView === "flip" && (
        <ToggleButton
          label={t.showTheOther}
          shortcut={keysOf("flip")}
          Icon={ArrowLeftRight}
          isOn={showsOther}
          onChange={setShowsOther}
        />
      )}
    </>
  );
}
