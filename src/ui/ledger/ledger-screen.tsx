import clsx from "clsx";
import type { LedgerView } from "../../server/ledger/ledger-view";
import { FigureView } from "../drawing/figure-view";
import { buttonClass } from "../primitives/button";
import { Folded } from "../primitives/folded";
import { HeadRow } from "../primitives/head-row";
import { Link } from "../primitives/link";
import { TopBar } from "../shell/top-bar";
import { LedgerLine } from "./ledger-line";
import { LoadLedger } from "./load-ledger";

/** Every setting over time, newest first: by machine and setting. */
export function LedgerScreen({ view, now }: { view: LedgerView; now: number }) {
  const { chosen } = view;
  const chosenSetting = view.settings.find((s) => s.key === chosen.setting);
  const to = (change: Partial<LedgerView["chosen"]>) => hrefOf({ ...chosen, ...change });
  return (
    <>
      <TopBar crumbs={[{ label: "Bench", href: "/" }, { label: "Ledger" }]} />
      <main className="mx-auto max-w-[1680px] px-6 py-5 max-sm:px-4">
        <div className="mb-3 flex flex-wrap items-baseline gap-x-6 gap-y-2">
          <h1 className="text-2xl font-bold">Ledger</h1>
          <nav aria-label="Machine" className={FILTERS}>
            <Filter href={to({ machine: null })} label="All machines" current={chosen.machine === null} />
            {view.machines.map((m) => (
              <Filter key={m.slug} href={to({ machine: m.slug })} label={m.name} current={chosen.machine === m.slug} />
            ))}
          </nav>
          {view.settings.length > 1 && (
            <nav aria-label="Setting">
              <Folded title={`Setting: ${chosenSetting?.label ?? "all settings"}`} onPhone>
                <div className={FILTERS}>
                  <Filter href={to({ setting: null })} label="All settings" current={chosen.setting === null} />
                  {view.settings.map((s) => (
                    <Filter
                      key={s.key}
                      href={to({ setting: s.key })}
                      label={s.label}
                      current={chosen.setting === s.key}
                    />
                  ))}
                </div>
              </Folded>
            </nav>
          )}
          <Link
            className={buttonClass("small", "no-print ml-auto")}
            href={`/ledger/compare${chosen.machine ? `?machine=${chosen.machine}` : ""}`}
          >
            Compare two days
          </Link>
        </div>
        {view.figures.length > 0 && (
          <div className={clsx("mb-4 grid gap-4", view.figures.length > 1 && "lg:grid-cols-2")}>
            {view.figures.map((figure) => (
              <section key={figure.id} className="card p-4">
                <FigureView figure={figure} />
              </section>
            ))}
          </div>
        )}
        {view.rows.length === 0 ? (
          <p className="text-ink2">
            Nothing is written down yet. The first trial or the first visit to a machine writes here.
          </p>
        ) : (
          <div className="card relative overflow-x-auto px-5 py-2">
            <table className="stacked-table w-full">
              <HeadRow
                cells={["When", "Machine", "Setting", "Held by", "Value", "Origin", ""].map((label) => ({
                  label,
                  className: "pr-4 whitespace-nowrap",
                }))}
              />
              <tbody>
                {view.rows.map((row) => (
                  <LedgerLine key={row.id} row={row} now={now} />
                ))}
              </tbody>
            </table>
          </div>
        )}
        {view.more > 0 && (
          <p className="mt-3">
            <Link className={buttonClass("small")} href={hrefOf(chosen, true)}>
              Show the {view.more} older ones too
            </Link>
          </p>
        )}
        {chosen.machine && <LoadLedger machine={chosen.machine} />}
      </main>
    </>
  );
}

function hrefOf({ machine, setting }: LedgerView["chosen"], all = false): string {
  const asked = new URLSearchParams({
    ...(machine ? { machine } : {}),
    ...(setting ? { setting } : {}),
    ...(all ? { all: "" } : {}),
  });
  return asked.size > 0 ? `/ledger?${asked}` : "/ledger";
}

/** On a phone the lines of links are as far apart as a finger is wide. */
const FILTERS = "flex flex-wrap gap-x-4 gap-y-4 max-sm:gap-y-6";

function Filter({ href, label, current }: { href: string; label: string; current: boolean }) {
  return (
    <Link href={href} aria-current={current ? "page" : undefined} className="touch-link">
      <span
        className={clsx(
          "border-b-[3px] pb-0.5",
          current ? "border-ember font-semibold" : "border-transparent text-ink2 hover:border-line",
        )}
      >
        {label}
      </span>
    </Link>
  );
}
