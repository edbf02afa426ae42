import { useState } from "react";
import { NumberField } from "~/components/common/number-field";
import { type SelectItem, SelectMenu } from "~/components/common/select-menu";
import { LengthLimit } from "~/core/version/trim";
import { dialogsTexts } from "~/texts/dialogs";

const t = dialogsTexts.limitField;

const USUAL_LIMITS: SelectItem[] = [
  { value: "none", text: t.noLimit },
  { value: "15", text: "15 seconds" },
  { value: "30", text: "30 seconds" },
  { value: "60", text: "60 seconds" },
  { value: "90", text: "90 seconds" },
  { value: "180", text: "3 minutes" },
  { value: "other", text: t.anotherLength },
];

interface LimitFieldProps {
  limitSeconds: number | null;
  onChange: (limitSeconds: number | null) => void;
}

/** Length limit of a version: a usual one, or any that is typed. */
export function LimitField({ limitSeconds, onChange }: LimitFieldProps) {
  const stored = limitSeconds === null ? "none" : String(limitSeconds);
  const isUsual = USUAL_LIMITS.some(({ value }) => value === stored);
  const [types, setTypes] = useState(!isUsual);
  const select = (value: string) => {
    setTypes(value === "other");
    if (value !== "other") onChange(value === "none" ? null : Number(value));
  };
  const type = (seconds: number) => {
    if (LengthLimit.safeParse(seconds).success) onChange(seconds);
  };
  return (
    <div className="flex flex-col gap-2">
      <div className="flex items-center justify-between gap-2">
        <span className="text-xs text-soft">{t.lengthLimit}</span>
        <SelectMenu
          label={t.lengthLimit}
          placeholder=""
          items={USUAL_LIMITS}
          value={types || !isUsual ? "other" : stored}
          onChange={select}
        />
      </div>
      {(types || !isUsual) && (
        <NumberField label={t.atMost} unit={t.seconds} value={limitSeconds ?? 60} onCommit={type} />
      )}
    </div>
  );
}
