import { useState } from "react";
import { Button } from "~/components/common/button";
import { NumberField } from "~/components/common/number-field";
import type { Point } from "~/core/geometry/box";
import { useShotToEdit } from "../../hooks/use-player";
import { useDesk } from "../../hooks/use-desk";
import type { DeskShot } from "../../model/desk-types";
import { KeysTable } from "./keys-table";
import { keysTexts } from "~/texts/keys";

const t = keysTexts.keysPanel;

/** The keyframes of the shot under the playhead as a table, with commands on several. */
export function KeysPanel() {
  const { player, shots } = useDesk("player", "shots");
  const shot = useShotToEdit(player, shots);
  return shot ? <KeysOfShot key={`${shot.id} ${shot.pane}`} shot={shot} /> : null;
}

function KeysOfShot({ shot }: { shot: DeskShot }) {
  const { player, selectedKeys } = useDesk("player", "selectedKeys");
  const count = selectedKeys.frames.size;
  const none = count === 0;
  const keys = shot.framed?.keys ?? [];
  return (
    <section aria-label={t.keys} className="flex flex-col gap-3">
      <h2 className="font-display font-semibold">{t.shot(shot.number, keys.length)}</h2>
      <KeysTable shot={shot} selected={selectedKeys.frames} onSelect={selectedKeys.select} />
      <p className="text-xs text-soft" aria-live="polite">
        {none ? t.selectHint : t.selected(count)}
      </p>
      <div className="flex flex-wrap gap-2">
        <Button disabled={none} onClick={selectedKeys.copy}>
          {t.copy}
        </Button>
        <Button disabled={!selectedKeys.paste} onClick={() => selectedKeys.paste?.(player?.getTarget() ?? shot.start)}>
          {t.pasteAtPlayhead}
        </Button>
        <Button disabled={none} onClick={selectedKeys.remove}>
          {t.delete}
        </Button>
      </div>
      <Nudge isOff={none} onNudge={selectedKeys.nudge} />
    </section>
  );
}

const STILL: Point = { x: 0, y: 0 };

/** Moves the selection by some pixels. */
function Nudge({ isOff, onNudge }: { isOff: boolean; onNudge: (by: Point) => void }) {
  const [by, setBy] = useState(STILL);
  return (
    <div className="grid grid-cols-[1fr_1fr_auto] items-end gap-2">
      <NumberField
        label={t.right}
        unit={t.px}
        canBeNegative
        rest={0}
        value={by.x}
        onCommit={(x) => setBy({ ...by, x })}
      />
      <NumberField
        label={t.down}
        unit={t.px}
        canBeNegative
        rest={0}
        value={by.y}
        onCommit={(y) => setBy({ ...by, y })}
      />
      <Button
        disabled={isOff || (by.x === 0 && by.y === 0)}
        onClick={() => {
          onNudge(by);
          setBy(STILL);
        }}
      >
        {t.move}
      </Button>
    </div>
  );
}
