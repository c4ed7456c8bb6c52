"use client";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { toast } from "sonner";
import { STATE_WORDS } from "../../core/course/state";
import { countText } from "../../core/metrology/count-text";
import { expandedUncertainty } from "../../core/metrology/measured";
import { inUnit, shownLength, shownNumber } from "../../core/metrology/quantity-text";
import type { LengthUnit } from "../../core/metrology/units";
import { importStock } from "../../server/actions/stock-actions";
import type { ResultView, StockRow } from "../../server/stock/stock-view";
import { Ago } from "../primitives/ago";
import { Button, buttonClass } from "../primitives/button";
import { TextField } from "../primitives/fields";
import { FilePick } from "../primitives/file-pick";
import { Link } from "../primitives/link";
import { useAction } from "../primitives/use-action";
import { TopBar } from "../shell/top-bar";
import { useShell } from "../shell/use-shell";
import { DUE, resultName } from "./results-card";
import { StockForm } from "./stock-form";
import { thicknessText } from "./thickness-text";

/** Every stock of the workshop on a card: how thick it is, and what is known of it on which machine. */
export function StockScreen({ rows, now }: { rows: StockRow[]; now: number }) {
  const { unit } = useShell();
  const router = useRouter();
  const [wanted, setWanted] = useState("");
  const [adding, setAdding] = useState(rows.length === 0);
  const found = rows.filter((row) => isFound(row, wanted));
  return (
    <>
      <TopBar crumbs={[{ label: "Bench", href: "/" }, { label: "Stock" }]} />
      <main className="mx-auto grid max-w-[1680px] gap-5 px-6 py-5 max-sm:px-4 lg:grid-cols-[1fr_400px]">
        <section aria-labelledby="stock-title" className="min-w-0">
          <div className="mb-4 flex flex-wrap items-end justify-between gap-3">
            <h1 id="stock-title" className="text-2xl font-bold">
              Stock
            </h1>
            {rows.length > 0 && (
              <div className="flex flex-wrap items-end gap-3">
                <div className="w-64">
                  <TextField label="Search the cards" words value={wanted} onChange={setWanted} />
                </div>
                {rows.some((r) => r.results.some((k) => k.result.kind === "marking")) && (
                  <Link href="/stock/marking" className={buttonClass("plain")}>
                    Marking settings
                  </Link>
                )}
                <Button onClick={() => setAdding(true)}>Make a card</Button>
              </div>
            )}
          </div>
          {rows.length === 0 && (
            <p className="text-ink2">
              No stock has a card yet. Make one for what you cut most: its thickness as it is, its batch, and what is
              measured of it on which machine stay together on it.
            </p>
          )}
          {rows.length > 0 && found.length === 0 && (
            <p className="text-ink2">
              No card says “{wanted}”: not its name, its note, a batch, or a machine that it was cut on.
            </p>
          )}
          <ul className="grid gap-3 xl:grid-cols-2">
            {found.map((row) => (
              <Card key={row.slug} row={row} unit={unit} now={now} />
            ))}
          </ul>
        </section>
        <div className="grid content-start gap-4">
          {adding && (
            <StockForm
              stock={null}
              onDone={(slug) => {
                setAdding(false);
                if (slug) router.push(`/stock/${slug}`);
              }}
            />
          )}
          <Files isEmpty={rows.length === 0} />
        </div>
      </main>
    </>
  );
}

function isFound({ spec, batch, results }: StockRow, wanted: string): boolean {
  const words = [spec.name, spec.note, batch, ...results.flatMap((r) => [r.batch, r.machine ?? ""])];
  const text = words.join(" ").toLowerCase();
  return wanted
    .toLowerCase()
    .split(/\s+/)
    .every((word) => text.includes(word));
}

function Card({ row, unit, now }: { row: StockRow; unit: LengthUnit; now: number }) {
  const { spec, batch, begunAt, thickness, results } = row;
  return (
    <li className="card p-4">
      <h2 className="text-[17px] font-bold">
        <Link href={`/stock/${row.slug}`} className="underline decoration-line underline-offset-4 hover:decoration-ink">
          {spec.name}
        </Link>
        {row.archived && <span className="ml-2 text-[14px] font-normal text-ink2">put away</span>}
      </h2>
      <p className="text-[14px] text-ink2">
        batch {batch}
        {begunAt !== null && (
          <>
            , begun <Ago at={begunAt} now={now} />
          </>
        )}
      </p>
      <p className="mt-1">
        {thickness ? (
          <span className="num">{thicknessText(thickness, unit)}</span>
        ) : (
          <span className="text-ochre">{shownLength(spec.nominalMm, unit, 2)} by name, not measured</span>
        )}
      </p>
      <ul className="mt-1 grid gap-0.5">
        {newestOf(results).map((r) => (
          <li key={r.id} className="text-[14px]">
            {resultLine(r, unit)}
            {r.standing && DUE.includes(r.standing.state) && (
              <span className="text-ochre"> · {STATE_WORDS[r.standing.state]}</span>
            )}
          </li>
        ))}
      </ul>
      {results.length === 0 && <p className="mt-1 text-[14px] text-ink2">Nothing is measured of it yet.</p>}
    </li>
  );
}

/** Of each machine the newest of a kind. */
function newestOf(results: readonly ResultView[]): ResultView[] {
  const named = (r: ResultView) => `${r.machine} ${resultName(r.result)}`;
  return results.filter((r, i) => results.findIndex((other) => named(other) === named(r)) === i);
}

/** `Bracken: kerf 0.182 ± 0.006 mm, 0.091 a side`. */
export function resultLine({ machine, result }: ResultView, unit: LengthUnit): string {
  if (result.kind === "marking")
    return `${machine ?? "Elsewhere"}: ${resultName(result).toLowerCase()}, ${markingText(result)}`;
  const kerf = result.values.find((v) => v.id === "kerf")?.quantity;
  const offset = result.values.find((v) => v.id === "offset")?.quantity;
  if (!kerf || !offset) return machine ?? "";
  const uncertainty = shownLength(expandedUncertainty(kerf), unit, 3);
  return `${machine ?? "Elsewhere"}: kerf ${shownNumber(kerf.value, unit, 3)} ± ${uncertainty}, ${shownNumber(offset.value, unit, 3)} a side`;
}

/** `200 mm/s, 40 %`: the settings that were found. */
function markingText({ values }: ResultView["result"]): string {
  return values
    .filter((v) => v.id === "speedMmPerS" || v.id === "powerPct")
    .map(({ quantity, unit }) => inUnit(quantity.value, unit, 3))
    .join(", ");
}

function Files({ isEmpty }: { isEmpty: boolean }) {
  const router = useRouter();
  const { busy, fault, run } = useAction();
  const load = (text: string) =>
    run(
      () => importStock({ text }),
      ({ cards, batches, readings, results }) => {
        const came = [
          countText(cards, "card"),
          countText(batches, "batch", "batches"),
          countText(readings, "reading"),
          countText(results, "result"),
        ];
        toast(`New: ${came.join(", ")}. The rest was there.`);
        router.refresh();
      },
    );
  return (
    <section className="card grid gap-3 p-5" aria-label="Files">
      <h2 className="font-semibold">All cards as files</h2>
      {!isEmpty && (
        <p className="flex gap-2">
          <a className={buttonClass("small")} href="/api/stock/stock.json" download>
            Export (JSON)
          </a>
          <a className={buttonClass("small")} href="/api/stock/stock.csv" download>
            Table (CSV)
          </a>
        </p>
      )}
      <FilePick
        label="Import cards (JSON or CSV):"
        accept=".json,.csv,application/json,text/csv"
        disabled={busy}
        fault={fault.message}
        onText={load}
      />
      <p className="text-[14px] text-ink2">What is on a card here already stays as it is.</p>
    </section>
  );
}
