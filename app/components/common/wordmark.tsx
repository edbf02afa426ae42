import { Link } from "react-router";
import { commonTexts } from "~/texts/common";

/** The product's name and mark: an upright window in a wide picture. */
export function Wordmark() {
  return (
    <Link to="/" className="flex items-center gap-2.5 rounded-sm font-display text-lg font-bold tracking-tight">
      <svg viewBox="0 0 32 24" className="h-5 w-7" aria-hidden>
        <rect x="0" y="4" width="32" height="16" rx="2" className="fill-soft/45" />
        <rect x="11" y="0" width="9" height="24" rx="2" className="fill-accent" />
      </svg>
      {commonTexts.wordmark.name}
    </Link>
  );
}
