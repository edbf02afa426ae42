import { clsx } from "clsx";
import { type ReactNode, useEffect, useState, useSyncExternalStore } from "react";
import {
  Group,
  type LayoutStorage,
  Panel,
  type PanelProps,
  Separator,
  useDefaultLayout,
  useGroupRef,
} from "react-resizable-panels";
import { Hint } from "~/components/common/button";
import { useLatest } from "~/components/common/use-latest";
import { deskTexts } from "~/texts/desk";

const t = deskTexts.deskPanels;

/** Pixels, except for shares of the window's size, which grow with it. */
const SIZES = {
  shots: { defaultSize: 216, minSize: 150, maxSize: 420 },
  picture: { minSize: 360 },
  right: { defaultSize: "22.5%", minSize: 220, maxSize: "60%" },
  result: { minSize: 120 },
  settings: { minSize: 120 },
} as const;

const NOWHERE: LayoutStorage = { getItem: () => null, setItem: () => {} };
const never = () => () => {};

/** Sizes of a group of panels, remembered by this browser. */
function useRemembered(id: string) {
  // The server renders the usual sizes; the stored ones follow on hydration.
  const storage = useSyncExternalStore(
    never,
    () => localStorage,
    () => NOWHERE,
  );
  const { defaultLayout, onLayoutChanged } = useDefaultLayout({ id, storage, onlySaveAfterUserInteractions: true });
  const groupRef = useGroupRef();
  const latest = useLatest(defaultLayout);
  useEffect(() => {
    if (latest.current) groupRef.current?.setLayout(latest.current);
  }, [storage, latest, groupRef]);
  return { defaultLayout, onLayoutChanged, groupRef };
}

interface DeskPanelsProps {
  shots: ReactNode;
  picture: ReactNode;
  result: ReactNode;
  settings: ReactNode;
}

/** The parts of the desk, with borders to drag; those at the sides can be folded. This browser remembers the layout. */
export function DeskPanels({ shots, picture, result, settings }: DeskPanelsProps) {
  const columns = useRemembered("glad-pan desk columns");
  const rows = useRemembered("glad-pan desk right");
  return (
    <Group {...columns} className="min-h-0" orientation="horizontal">
      <FoldablePanel id="shots" groupResizeBehavior="preserve-pixel-size" {...SIZES.shots}>
        {shots}
      </FoldablePanel>
      <Border label={t.widthOfTheShotList} />
      <Panel id="picture" {...SIZES.picture}>
        {picture}
      </Panel>
      <Border label={t.widthOfTheResult} />
      <FoldablePanel id="right" {...SIZES.right}>
        <Group {...rows} orientation="vertical" className="h-full">
          <FoldablePanel id="result" {...SIZES.result}>
            {result}
          </FoldablePanel>
          <Border label={t.heightOfTheResult} isLevel />
          <FoldablePanel id="settings" {...SIZES.settings}>
            {settings}
          </FoldablePanel>
        </Group>
      </FoldablePanel>
    </Group>
  );
}

/** A foldable panel; while folded, the keyboard cannot reach its content. */
function FoldablePanel({ children, ...props }: PanelProps) {
  const [isFolded, setFolded] = useState(false);
  return (
    <Panel {...props} collapsible onResize={({ inPixels }) => setFolded(inPixels < 1)}>
      <div className={clsx("h-full", isFolded && "invisible")}>{children}</div>
    </Panel>
  );
}

/** The border between two panels. */
function Border({ label, isLevel = false }: { label: string; isLevel?: boolean }) {
  return (
    <Hint text={t.dragToResizeEnterFolds}>
      <Separator
        aria-label={label}
        aria-roledescription={t.movableBorder}
        className={clsx(
          "bg-line transition-colors outline-none hover:bg-accent focus-visible:bg-accent data-[separator=active]:bg-accent",
          isLevel ? "h-px" : "w-px",
        )}
      />
    </Hint>
  );
}
