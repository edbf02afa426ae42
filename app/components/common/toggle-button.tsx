import type { LucideIcon } from "lucide-react";
import { IconButton } from "./button";

interface ToggleButtonProps {
  label: string;
  shortcut: string;
  Icon: LucideIcon;
  isOn: boolean;
  disabled?: boolean;
  onChange: (isOn: boolean) => void;
}

/** A button with an icon that stays pressed. */
export const ToggleButton = ({ label, shortcut, Icon, isOn, disabled, onChange }: ToggleButtonProps) => (
  <IconButton
    label={label}
    shortcut={shortcut}
    aria-pressed={isOn}
    disabled={disabled}
    onClick={() => onChange(!isOn)}
    className="aria-pressed:bg-accent-wash aria-pressed:text-ink"
  >
    <Icon className="size-4" aria-hidden />
  </IconButton>
);
