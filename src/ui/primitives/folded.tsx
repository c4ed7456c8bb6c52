"use client";
import clsx from "clsx";
import { ChevronRight } from "lucide-react";
import { Collapsible } from "radix-ui";
import { type ReactNode, useCallback, useEffect, useState } from "react";

type Props = {
  /** What is inside. */
  title: ReactNode;
  /** Open at the start. A change to true opens it later. */
  isOpen?: boolean;
  /** Folded on a phone only. */
  onPhone?: boolean;
  className?: string;
  titleClass?: string;
  /** The title is a heading of the page. */
  isHeading?: boolean;
  onChange?: (isOpen: boolean) => void;
  children: ReactNode;
};

/** A title that opens the content below. The first opening creates the content. Closing only hides it, so that typed text is never lost. */
export function Folded({
  title,
  isOpen = false,
  onPhone = false,
  className,
  titleClass,
  isHeading = false,
  onChange,
  children,
}: Props) {
  const [open, setOpen] = useState(isOpen);
  const [isMade, setMade] = useState(isOpen || onPhone);
  const change = useCallback((next: boolean) => {
    setOpen(next);
    if (next) setMade(true);
  }, []);
  useEffect(() => {
    if (isOpen) change(true);
  }, [isOpen, change]);
  const trigger = (
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
      <span className="min-w-0 flex-1">{title}</span>
    </Collapsible.Trigger>
  );
  return (
    <Collapsible.Root
      open={open}
      onOpenChange={(next) => {
        change(next);
        onChange?.(next);
      }}
      className={className}
    >
      {isHeading ? <h2>{trigger}</h2> : trigger}
      <Collapsible.Content
        forceMount
        className={onPhone ? "max-sm:data-[state=closed]:hidden" : "data-[state=closed]:hidden"}
      >
        {isMade && children}
      </Collapsible.Content>
    </Collapsible.Root>
  );
}
