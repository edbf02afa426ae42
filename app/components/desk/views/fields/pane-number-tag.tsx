import { clsx } from "clsx";

/** Number of a pane on a picture. */
export const PaneNumberTag = ({ pane, isSelected }: { pane: number; isSelected: boolean }) => (
  <span
    aria-hidden
    className={clsx(
      "absolute top-1 left-1 flex size-5 items-center justify-center rounded-sm text-xs font-bold",
      isSelected ? "bg-accent text-accent-ink" : "bg-black/70 text-white",
    )}
  >
    {pane + 1}
  </span>
);
