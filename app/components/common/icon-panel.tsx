import type { LucideIcon } from "lucide-react";
import { Popover } from "radix-ui";
import type { ReactNode } from "react";
import { IconButton } from "./button";
import { SidePanel } from "./side-panel";

interface IconPanelProps {
  /** Of the button, and of the panel that it opens. */
  title: string;
  Icon: LucideIcon;
  /** How wide the panel is, as a class. */
  width: string;
  /** Made only while the panel is open. */
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
