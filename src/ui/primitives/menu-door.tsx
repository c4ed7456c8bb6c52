"use client";
import clsx from "clsx";
import { Ellipsis } from "lucide-react";
import { type ButtonHTMLAttributes, lazy, Suspense, useState } from "react";
import type { MenuItem } from "./menu";

// Seldom opened: the page comes without it.
const Menu = lazy(async () => ({ default: (await import("./menu")).Menu }));

type Props = {
  /** A whole phrase, for a person who hears the page. */
  label: string;
  items: readonly MenuItem[];
  className?: string;
};

/** Three dots that open a menu. */
export function MenuDoor({ label, items, className }: Props) {
  const [isAsked, ask] = useState(false);
  const button = <Dots aria-label={label} className={className} />;
  const closed = <Dots aria-label={label} aria-haspopup="menu" className={className} onClick={() => ask(true)} />;
  if (!isAsked) return closed;
  return (
    <Suspense fallback={closed}>
      <Menu button={button} items={items} />
    </Suspense>
  );
}

function Dots({ className, ...rest }: ButtonHTMLAttributes<HTMLButtonElement>) {
  return (
    <button
      type="button"
      className={clsx(
        "flex size-7 items-center justify-center rounded-md text-ink2 hover:bg-paper hover:text-ink max-sm:size-11",
        className,
      )}
      {...rest}
    >
      <Ellipsis size={18} aria-hidden="true" />
    </button>
  );
}
