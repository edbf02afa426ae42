import { type KeyboardEvent, type PointerEvent, useRef } from "react";
import { arrowDirection } from "~/components/common/arrow-step";
import { clamped } from "~/core/numbers/clamped";
import { compareTexts } from "~/texts/compare";

const t = compareTexts.splitLine;

const STEP = 0.05;

interface SplitLineProps {
  /** Share of the width left of it, 0 to 1. */
  share: number;
  /** Width of the picture that it splits, on the screen. */
  width: number;
  onChange: (share: number) => void;
}

/** The line between before and after, dragged or moved with the arrow keys. */
export function SplitLine({ share, width, onChange }: SplitLineProps) {
  const grip = useRef<{ x: number; share: number } | null>(null);
  const move = ({ clientX }: PointerEvent) => {
    if (grip.current) onChange(clamped(grip.current.share + (clientX - grip.current.x) / width, 0, 1));
  };
  const nudge = (event: KeyboardEvent) => {
    const by = arrowDirection(event.key);
    if (!by) return;
    event.preventDefault();
    onChange(clamped(share + STEP * by[0], 0, 1));
  };
  return (
    <div
      role="separator"
      tabIndex={0}
      aria-orientation="vertical"
      aria-label={t.lineBetweenBeforeAndNow}
      aria-roledescription={t.movableLine}
      aria-valuenow={Math.round(100 * share)}
      aria-valuemin={0}
      aria-valuemax={100}
      className="absolute inset-y-0 -ml-2 w-4 cursor-ew-resize touch-none outline-none before:absolute before:inset-y-0 before:left-1/2 before:w-0.5 before:-translate-x-1/2 before:bg-accent focus-visible:before:w-1"
      style={{ left: `${100 * share}%` }}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        grip.current = { x: event.clientX, share };
      }}
      onPointerMove={move}
      onPointerUp={() => (grip.current = null)}
      onPointerCancel={() => (grip.current = null)}
      onKeyDown={nudge}
    />
  );
}
