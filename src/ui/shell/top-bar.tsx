"use client";
import clsx from "clsx";
import { Moon, Search, Sun } from "lucide-react";
import { nextLengthUnit } from "../../core/trial/decisions";
import { Kbd } from "../primitives/kbd";
import { Link } from "../primitives/link";
import { PLACES } from "../primitives/places";
import { useShell } from "./use-shell";

export type Crumb = { label: string; href?: string };

/** Name, where you are, the places to go, and what this browser prefers. */
export function TopBar({ crumbs }: { crumbs: Crumb[] }) {
  return (
    <header className="border-b border-hair">
      <div className="mx-auto flex min-h-12 max-w-[1680px] flex-wrap items-center gap-x-5 gap-y-1 px-6 py-1 max-sm:px-4">
        <Link
          href="/"
          className={clsx(
            "flex items-center gap-2 text-[17px] font-bold no-underline max-sm:min-h-11",
            crumbs.length > 1 && "max-sm:hidden",
          )}
        >
          <Mark />
          Ustrina
        </Link>
        <nav aria-label="Where you are" className="min-w-0">
          <ol className="flex flex-wrap items-center gap-2 text-ink2">
            {crumbs.map((crumb, i) => (
              <li
                key={crumb.label}
                className={clsx("flex items-center gap-2", i > 0 && i < crumbs.length - 1 && "max-sm:hidden")}
              >
                {i > 0 && <span aria-hidden="true">/</span>}
                {crumb.href ? (
                  <Link href={crumb.href} className="touch-link hover:text-ink hover:underline">
                    {crumb.label}
                  </Link>
                ) : (
                  <span aria-current="page" className={i > 0 ? "font-semibold text-ink" : ""}>
                    {crumb.label}
                  </span>
                )}
              </li>
            ))}
          </ol>
        </nav>
        <nav aria-label="Places" className="ml-auto flex items-center gap-5 text-ink2 max-xl:hidden">
          {PLACES.map((place) => (
            <Link key={place.href} href={place.href} className="hover:text-ink hover:underline">
              {place.label}
            </Link>
          ))}
        </nav>
        <Tools />
      </div>
    </header>
  );
}

const TOOL =
  "flex min-h-9 items-center gap-2 rounded-md border border-border bg-sheet px-2.5 hover:bg-paper max-sm:min-h-11";

function Tools() {
  const { openPalette, openKeys, theme, setTheme, unit, setUnit } = useShell();
  return (
    <div className="flex items-center gap-2 max-xl:ml-auto">
      <button type="button" onClick={openPalette} className={clsx(TOOL, "text-ink2")}>
        <Search size={16} aria-hidden="true" />
        <span className="max-sm:sr-only">Go to…</span>
        <span className="max-lg:hidden">
          <Kbd>Ctrl K</Kbd>
        </span>
      </button>
      <button
        type="button"
        className={clsx(TOOL, "num")}
        title="Unit of lengths on the bench"
        onClick={() => setUnit(nextLengthUnit(unit))}
      >
        {unit}
        <span className="sr-only"> unit of lengths on the bench</span>
      </button>
      <button type="button" className={TOOL} title="Light or dark" onClick={() => setTheme(otherTheme(theme))}>
        <Sun size={16} aria-hidden="true" className="in-dark:hidden" />
        <Moon size={16} aria-hidden="true" className="hidden in-dark:block" />
        <span className="sr-only">Light or dark</span>
      </button>
      <button type="button" className={clsx(TOOL, "max-sm:hidden")} title="Keys of this screen" onClick={openKeys}>
        ?<span className="sr-only"> keys of this screen</span>
      </button>
    </div>
  );
}

/** The one that is not seen now. */
function otherTheme(theme: "system" | "light" | "dark"): "light" | "dark" {
  const isDark = theme === "dark" || (theme === "system" && matchMedia("(prefers-color-scheme: dark)").matches);
  return isDark ? "light" : "dark";
}

function Mark() {
  return (
    <svg width="20" height="20" viewBox="0 0 20 20" aria-hidden="true" strokeLinecap="round" strokeWidth="2">
      <path d="M2 5h12M2 10h9M2 15h12" stroke="currentColor" />
      <path d="M17 2v16" stroke="var(--color-ember)" />
    </svg>
  );
}
