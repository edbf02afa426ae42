import { toast } from "sonner";
import { Button } from "~/components/common/button";
import type { FramingSettings } from "~/core/path/framing-settings";
import { useDesk } from "../state/desk-context";
import type { DeskShot } from "../state/desk-types";

const layoutOf = ({ layout, backdrop, edge }: FramingSettings) => ({ layout, backdrop, edge });

/** Gives a shot's layout to the other shots, and to the shot in the other versions. */
export function SpreadLayout({ shot }: { shot: DeskShot }) {
  const { shots, state, version, edits, shotEdits } = useDesk();
  const change = layoutOf(shot.settings);
  const isUnlike = shots.some(({ settings }) => JSON.stringify(layoutOf(settings)) !== JSON.stringify(change));
  const others = state.versions.filter(({ id }) => id !== version.id);
  const copy = () => {
    const shotIds = [shot.id];
    const commands = others.map(({ id }) => ({ type: "set-framing" as const, versionId: id, shotIds, change }));
    edits.send({ type: "batch", commands });
    toast(`The layout is in ${others.map(({ name }) => name).join(", ")} as well.`);
  };
  return (
    <div className="flex flex-col gap-2 empty:hidden">
      {isUnlike && <Button onClick={() => shotEdits.setFraming(shots, change)}>Use this layout in all shots</Button>}
      {others.length > 0 && change.layout.kind !== "fill" && (
        <Button onClick={copy}>Copy this layout to the other versions</Button>
      )}
    </div>
  );
}
