import { HardDrive } from "lucide-react";

/** A line across the top of every page while the disk is nearly full; full-height pages make room for it. */
export function DiskNotice({ message }: { message: string | null }) {
  if (!message) return null;
  return (
    <>
      <style>{":root { --notice-height: 2rem }"}</style>
      <p role="alert" className="flex h-8 items-center justify-center gap-2 bg-warn px-4 text-sm text-ground">
        <HardDrive className="size-4 shrink-0" aria-hidden />
        {message}
      </p>
    </>
  );
}
