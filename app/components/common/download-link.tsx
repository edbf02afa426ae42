import { Download } from "lucide-react";
import type { ReactNode } from "react";

/** A link that looks like a button and saves its target. */
export function DownloadLink({ href, children }: { href: string; children: ReactNode }) {
  return (
    <a
      href={href}
      download
      className="inline-flex items-center gap-1.5 rounded-md border border-line bg-raised px-3 py-1.5 text-sm font-medium hover:border-soft"
    >
      <Download className="size-4" aria-hidden />
      {children}
    </a>
  );
}
