import { Progress } from "radix-ui";

/** How far something is, with what is being done and how long it may still take. */
export function ProgressBar({ label, share, left }: { label: string; share: number; left?: string }) {
  const percent = Math.round(share * 100);
  return (
    <div>
      <div className="flex justify-between gap-3 text-xs text-soft">
        <span className="truncate">{label}</span>
        <span className="shrink-0">
          {percent} %{left && ` · ${left}`}
        </span>
      </div>
      <Progress.Root value={percent} aria-label={label} className="mt-1 h-1.5 overflow-hidden rounded-full bg-well">
        <Progress.Indicator
          className="h-full rounded-full bg-accent transition-[width]"
          style={{ width: `${percent}%` }}
        />
      </Progress.Root>
    </div>
  );
}

/** "about 2 min left", from when something began and how much of it is done; nothing while it is too early to say. */
export function timeLeft(startedAt: number | null, share: number, now = Date.now()): string | undefined {
  if (!startedAt || share < 0.03 || share >= 1) return undefined;
  const seconds = ((now - startedAt) / 1000) * ((1 - share) / share);
  return seconds < 90
    ? `about ${Math.max(1, Math.round(seconds))} s left`
    : `about ${Math.round(seconds / 60)} min left`;
}
