import { toast } from "sonner";
import { Button, Hint } from "~/components/common/button";
import type { FramingSettings } from "~/core/path/framing-settings";
import { useDesk } from "../../hooks/use-desk";
import type { DeskShot } from "../../model/desk-types";
import { inspectorTexts } from "~/texts/inspector";

const t = inspectorTexts.spreadLayout;

const layoutOf = ({ layout, backdrop, edge }: FramingSettings) => ({ layout, backdrop, edge });

/** Applies a shot's layout to other shots, and to the shot in other versions. */
export function SpreadLayout({ shot }: { shot: DeskShot }) {
  const { shots, state, version, edits } = useDesk("shots", "state", "version", "edits");
  const change = layoutOf(shot.settings);
  const isUnlike = shots.some(({ settings }) => JSON.stringify(layoutOf(settings)) !== JSON.stringify(change));
  const others = state.versions.filter(({ id }) => id !== version.id);
  const makeUsual = () => {
    const versionId = version.id;
    const shotIds = shots.map(({ id }) => id);
    edits.send({
      type: "batch",
      commands: [
        { type: "change-version", versionId, change: { usual: { ...version.usual, ...change } } },
        { type: "set-framing", versionId, shotIds, change: {}, reset: ["layout", "backdrop", "edge"] },
      ],
    });
  };
  const copy = () => {
    const shotIds = [shot.id];
    const { panes } = shot.settings;
    const commands = others.map(({ id }) => ({
      type: "set-framing" as const,
      versionId: id,
      shotIds,
      change: change.layout.kind === "stack" ? { ...change, panes } : change,
    }));
    edits.send({ type: "batch", commands });
    toast(t.layoutCopiedTo(others.map(({ name }) => name).join(", ")));
  };
  return (
    <div className="flex flex-col gap-2 empty:hidden">
      {isUnlike && (
        <Hint text={t.useInAllHint}>
          <Button onClick={makeUsual}>{t.useInAll}</Button>
        </Hint>
      )}
      {others.length > 0 && change.layout.kind !== "fill" && <Button onClick={copy}>{t.copyToVersions}</Button>}
    </div>
  );
}
