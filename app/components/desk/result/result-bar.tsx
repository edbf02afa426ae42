import { ArrowLeftRight, Maximize, Minimize, ScanSearch, Smartphone, X } from "lucide-react";
import { useSyncExternalStore } from "react";
import { IconButton } from "~/components/common/button";
import { ChoiceBar } from "~/components/common/choice-bar";
import { ToggleButton } from "~/components/common/toggle-button";
import { CompareMenu } from "../compare/compare-menu";
import { isSameShape } from "../compare/comparison";
import { useShortcutText } from "../shortcuts/use-shortcut-keys";
import { useDesk } from "../state/desk-context";
import { toggleFullScreen } from "./use-result-look";

const VIEWS = [
  { value: "beside", name: "Beside", hint: "Side by side" },
  { value: "split", name: "Split", hint: "One over the other, with a dividing line" },
  { value: "flip", name: "Flip", hint: "One at a time" },
] as const;

function subscribe(listener: () => void): () => void {
  document.addEventListener("fullscreenchange", listener);
  return () => document.removeEventListener("fullscreenchange", listener);
}

/** How the result is looked at, and what it is compared with. */
export function ResultBar() {
  const { look } = useDesk();
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
        <IconButton label="Stop comparing" shortcut={keysOf("compare")} onClick={() => look.setComparison(null)}>
          <X className={icon} aria-hidden />
        </IconButton>
      )}
      <IconButton
        label={isFull ? "Leave full screen" : "Full screen"}
        shortcut={keysOf("full-screen")}
        onClick={() => void toggleFullScreen(look)}
      >
        {isFull ? <Minimize className={icon} aria-hidden /> : <Maximize className={icon} aria-hidden />}
      </IconButton>
    </div>
  );
}

function Views() {
  const { view, setView } = useDesk().look;
  const keysOf = useShortcutText();
  return (
    <>
      <ToggleButton
        label="True size: one pixel of the frame for one of the screen"
        shortcut={keysOf("true-size")}
        Icon={ScanSearch}
        isOn={view === "true"}
        onChange={(isOn) => setView(isOn ? "true" : "fit")}
      />
      <ToggleButton
        label="As on a phone"
        shortcut={keysOf("phone")}
        Icon={Smartphone}
        isOn={view === "phone"}
        onChange={(isOn) => setView(isOn ? "phone" : "fit")}
      />
    </>
  );
}

/** Of frames of one shape: beside each other, or over each other. */
function ComparisonViews() {
  const { state, version, look } = useDesk();
  const { comparison, comparisonView, setComparisonView, showsOther, setShowsOther } = look;
  const keysOf = useShortcutText();
  const isOfOneShape =
    comparison?.kind !== "versions" ||
    state.versions.some((other) => comparison.versionIds.includes(other.id) && isSameShape(other, version));
  if (!isOfOneShape) return null;
  return (
    <>
      <ChoiceBar
        label="Compare by"
        choices={VIEWS}
        value={comparisonView}
        onChange={setComparisonView}
        className="mr-auto grid-cols-3 [&_button]:px-2 [&_button]:py-0.5"
      />
      {comparisonView === "flip" && (
        <ToggleButton
          label="Show the other"
          shortcut={keysOf("flip")}
          Icon={ArrowLeftRight}
          isOn={showsOther}
          onChange={setShowsOther}
        />
      )}
    </>
  );
}
