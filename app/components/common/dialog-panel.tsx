import { clsx } from "clsx";
import { X } from "lucide-react";
import { Dialog } from "radix-ui";
import type { ReactNode } from "react";
import { IconButton } from "./button";
import { commonTexts } from "~/texts/common";

const t = commonTexts.dialogPanel;

interface DialogPanelProps {
  title: string;
  /** Width and layout of its content, as classes. */
  width: string;
  layout?: string;
  children: ReactNode;
}

/**
 * Focuses the panel itself when it opens. Focus on its close button would open that button's hint, and the first Escape
 * would close the hint instead of the panel.
 */
export function focusPanel(event: Event): void {
  event.preventDefault();
  (event.currentTarget as HTMLElement | null)?.focus();
}

/** Lets a message be answered, such as with Undo, without closing the open dialog. */
function keepForToasts(event: CustomEvent<{ originalEvent: Event }>): void {
  const { target } = event.detail.originalEvent;
  if (target instanceof Element && target.closest("[data-sonner-toaster]")) event.preventDefault();
}

/** A dialog over the page: a title, a close button, and content that scrolls. */
export function DialogPanel({ title, width, layout, children }: DialogPanelProps) {
  return (
    <Dialog.Portal>
      <Dialog.Overlay className="fixed inset-0 z-40 bg-black/50" />
      <Dialog.Content
        aria-describedby={undefined}
        onOpenAutoFocus={focusPanel}
        onInteractOutside={keepForToasts}
        className={clsx(
          "fixed top-1/2 left-1/2 z-40 flex max-h-[85vh] -translate-1/2 flex-col rounded-lg border border-line bg-panel shadow-xl outline-none",
          width,
        )}
      >
        <div className="flex items-center justify-between border-b border-line px-6 py-4">
          <Dialog.Title className="font-display text-lg font-semibold">{title}</Dialog.Title>
          <Dialog.Close asChild>
            <IconButton label={t.close} shortcut="Esc">
              <X className="size-4" aria-hidden />
            </IconButton>
          </Dialog.Close>
        </div>
        <div className={clsx("overflow-y-auto px-6 py-4", layout)}>{children}</div>
      </Dialog.Content>
    </Dialog.Portal>
  );
}
