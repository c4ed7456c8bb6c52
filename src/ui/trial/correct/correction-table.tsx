"use client";
import clsx from "clsx";
import { expandedUncertainty } from "../../../core/metrology/measured";
import { withinSentence } from "../../../core/metrology/sentence-case";
import { UNITS } from "../../../core/metrology/units";
import { type EntryShape, entryText } from "../../../core/settings/entry-text";
import { yesOrNo } from "../../../core/trial/decision";
import type { Correction, CorrectionRow } from "../../../core/trial/outcome";
import type { TrialView } from "../../../server/trial/trial-view";
import { Button, buttonClass } from "../../primitives/button";
import { copyText } from "../../primitives/copy-text";
import { HeadRow } from "../../primitives/head-row";
import { Link } from "../../primitives/link";
import { Fault } from "../../primitives/notice";
import { OneOf } from "../../primitives/one-of";
import { useDecisions } from "../shared/use-decisions";
import { Workings } from "./workings";

/** In force, change, enter: every number with the sum that made it. @param corrections one, or several of a number each */
export function CorrectionTable({
  view,
  n,
  corrections,
  confirmed,
}: {
  view: TrialView;
  n: number;
  corrections: readonly Correction[];
  confirmed: boolean;
}) {
  const [correction] = corrections;
  if (!correction) return null;
  const all = corrections.flatMap((of) => of.rows.map((row) => ({ row, of })));
  const taken = all.filter(({ row }) => row.heldBack === null);
  const isOne = corrections.length === 1;
  const symbol = ({ unit }: Correction) => (UNITS[unit].symbol ? `, ${UNITS[unit].symbol}` : "");
  return (
    <section className={clsx("card px-5 py-4", !confirmed && "border-dashed border-line")} aria-label="What to enter">
      <div className="flex flex-wrap items-baseline justify-between gap-x-4">
        <h2 className="text-[17px] font-bold">What to enter</h2>
        <p className="text-[14px] text-ink2">
          {isOne ? withinSentence(correction.label) + symbol(correction) : `${corrections.length} settings`}
          {confirmed ? "" : " · confirm above what was held first"}
        </p>
      </div>
      <table className="mt-2 w-full">
        <HeadRow
          className="border-y border-hair"
          cells={[
            { label: "Setting" },
            { label: "in force", align: "right" },
            { label: "change", align: "right", className: "max-sm:hidden" },
            { label: "= enter", align: "right" },
            { label: corrections.every((c) => c.unit === "onOff") ? "" : "±", align: "right" },
            { label: "" },
          ]}
        />
        <tbody>
          {all.map(({ row, of }) => (
            <Row
              key={row.key}
              view={view}
              n={n}
              row={row}
              shape={of}
              label={isOne ? row.label : row.label + symbol(of)}
            />
          ))}
        </tbody>
      </table>
      <div className="mt-3 flex flex-wrap items-center justify-between gap-3">
        {correction.choice && <Choice view={view} choice={correction.choice} />}
        {all.length > 1 && (
          <Button
            weight="plain"
            onClick={() =>
              copyText(taken.map(({ row, of }) => `${row.key}\t${entryText(row.enter, of)}`).join("\n"), "The table")
            }
            disabled={taken.length === 0}
          >
            Copy the table
          </Button>
        )}
      </div>
      <Workings of={all.map(({ row }) => row)} />
    </section>
  );
}

type RowProps = { view: TrialView; n: number; row: CorrectionRow; shape: EntryShape; label: string };

function Row({ view, n, row, shape, label }: RowProps) {
  const { busy, fault, keep } = useDecisions(view.id);
  const accept = row.heldBack?.accept;
  return (
    <tr className="num border-b border-hair align-middle">
      <th scope="row" className="py-1.5 text-left font-normal">
        {label}
      </th>
      <td className="py-1.5 text-right">{row.old === null ? "not known" : entryText(row.old, shape)}</td>
      <td className="py-1.5 text-right max-sm:hidden" title={row.arithmetic[0]}>
        {row.changeText}
      </td>
      <td className={clsx("py-1.5 text-right text-[17px]", row.heldBack ? "text-ink2" : "font-bold")}>
        {entryText(row.enter, shape)}
        {row.heldBack ? " ?" : ""}
      </td>
      <td className="py-1.5 text-right text-ink2">
        {shape.unit === "onOff" ? "" : entryText(expandedUncertainty(row.change), shape)}
      </td>
      <td className="py-1.5 pl-3 text-right font-sans sm:whitespace-nowrap">
        {row.heldBack ? (
          <span className="inline-flex gap-2" title={row.heldBack.why}>
            {row.heldBack.site && (
              <Link
                className={buttonClass("small", "!border-ember !text-ember")}
                href={`/trial/${view.id}/read?${n > 1 ? `round=${n}&` : ""}site=${encodeURIComponent(row.heldBack.site)}`}
              >
                read again
              </Link>
            )}
            {accept && (
              <Button weight="small" disabled={busy} onClick={() => keep([yesOrNo(accept).as(true)])}>
                accept
              </Button>
            )}
            {fault.message && <Fault>{fault.message}</Fault>}
          </span>
        ) : (
          <span className="inline-flex items-center gap-3 max-sm:flex-col max-sm:items-end max-sm:gap-1">
            {row.worth !== "yes" && (
              <span className="text-[13px] text-ink2 max-sm:max-w-24">
                {row.worth === "no" ? "not needed" : "within the uncertainty"}
              </span>
            )}
            <Button weight="small" onClick={() => copyText(entryText(row.enter, shape), row.label)}>
              copy<span className="sr-only"> {row.label}</span>
            </Button>
          </span>
        )}
      </td>
    </tr>
  );
}

function Choice({ view, choice }: { view: TrialView; choice: NonNullable<Correction["choice"]> }) {
  const { busy, fault, keep } = useDecisions(view.id);
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
      <span>Enter</span>
      <OneOf
        label="What the entries go by"
        look="row"
        disabled={busy}
        value={choice.chosen}
        options={choice.options}
        onChange={(value) => keep([{ key: choice.decision, value }])}
      />
      {fault.message && <Fault>{fault.message}</Fault>}
    </div>
  );
}
