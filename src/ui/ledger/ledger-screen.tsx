import clsx from "clsx";
import Link from "next/link";
import type { LedgerRow, LedgerView } from "../../server/ledger-view";
import { Ago } from "../primitives/ago";
import { HeadRow } from "../primitives/head-row";
import { TopBar } from "../primitives/top-bar";
import { heldText } from "../trial/held-text";

/** Every setting over time, newest first. */
export function LedgerScreen({ view, now }: { view: LedgerView; now: number }) {
  return (
    <>
      <TopBar crumbs={[{ label: "Bench", href: "/" }, { label: "Ledger" }]} />
      <main className="mx-auto max-w-[1680px] px-6 py-5 max-sm:px-4">
        <div className="mb-4 flex flex-wrap items-baseline gap-x-6 gap-y-2">
          <h1 className="text-2xl font-bold">Ledger</h1>
          <nav aria-label="Machine" className="flex flex-wrap gap-4">
            <Filter href="/ledger" label="All machines" current={view.chosen === null} />
            {view.machines.map((m) => (
              <Filter key={m.slug} href={`/ledger?machine=${m.slug}`} label={m.name} current={view.chosen === m.slug} />
            ))}
          </nav>
        </div>
        {view.rows.length === 0 ? (
          <p className="text-ink2">
            Nothing is written down yet. The first trial or the first visit to a machine writes here.
          </p>
        ) : (
          <div className="card overflow-x-auto px-5 py-2">
            <table className="w-full">
              <HeadRow
                cells={["When", "Machine", "Setting", "Held by", "Value", "Origin"].map((label) => ({
                  label,
                  className: "pr-4 whitespace-nowrap",
                }))}
              />
              <tbody>
                {view.rows.map((row) => (
                  <Row key={row.id} row={row} now={now} />
                ))}
              </tbody>
            </table>
          </div>
        )}
      </main>
    </>
  );
}

function Filter({ href, label, current }: { href: string; label: string; current: boolean }) {
  return (
    <Link
      href={href}
      aria-current={current ? "page" : undefined}
      className={clsx(
        "border-b-[3px] pb-0.5",
        current ? "border-ember font-semibold" : "border-transparent text-ink2 hover:border-line",
      )}
    >
      {label}
    </Link>
  );
}

/** A value that has a number in it, and so a unit. */
function isFilled(value: LedgerRow["value"]): boolean {
  return value !== null && (value.shape !== "table" || value.rows.length > 0);
}

function Row({ row, now }: { row: LedgerRow; now: number }) {
  return (
    <tr className={clsx("border-t border-hair align-top", !row.current && "text-ink2")}>
      <td className="py-2 pr-4 whitespace-nowrap">
        <Ago at={row.at} now={now} />
      </td>
      <td className="py-2 pr-4">{row.machine}</td>
      <td className="py-2 pr-4 whitespace-nowrap first-letter:uppercase">{row.setting}</td>
      <td className="py-2 pr-4">{row.holderName ?? "–"}</td>
      <td className={clsx("num py-2 pr-4 text-[14px]", row.undoneAt !== null && "line-through")}>
        {heldText(row.value)}
        {isFilled(row.value) && ` ${row.unit}`}
        {row.u !== null && row.undoneAt === null && <span className="text-ink2"> (u ≤ {row.u.toFixed(4)})</span>}
      </td>
      <td className="py-2 text-[14px]">
        {row.current && <b className="font-semibold text-verdigris">in force · </b>}
        {row.undoneAt !== null && <b className="font-semibold">taken back · </b>}
        {row.trialId !== null ? (
          <Link
            href={`/trial/${row.trialId}`}
            className="underline decoration-line underline-offset-4 hover:decoration-ink"
          >
            {row.origin === "found" ? "found in trial" : "trial"} {row.trialCode}
          </Link>
        ) : (
          row.origin
        )}
        {row.readBack ? ", read back" : ""}
        {row.note && <span className="block text-ink2">{row.note}</span>}
      </td>
    </tr>
  );
}
