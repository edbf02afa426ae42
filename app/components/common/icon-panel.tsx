import type { LucideIcon } from "lucide-react";
import { Popover } from "radix-ui";
import type { ReactNode } from "react";
import { IconButton } from "./button";
import { SidePanel } from "./side-panel";

interface IconPanelProps {
  /** Title of the button, and of the panel it opens. */
  title: string;
  Icon: LucideIcon;
  /** Width of the panel, as a class. */
  width: string;
  /** Rendered only while the panel is open. */
  children: ReactNode;
}

/** A button with an icon that opens a panel over the desk. */
export const IconPanel = ({ title, Icon, width, children }: IconPanelProps) => (
  <Popover.Root>
    <Popover.Trigger asChild>
      <IconButton label={title}>
        <Icon className="size-4" aria-hidden />
      </IconButton>
    </Popover.Trigger>
    <SidePanel title={title} width={width}>
      {children}
    </SidePanel>
  </Popover.Root>
);
