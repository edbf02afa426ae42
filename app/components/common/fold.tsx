import { ChevronRight } from "lucide-react";
import { Collapsible } from "radix-ui";
import type { ReactNode } from "react";

/** Controls that are seldom needed, behind their title. */
export function Fold({ title, children }: { title: string; children: ReactNode }) {
  return (
    <Collapsible.Root className="border-t border-line pt-2">
      <Collapsible.Trigger className="group flex w-full items-center gap-1.5 py-1 text-left text-sm font-medium">
        <ChevronRight className="size-4 text-soft transition-transform group-data-[state=open]:rotate-90" aria-hidden />
        {title}
      </Collapsible.Trigger>
      <Collapsible.Content className="flex flex-col gap-3 pt-2">{children}</Collapsible.Content>
    </Collapsible.Root>
  );
}
