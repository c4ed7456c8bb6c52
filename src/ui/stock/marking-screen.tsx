"use client";
import clsx from "clsx";
import { useMemo, useState } from "react";
import { STATE_WORDS } from "../../core/course/state";
import { type Apart, apart } from "../../core/marking/alike";
import { CELL_SETTING_KEYS, CELL_SETTINGS, settingsAmong, valueText } from "../../core/marking/cell-settings";
import type { ResultView, StockRow } from "../../server/stock/stock-view";
import { Ago } from "../primitives/ago";
import { Button } from "../primitives/button";
import { PickField, TextField } from "../primitives/fields";
import { HeadRow } from "../primitives/head-row";
import { Link } from "../primitives/link";
import { TopBar } from "../shell/top-bar";
import { DUE, resultName } from "./results-card";

type Marked = { stock: Pick<StockRow, "slug" | "spec">; kept: ResultView };

const ANY = "";

/** Marking settings of all stock cards, filtered by stock, machine and purpose, sorted by similarity. */
export function MarkingScreen({ rows, like: first, now }: { rows: StockRow[]; like: number | null; now: number }) {
  const all = useMemo(() => rows.flatMap(markedOf), [rows]);
  const [wanted, setWanted] = useState("");
  const [machine, setMachine] = useState(ANY);
  const [purpose, setPurpose] = useState(ANY);
  const [like, setLike] = useState(first);
  const reference = all.find((m) => m.kept.id === like) ?? null;
  const found = all
    .filter((m) => isFound(m, wanted, machine, purpose))
    .map((m) => ({ ...m, apart: reference && apart(settingsOf(reference), settingsOf(m)) }))
    .sort((a, b) => (a.apart?.distance ?? Infinity) - (b.apart?.distance ?? Infinity));
  return (
    <>
      <TopBar
        crumbs={[{ label: "Bench", href: "/" }, { label: "Stock", href: "/stock" }, { label: "Marking settings" }]}
      />
      <main className="mx-auto w-full max-w-[1680px] px-6 py-5 max-sm:px-4">
        <div className="mb-4 flex flex-wrap items-end justify-between gap-3">
          <h1 className="text-2xl font-bold">Marking settings</h1>
          {all.length > 0 && (
            <div className="no-print flex flex-wrap items-end gap-3">
              <div className="w-56">
                <TextField label="Search" words value={wanted} onChange={setWanted} />
              </div>
              <Choice
                label="Machine"
                all={all.map((m) => m.kept.machine ?? "")}
                value={machine}
                onChange={setMachine}
              />
              <Choice label="Purpose" all={all.map(purposeOf)} value={purpose} onChange={setPurpose} />
              <Button onClick={() => window.print()}>Print</Button>
            </div>
          )}
        </div>
        {all.length === 0 && (
          <p className="text-ink2">
            No stock card has marking settings yet. Burn a test array or a ramp and store the result.
          </p>
        )}
        {reference && (
          <p className="mb-3">
            Most similar to <b className="font-semibold">{nameOf(reference)}</b> first.{" "}
            <Button weight="quiet" onClick={() => setLike(null)}>
              Sort by stock
            </Button>
          </p>
        )}
        {all.length > 0 && found.length === 0 && (
          <p className="text-ink2">No marking settings match. Change search, machine or purpose.</p>
        )}
        {found.length > 0 && (
          <MarkingTable found={found} like={reference?.kept.id ?? null} onLike={setLike} now={now} />
        )}
      </main>
    </>
  );
}

type Row = Marked & { apart: Apart | null };
type TableProps = { found: readonly Row[]; like: number | null; onLike: (id: number) => void; now: number };

function MarkingTable({ found, like, onLike, now }: TableProps) {
  const keys = CELL_SETTING_KEYS.filter((key) => found.some((m) => settingsOf(m)[key] !== undefined));
  return (
    <div className="card overflow-x-auto p-4">
      <table className="w-full text-[14px]">
        <HeadRow
          cells={[
            { label: "Stock" },
            { label: "Purpose" },
            ...keys.map((key) => ({ label: CELL_SETTINGS[key].label, align: "right" as const })),
            { label: "Energy", align: "right" },
            { label: like === null ? "" : "Difference", align: "right" },
          ]}
        />
        <tbody>
          {found.map((m) => (
            <tr key={m.kept.id} className={clsx("border-t border-hair align-top", m.kept.id === like && "bg-paper")}>
              <th scope="row" className="py-2 pr-3 text-left font-normal">
                <Link href={`/stock/${m.stock.slug}`} className="font-semibold underline underline-offset-4">
                  {m.stock.spec.name}
                </Link>
                <span className="block text-ink2">
                  batch {m.kept.batch}, {m.kept.machine ?? "another machine"}, <Ago at={m.kept.keptAt} now={now} />
                </span>
                {m.kept.standing && DUE.includes(m.kept.standing.state) && (
                  <span className="block text-ochre">{STATE_WORDS[m.kept.standing.state]}</span>
                )}
              </th>
              <td className="py-2 pr-3">{purposeOf(m)}</td>
              {keys.map((key) => (
                <td key={key} className="num py-2 pl-3 text-right whitespace-nowrap">
                  {shown(m, key)}
                </td>
              ))}
              <td className="num py-2 pl-3 text-right whitespace-nowrap">{energyOf(m)}</td>
              <td className="py-2 pl-4 text-right">
                {m.kept.id === like ? (
                  "reference"
                ) : like === null ? (
                  <Button weight="small" className="no-print" onClick={() => onLike(m.kept.id)}>
                    Find similar<span className="sr-only"> {nameOf(m)}</span>
                  </Button>
                ) : (
                  (m.apart?.text ?? "not comparable") || "the same"
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

type ChoiceProps = { label: string; all: readonly string[]; value: string; onChange: (value: string) => void };

function Choice({ label, all, value, onChange }: ChoiceProps) {
  const known = [...new Set(all)].filter(Boolean).sort();
  return (
    <PickField
      label={label}
      value={value}
      choices={[{ value: ANY, label: "Any" }, ...known.map((name) => ({ value: name, label: name }))]}
      onChange={onChange}
    />
  );
}

function markedOf(row: StockRow): Marked[] {
  return row.results.filter((kept) => kept.result.kind === "marking").map((kept) => ({ stock: row, kept }));
}

function settingsOf({ kept }: Marked) {
  return settingsAmong(kept.result.values);
}

function purposeOf({ kept }: Marked): string {
  return resultName(kept.result);
}

function nameOf(m: Marked): string {
  return `${m.stock.spec.name}, ${purposeOf(m).toLowerCase()} on ${m.kept.machine ?? "another machine"}`;
}

function shown(m: Marked, key: (typeof CELL_SETTING_KEYS)[number]): string {
  const value = settingsOf(m)[key];
  return value === undefined ? "–" : valueText(key, value);
}

function energyOf({ kept }: Marked): string {
  return kept.result.conditions.find((c) => c.label.startsWith("Energy per"))?.text ?? "–";
}

function isFound(m: Marked, wanted: string, machine: string, purpose: string): boolean {
  if (machine !== ANY && m.kept.machine !== machine) return false;
  if (purpose !== ANY && purposeOf(m) !== purpose) return false;
  const text = `${m.stock.spec.name} ${m.stock.spec.note} ${m.kept.batch} ${m.kept.machine ?? ""}`.toLowerCase();
  return wanted
    .toLowerCase()
    .split(/\s+/)
    .every((word) => text.includes(word));
}
