"use client";
import { useState } from "react";
import { type Gauge, hasJaws } from "../../core/metrology/gauge";
import { inUnit } from "../../core/metrology/quantity-text";
import type { GaugeRow } from "../../server/gauges/gauges-view";
import { Button } from "../primitives/button";
import { HeadRow } from "../primitives/head-row";
import { TopBar } from "../shell/top-bar";
import { FaultLine, FoundWrong } from "./found-wrong";
import { GaugeForm } from "./gauge-form";
import { GAUGE_KIND_WORDS } from "./gauge-words";

/** What the workshop measures with, and how well. */
export function GaugesScreen({ rows, now }: { rows: GaugeRow[]; now: number }) {
  const [wrong, setWrong] = useState<Gauge | null>(null);
  const [editing, setEditing] = useState<Gauge | "new" | null>(rows.length === 0 ? "new" : null);
  return (
    <>
      <TopBar crumbs={[{ label: "Bench", href: "/" }, { label: "Gauges" }]} />
      <main className="mx-auto grid max-w-[1680px] gap-5 px-6 py-5 max-sm:px-4 lg:grid-cols-[1fr_420px]">
        <section aria-labelledby="gauges-title" className="min-w-0">
          <div className="mb-4 flex flex-wrap items-center justify-between gap-3">
            <h1 id="gauges-title" className="text-2xl font-bold">
              Gauges
            </h1>
            <Button weight={rows.length === 0 ? "primary" : "plain"} onClick={() => setEditing("new")}>
              Declare a gauge
            </Button>
          </div>
          {rows.length === 0 ? (
            <p className="text-ink2">
              No gauge is declared yet. Declare what you measure with: every uncertainty begins there.
            </p>
          ) : (
            <div className="card relative overflow-x-auto px-5 py-2">
              <table className="stacked-table w-full">
                <HeadRow
                  cells={[
                    ...["Gauge", "Resolution", "Limit of error", "Repeatability", "Zero", "Sessions"].map((label) => ({
                      label,
                      className: "pr-4 whitespace-nowrap",
                    })),
                    { label: "" },
                  ]}
                />
                <tbody>
                  {rows.map((row) => (
                    <Row
                      key={row.gauge.id}
                      row={row}
                      now={now}
                      onEdit={() => setEditing(row.gauge)}
                      onWrong={() => setWrong(row.gauge)}
                    />
                  ))}
                </tbody>
              </table>
            </div>
          )}
        </section>
        <div className="grid content-start gap-4">
          {wrong && <FoundWrong key={wrong.id} gauge={wrong} onDone={() => setWrong(null)} />}
          {editing && (
            <GaugeForm
              key={editing === "new" ? "new" : editing.id}
              gauge={editing === "new" ? null : editing}
              onDone={() => setEditing(null)}
            />
          )}
          <section className="card p-5">
            <h2 className="font-semibold">What these mean</h2>
            <dl className="mt-2 grid gap-2">
              <Meaning term="Limit of error">
                Largest error that all readings of a gauge may share. Repeats do not reduce it. It cancels in
                differences.
              </Meaning>
              <Meaning term="Repeatability">
                Scatter of your readings at the same point, as a standard deviation. Repeats measure it and reduce its
                effect. Ustrina uses the value of this table until there are repeats.
              </Meaning>
              <Meaning term="Zero">
                Reading with closed jaws. Read the zero of each pair of jaws once a session. Ustrina subtracts it from
                every length.
              </Meaning>
            </dl>
          </section>
        </div>
      </main>
    </>
  );
}

const UNIT_WORDS: Record<Gauge["unit"], string> = { mm: "reads mm", in: "reads inches", thou: "reads thou" };

type RowProps = { row: GaugeRow; now: number; onEdit: () => void; onWrong: () => void };

function Row({ row, now, onEdit, onWrong }: RowProps) {
  const { gauge, sittings, faults } = row;
  return (
    <tr className="border-t border-hair align-top">
      <th scope="row" className="py-2 pr-4 text-left font-semibold">
        {gauge.name}
        <span className="block text-[14px] font-normal text-ink2">
          {GAUGE_KIND_WORDS[gauge.kind]}, {UNIT_WORDS[gauge.unit]}
        </span>
        {faults.map((fault) => (
          <FaultLine key={fault.id} fault={fault} now={now} />
        ))}
      </th>
      <td className="num py-2 pr-4 whitespace-nowrap" data-label="Resolution">
        {inUnit(gauge.resolutionMm, gauge.unit, 5)}
      </td>
      <td className="num py-2 pr-4 whitespace-nowrap" data-label="Limit of error">
        ± {inUnit(gauge.limitMm, gauge.unit, 5)}
      </td>
      <td className="num py-2 pr-4 whitespace-nowrap" data-label="Repeatability">
        {gauge.placing ? inUnit(gauge.placing.sdMm, gauge.unit, 5) : "not known"}
      </td>
      <td className="py-2 pr-4 whitespace-nowrap" data-label="Zero">
        {hasJaws(gauge.kind) ? "each session" : "none"}
      </td>
      <td className="num py-2 pr-4" data-label="Sessions">
        {sittings}
      </td>
      <td className="py-2 text-right">
        <Button weight="small" onClick={onEdit}>
          Change<span className="sr-only"> {gauge.name}</span>
        </Button>{" "}
        <Button weight="quiet" onClick={onWrong}>
          Found wrong<span className="sr-only"> {gauge.name}</span>
        </Button>
      </td>
    </tr>
  );
}

function Meaning({ term, children }: { term: string; children: string }) {
  return (
    <div>
      <dt className="font-semibold">{term}</dt>
      <dd className="text-ink2">{children}</dd>
    </div>
  );
}
