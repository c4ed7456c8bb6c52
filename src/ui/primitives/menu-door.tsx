"use client";
import clsx from "clsx";
import { Ellipsis } from "lucide-react";
import type { ButtonHTMLAttributes } from "react";
import type { MenuItem } from "./menu";
import { useOnDemand } from "./use-on-demand";

const loadMenu = async () => (await import("./menu")).Menu;

type Props = {
  /** A whole phrase, for a person who hears the page. */
  label: string;
  items: readonly MenuItem[];
  className?: string;
};

/** Three dots that open a menu. */
export function MenuDoor({ label, items, className }: Props) {
  const menu = useOnDemand(loadMenu);
  if (menu.part) return <menu.part button={<Dots aria-label={label} className={className} />} items={items} />;
  return (
    <Dots
      aria-label={label}
      aria-haspopup="menu"
      className={className}
      onPointerEnter={menu.prepare}
      onFocus={menu.prepare}
      onClick={menu.ask}
    />
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
