import { useState } from "react";
import { Button } from "~/components/common/button";
import { NumberField } from "~/components/common/number-field";
import { counted } from "~/core/counted";
import type { Point } from "~/core/geometry/box";
import { useShotHere } from "../picture/use-player";
import { useDesk } from "../state/desk-context";
import type { DeskShot } from "../state/desk-types";
import { KeysTable } from "./keys-table";

/** The keys of the shot under the playhead, as a table, and what is done to several of them. */
export function KeysPanel() {
  const { player, shots } = useDesk();
  const shot = useShotHere(player, shots);
  return shot ? <KeysOfShot key={`${shot.id} ${shot.pane}`} shot={shot} /> : null;
}

function KeysOfShot({ shot }: { shot: DeskShot }) {
  const { player, selectedKeys } = useDesk();
  const count = selectedKeys.frames.size;
  const none = count === 0;
  const keys = shot.framed?.keys ?? [];
  return (
    <section aria-label="Keys" className="flex flex-col gap-3">
      <h2 className="font-display font-semibold">
        Shot {shot.number}: {counted(keys.length, "key")}
      </h2>
      <KeysTable shot={shot} selected={selectedKeys.frames} onSelect={selectedKeys.select} />
      <p className="text-xs text-soft" aria-live="polite">
        {none ? "Tick keys of your own to move, copy or delete several at once." : `${counted(count, "key")} selected`}
      </p>
      <div className="flex flex-wrap gap-2">
        <Button disabled={none} onClick={selectedKeys.copy}>
          Copy
        </Button>
        <Button disabled={!selectedKeys.paste} onClick={() => selectedKeys.paste?.(player?.getFrame() ?? shot.start)}>
          Paste at playhead
        </Button>
        <Button disabled={none} onClick={selectedKeys.remove}>
          Delete
        </Button>
      </div>
      <Nudge isOff={none} onNudge={selectedKeys.nudge} />
    </section>
  );
}

const STILL: Point = { x: 0, y: 0 };

/** Moves all that is selected by as many pixels. */
function Nudge({ isOff, onNudge }: { isOff: boolean; onNudge: (by: Point) => void }) {
  const [by, setBy] = useState(STILL);
  return (
    <div className="grid grid-cols-[1fr_1fr_auto] items-end gap-2">
      <NumberField label="Right" unit="px" canBeNegative rest={0} value={by.x} onCommit={(x) => setBy({ ...by, x })} />
      <NumberField label="Down" unit="px" canBeNegative rest={0} value={by.y} onCommit={(y) => setBy({ ...by, y })} />
      <Button
        disabled={isOff || (by.x === 0 && by.y === 0)}
        onClick={() => {
          onNudge(by);
          setBy(STILL);
        }}
      >
        Move
      </Button>
    </div>
  );
}
