"use client";
import clsx from "clsx";
import { Dialog } from "radix-ui";
import type { ReactNode, RefObject } from "react";

type Props = {
  title: string;
  /** Only heard where what is in it says enough. */
  titleHidden?: boolean;
  onClose: () => void;
  /** The field that takes what is typed from the first moment on, behind what stands in it already; left out: what comes first in it. */
  typedInto?: RefObject<HTMLInputElement | null>;
  className?: string;
  children: ReactNode;
};

/** A sheet over the page, closed by Esc or a press beside it. */
export function SheetDialog({ title, titleHidden = false, onClose, typedInto, className, children }: Props) {
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-20 bg-black/40" />
        <Dialog.Content
          aria-describedby={undefined}
          onOpenAutoFocus={(e) => {
            const field = typedInto?.current;
            if (!field) return;
            // What stands there would be selected otherwise, and the next letter would take its place.
            e.preventDefault();
            field.focus();
            field.setSelectionRange(field.value.length, field.value.length);
          }}
          className={clsx("card fixed top-[12vh] left-1/2 z-30 -translate-x-1/2", className)}
        >
          <Dialog.Title className={titleHidden ? "sr-only" : "text-[19px] font-bold"}>{title}</Dialog.Title>
          {children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
