import { type KeyboardEvent, type PointerEvent, useId, useRef, useState } from "react";
import { valueOf } from "~/core/numbers/arithmetic";
import { Hint } from "./button";
import { commonTexts } from "~/texts/common";

const t = commonTexts.numberField;

interface NumberFieldProps {
  label: string;
  unit: string;
  /** What the number is for, where the label does not say it all. */
  hint?: string;
  value: number;
  disabled?: boolean;
  /** Decimal places shown. */
  digits?: number;
  /** Whether it may be negative: a leading minus is then a sign, and not a subtraction from the present value. */
  canBeNegative?: boolean;
  /** Change per press of an arrow key, or per two pixels of a drag along the label. */
  step?: number;
  /** Value that a double click on the label restores; left out where there is none. */
  rest?: number;
  /** Previews the value while the label is dragged; null when the drag is given up. */
  onPreview?: (value: number | null) => void;
  onCommit: (value: number) => void;
}

/** Factor by which Shift speeds a drag up, and Alt slows it down. */
const QUICK = 10;
const PIXELS_A_STEP = 2;

const paceOf = ({ shiftKey, altKey }: { shiftKey: boolean; altKey: boolean }): number =>
  shiftKey ? QUICK : altKey ? 1 / QUICK : 1;

/**
 * A number that takes effect on Enter or when the field is left, not with every digit. Sums can be typed; the arrow keys
 * and a drag along the label change it step by step.
 */
export function NumberField(props: NumberFieldProps) {
  const { label, unit, hint, value, disabled, digits = 1, canBeNegative = false, step = 1, rest, onCommit } = props;
  const id = useId();
  const [typed, setTyped] = useState<string | null>(null);
  const shown = Number(value.toFixed(digits));
  const number = typed === null ? shown : valueOf(typed, shown, canBeNegative);
  const take = (next: number) => {
    const rounded = Number(next.toFixed(digits));
    if (rounded !== shown) onCommit(rounded);
  };
  const commit = () => {
    if (typed !== null && number !== null) take(number);
    setTyped(null);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === "Enter") {
      // In a form, Enter confirms the number and does not submit the form yet.
      event.preventDefault();
      commit();
    }
    if (event.key === "Escape") setTyped(null);
    const direction = { ArrowUp: 1, ArrowDown: -1 }[event.key];
    if (!direction) return;
    event.preventDefault();
    setTyped(null);
    take((number ?? shown) + direction * step * paceOf(event));
  };
  const input = (
    <input
      id={id}
      inputMode="decimal"
      disabled={disabled}
      aria-invalid={number === null}
      value={typed ?? String(shown)}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={commit}
      onKeyDown={onKeyDown}
      className="w-full rounded-md border border-line bg-raised px-2 py-1 text-sm disabled:opacity-50 aria-invalid:border-warn"
    />
  );
  return (
    <div>
      <label
        htmlFor={id}
        title={rest === undefined ? t.dragToChange : t.dragToChangeDoubleClick(rest)}
        onDoubleClick={() => rest !== undefined && !disabled && take(rest)}
        className="block w-fit cursor-ew-resize touch-none text-xs text-soft select-none"
        {...useDrag({ ...props, step, digits }, disabled === true)}
      >
        {label} ({unit})
      </label>
      {hint ? <Hint text={hint}>{input}</Hint> : input}
    </div>
  );
}

/** A drag along the label: previewed where possible, and committed when it is let go. */
function useDrag(
  { value, step, digits, onPreview, onCommit }: NumberFieldProps & { step: number; digits: number },
  disabled: boolean,
) {
  const grip = useRef<{ x: number; value: number } | null>(null);
  if (disabled) return {};
  const reached = (event: PointerEvent): number => {
    const { x, value: from } = grip.current!;
    return Number((from + ((event.clientX - x) / PIXELS_A_STEP) * step * paceOf(event)).toFixed(digits));
  };
  const giveUp = () => {
    grip.current = null;
    onPreview?.(null);
  };
  return {
    onPointerDown: (event: PointerEvent) => {
      event.currentTarget.setPointerCapture(event.pointerId);
      grip.current = { x: event.clientX, value };
    },
    onPointerMove: (event: PointerEvent) => {
      if (grip.current && event.clientX !== grip.current.x) onPreview?.(reached(event));
    },
    onPointerUp: (event: PointerEvent) => {
      if (!grip.current) return;
      const [to, from] = [reached(event), grip.current.value];
      giveUp();
      if (to !== Number(from.toFixed(digits))) onCommit(to);
    },
    onPointerCancel: giveUp,
  };
}
