import { Button } from "~/components/common/button";
import { Fold } from "~/components/common/fold";
import { NumberField } from "~/components/common/number-field";
import { type CheckLimits, USUAL_LIMITS } from "~/core/checks/check-settings";
import { clamped } from "~/core/numbers/clamped";
import { isSame } from "~/core/basics/structure";
import { useDesk } from "../../hooks/use-desk";
import { checksTexts } from "~/texts/checks";

const t = checksTexts.checkLimits;

const SECONDS = ["cut", "covered", "lost", "empty", "edge", "looksOut", "frozen", "black"] as const;
/** Beyond this, nothing would be flagged. */
const MOST_SECONDS = 600;

/** The limits of this version's checks. */
export function CheckLimitFields() {
  const { version, checks } = useDesk("version", "checks");
  const limits = version.checkLimits;
  const share = (name: "jolt" | "movingAtCut", unit: string, least: number, most: number) => (
    <NumberField
      label={t[name]}
      unit={unit}
      digits={0}
      value={100 * limits[name]}
      rest={Math.round(100 * USUAL_LIMITS[name])}
      onCommit={(value) =>
        checks.setLimits({ [name]: clamped(value / 100, least, most) } satisfies Partial<CheckLimits>)
      }
    />
  );
  return (
    <Fold title={t.limits}>
      <p className="text-xs text-soft">{t.passedOver}</p>
      <div className="grid grid-cols-2 gap-x-4 gap-y-2">
        {SECONDS.map((name) => (
          <NumberField
            key={name}
            label={t[name]}
            unit={t.seconds}
            step={0.1}
            value={limits[name]}
            rest={USUAL_LIMITS[name]}
            onCommit={(value) => checks.setLimits({ [name]: clamped(value, 0, MOST_SECONDS) })}
          />
        ))}
        {share("jolt", t.percent, 0.05, 1)}
        {share("movingAtCut", t.widths, 0, 5)}
      </div>
      <Button disabled={isSame(limits, USUAL_LIMITS)} onClick={() => checks.setLimits(USUAL_LIMITS)}>
        {t.usual}
      </Button>
    </Fold>
  );
}
