import clsx from "clsx";
import Link from "next/link";

export type Crumb = { label: string; href?: string };

/** Name, where you are, and the places to go. */
export function TopBar({ crumbs }: { crumbs: Crumb[] }) {
  return (
    <header className="border-b border-hair">
      <div className="mx-auto flex min-h-12 max-w-[1680px] flex-wrap items-center gap-x-5 gap-y-1 px-6 max-sm:px-4">
        <Link
          href="/"
          className={clsx(
            "flex items-center gap-2 text-[17px] font-bold no-underline",
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
                  <Link href={crumb.href} className="hover:text-ink hover:underline">
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
        <nav aria-label="Places" className="ml-auto flex items-center gap-5 text-ink2 max-sm:hidden">
          {PLACES.map((place) => (
            <Link key={place.href} href={place.href} className="hover:text-ink hover:underline">
              {place.label}
            </Link>
          ))}
        </nav>
      </div>
    </header>
  );
}

const PLACES = [
  { label: "Bench", href: "/" },
  { label: "Ledger", href: "/ledger" },
  { label: "Gauges", href: "/gauges" },
  { label: "Practice machines", href: "/practice" },
];

function Mark() {
  return (
    <svg width="20" height="20" viewBox="0 0 20 20" aria-hidden="true" strokeLinecap="round" strokeWidth="2">
      <path d="M2 5h12M2 10h9M2 15h12" stroke="currentColor" />
      <path d="M17 2v16" stroke="var(--color-ember)" />
    </svg>
  );
}
