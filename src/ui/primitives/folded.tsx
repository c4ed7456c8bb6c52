"use client";
import clsx from "clsx";
import { ChevronRight } from "lucide-react";
import { Collapsible } from "radix-ui";
import type { ReactNode } from "react";

type Props = {
  /** What is inside. */
  title: ReactNode;
  /** Open from the start. */
  isOpen?: boolean;
  onOpen?: (isOpen: boolean) => void;
  /** Folded on a phone only. */
  onPhone?: boolean;
  className?: string;
  titleClass?: string;
  children: ReactNode;
};

/** A title that opens what is under it. */
export function Folded({ title, isOpen = false, onOpen, onPhone = false, className, titleClass, children }: Props) {
  return (
    <Collapsible.Root defaultOpen={isOpen} onOpenChange={onOpen} className={className}>
      <Collapsible.Trigger
        className={clsx(
          "group/fold flex min-h-8 items-center gap-1.5 text-left max-sm:min-h-11",
          onPhone && "sm:hidden",
          titleClass ?? "text-[14px] text-ink2 hover:text-ink",
        )}
      >
        <ChevronRight
          size={16}
          aria-hidden="true"
          className="shrink-0 transition-transform group-data-[state=open]/fold:rotate-90"
        />
        <span>{title}</span>
      </Collapsible.Trigger>
      <Collapsible.Content
        forceMount={onPhone ? true : undefined}
        className={onPhone ? "max-sm:data-[state=closed]:hidden" : undefined}
      >
        {children}
      </Collapsible.Content>
    </Collapsible.Root>
  );
}
