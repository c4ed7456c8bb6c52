"use client";
import clsx from "clsx";
import { Dialog } from "radix-ui";
import type { ReactNode } from "react";

type Props = {
  title: string;
  /** Only heard where what is in it says enough. */
  titleHidden?: boolean;
  onClose: () => void;
  className?: string;
  children: ReactNode;
};

/** A sheet over the page, closed by Esc or a press beside it. */
export function SheetDialog({ title, titleHidden = false, onClose, className, children }: Props) {
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-20 bg-black/40" />
        <Dialog.Content
          aria-describedby={undefined}
          className={clsx("card fixed top-[12vh] left-1/2 z-30 -translate-x-1/2", className)}
        >
          <Dialog.Title className={titleHidden ? "sr-only" : "text-[19px] font-bold"}>{title}</Dialog.Title>
          {children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
