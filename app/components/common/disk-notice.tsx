import { HardDrive } from "lucide-react";

/** A line across the top of every page while there is next to no space left. */
export function DiskNotice({ message }: { message: string | null }) {
  if (!message) return null;
  return (
    <p role="alert" className="flex items-center justify-center gap-2 bg-warn px-4 py-1.5 text-sm text-ground">
      <HardDrive className="size-4 shrink-0" aria-hidden />
      {message}
    </p>
  );
}
