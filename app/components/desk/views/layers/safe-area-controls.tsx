import { clamped } from "~/core/numbers/clamped";
import { NumberField } from "~/components/common/number-field";
import { SelectMenu } from "~/components/common/select-menu";
import { SAFE_AREAS, type SafeArea, USUAL_SAFE_AREA } from "~/core/composition/layers/safe-area";
import { isSame } from "~/core/basics/structure";
import { useDesk } from "../../hooks/use-desk";
import { layersTexts } from "~/texts/layers";

const t = layersTexts.safeAreaControls;

const ITEMS = SAFE_AREAS.map(({ name }) => ({ value: name, text: name }));
const SIDES: readonly { side: keyof SafeArea; label: string }[] = [
  { side: "top", label: t.top },
  { side: "foot", label: t.bottom },
  { side: "left", label: t.left },
  { side: "right", label: t.right },
];
const MOST_PERCENT = 45;

/** Margins covered by a platform's interface: layers stay inside them, and the result shows their outline. */
export function SafeAreaControls() {
  const { version, versionCommands } = useDesk("version", "versionCommands");
  const area = version.safeArea ?? USUAL_SAFE_AREA;
  const put = (safeArea: SafeArea) => versionCommands.change(version.id, { safeArea });
  const known = SAFE_AREAS.find((one) => isSame(one.area, area));
  return (
    <section aria-label={t.safeArea} className="flex flex-col gap-2 border-t border-line pt-3">
      <div className="flex items-center justify-between gap-2">
        <span className="text-xs text-soft">{t.safeArea}</span>
        <SelectMenu
          label={t.safeArea}
          placeholder={t.yourOwn}
          items={ITEMS}
          value={known?.name}
          onChange={(name) => put(SAFE_AREAS.find((one) => one.name === name)!.area)}
        />
      </div>
      <div className="grid grid-cols-2 gap-2">
        {SIDES.map(({ side, label }) => (
          <NumberField
            key={side}
            label={label}
            unit="%"
            value={100 * area[side]}
            onCommit={(percent) => put({ ...area, [side]: clamped(percent, 0, MOST_PERCENT) / 100 })}
          />
        ))}
      </div>
    </section>
  );
}
