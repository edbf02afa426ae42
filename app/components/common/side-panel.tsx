import { X } from "lucide-react";
import { Popover } from "radix-ui";
import type { ReactNode } from "react";
import { IconButton } from "./button";
import { focusPanel } from "./dialog-panel";
import { commonTexts } from "~/texts/common";

const t = commonTexts.sidePanel;

interface SidePanelProps {
  title: string;
  /** Width, as a class. */
  width: string;
  children: ReactNode;
}

/** A panel over the desk that leaves picture and lane in reach; inside a `Popover.Root`. */
export function SidePanel({ title, width, children }: SidePanelProps) {
  return (
    <Popover.Portal>
      <Popover.Content
        side="top"
        align="end"
        sideOffset={8}
        aria-label={title}
        onOpenAutoFocus={focusPanel}
        onInteractOutside={(event) => event.preventDefault()}
        className={`z-30 flex max-h-[70vh] ${width} flex-col gap-4 overflow-y-auto rounded-lg border border-line bg-panel p-4 shadow-xl outline-none`}
      >
        <div className="flex items-center justify-between">
          <h2 className="font-display font-semibold">{title}</h2>
          <Popover.Close asChild>
            <IconButton label={t.close}>
              <X className="size-4" aria-hidden />
            </IconButton>
          </Popover.Close>
        </div>
        {children}
      </Popover.Content>
    </Popover.Portal>
  );
}
