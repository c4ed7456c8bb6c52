"use client";
import { useState } from "react";
import { coverageFactor } from "../../../core/fitting/student-t";
import { type BudgetPart, shareOf } from "../../../core/metrology/budget";
import { expandedUncertainty, freedomOf } from "../../../core/metrology/measured";
import { decimalsFor, fixed, withUncertainty } from "../../../core/metrology/quantity-text";
import { fromInternal, type LengthUnit, UNITS, type UnitId } from "../../../core/metrology/units";
import { shownUnit } from "../../../core/trial/decisions";
import type { Estimate } from "../../../core/trial/outcome";
import { HeadRow } from "../../primitives/head-row";
import { PickBox } from "../../primitives/pick-box";

type Props = { estimates: readonly Estimate[]; length: LengthUnit; start?: string };

/** Where the uncertainty of a result comes from, and what would make it smaller. */
export function BudgetCard({ estimates, length, start }: Props) {
  const [id, setId] = useState(start ?? firstOf(estimates)?.id ?? "");
  const estimate = estimates.find((e) => e.id === id) ?? firstOf(estimates);
  if (!estimate) return null;
  const unit = shownUnit(estimate.unit, length);
  return (
    <section className="card px-5 py-4" aria-label="Uncertainty budget">
      <div className="flex flex-wrap items-center justify-between gap-2">
        <h2 className="font-semibold">Uncertainty budget</h2>
        <PickBox
          label="Result"
          value={estimate.id}
          choices={estimates.map((e) => ({ value: e.id, label: e.label }))}
          onChange={setId}
        />
      </div>
      <table className="mt-2 w-full">
        <HeadRow
          cells={[
            { label: "Part" },
            { label: `u, ${UNITS[unit].symbol}`, align: "right" },
            { label: "share", className: "pl-3", span: 2 },
            { label: "d.o.f.", align: "right" },
          ]}
        />
        <tbody>
          {estimate.budget.map((part) => (
            <PartRow key={part.id} part={part} parts={estimate.budget} unit={unit} />
          ))}
        </tbody>
      </table>
      <Whole estimate={estimate} unit={unit} />
      <p className="mt-2">
        <b className="font-semibold">What helps most: </b>
        {estimate.helps ?? "nothing simple; the parts that are left do not shrink with more readings."}
      </p>
    </section>
  );
}

function PartRow({ part, parts, unit }: { part: BudgetPart; parts: readonly BudgetPart[]; unit: UnitId }) {
  const share = shareOf(part, parts);
  const largest = fromInternal(parts[0]?.standardUncertainty ?? 0, unit);
  return (
    <tr className="border-t border-hair">
      <th scope="row" className="py-1 pr-2 text-left font-normal">
        {part.label}{" "}
        <span className="text-[13px] text-ink2" title={part.kind === "A" ? "from repeats" : "stated or known"}>
          {part.kind}
        </span>
      </th>
      <td className="num py-1 text-right">
        {fixed(fromInternal(part.standardUncertainty, unit), decimalsFor(largest))}
      </td>
      <td className="w-16 py-1 pl-3">
        <span
          className="block h-2.5 rounded-sm bg-steel"
          style={{ width: `${Math.max(2, Math.round(share * 100))}%` }}
        />
      </td>
      <td className="num py-1 pl-2 text-right text-[14px] whitespace-nowrap">{Math.round(share * 100)} %</td>
      <td className="num py-1 pl-2 text-right">
        {part.degreesOfFreedom === "infinite" ? "∞" : Math.floor(part.degreesOfFreedom)}
      </td>
    </tr>
  );
}

/** `u = 0.0031, t(34) = 2.03: ± 0.0063 mm`. */
function Whole({ estimate, unit }: { estimate: Estimate; unit: UnitId }) {
  const { quantity } = estimate;
  const nu = freedomOf(quantity);
  const u = fromInternal(quantity.standardUncertainty, unit);
  const decimals = decimalsFor(u);
  const t = coverageFactor(nu);
  const freedom = Number.isFinite(nu) ? Math.max(1, Math.floor(nu)) : "∞";
  return (
    <p className="num mt-1 border-t border-line pt-2 text-[14px]">
      u = {fixed(u, decimals)}, t({freedom}) = {t.toFixed(2)}: {fixed(t, 2)} × {fixed(u, decimals)} ={" "}
      {fixed(fromInternal(expandedUncertainty(quantity), unit), decimals)}.{" "}
      <b className="font-semibold">{withUncertainty(quantity, unit)}</b> (95 %)
    </p>
  );
}

/** The one number that matters; where there are several, the last. */
function firstOf(estimates: readonly Estimate[]): Estimate | undefined {
  const headlines = estimates.filter((e) => e.headline);
  return headlines.length === 1 ? headlines[0] : estimates.at(-1);
}
