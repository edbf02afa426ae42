import { Progress } from "radix-ui";
import { commonTexts } from "~/texts/common";

const t = commonTexts.progressBar;

/** Progress of a job: what is being done, how far it is, and the time left. */
export function ProgressBar({ label, share, left }: { label: string; share: number; left?: string }) {
  const percent = Math.round(share * 100);
  return (
    <div>
      <p className="text-xs">{label}</p>
      <Progress.Root value={percent} aria-label={label} className="mt-1 h-1.5 overflow-hidden rounded-full bg-well">
        <Progress.Indicator
          className="h-full rounded-full bg-accent transition-[width]"
          style={{ width: `${percent}%` }}
        />
      </Progress.Root>
      <p className="mt-1 text-xs text-soft">
        {percent}%{left && ` · ${left}`}
      </p>
    </div>
  );
}

/** "about 2 min left"; nothing while it is too early to say. */
export function describeLeft(seconds: number | null): string | undefined {
  if (seconds === null) return undefined;
  return seconds < 90 ? t.secondsLeft(Math.max(1, Math.round(seconds))) : t.minutesLeft(Math.round(seconds / 60));
}
