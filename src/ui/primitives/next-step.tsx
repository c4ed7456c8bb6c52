"use client";
import clsx from "clsx";
import { type ReactNode, useEffect, useRef } from "react";

type Props = {
  /** Whether it is what comes next now. */
  isNext?: boolean;
  className?: string;
  children: ReactNode;
};

/**
 * What comes next on a page. The keyboard begins before it, so that one Tab reaches its first control; Enter alone does nothing yet. A
 * control that is in use keeps the focus.
 */
export function NextStep({ isNext = true, className, children }: Props) {
  const place = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (isNext && isFree()) place.current?.focus({ preventScroll: true });
  }, [isNext]);
  return (
    // biome-ignore lint/a11y/useSemanticElements: it groups buttons and links, not fields of a form
    <div ref={place} role="group" aria-label="Next step" tabIndex={-1} className={clsx("outline-none", className)}>
      {children}
    </div>
  );
}

/** Nothing has the focus: the page is new, or what had it is gone or cannot be used any more. */
function isFree(): boolean {
  const { activeElement } = document;
  return activeElement === null || activeElement === document.body || activeElement.matches(":disabled");
}
