import clsx from "clsx";
import type { ReactNode } from "react";
import { withUncertainty } from "../../../core/metrology/quantity-text";
import type { LengthUnit } from "../../../core/metrology/units";
import { shownUnit } from "../../../core/trial/decisions";
import type { Estimate, Outcome } from "../../../core/trial/outcome";

/** The numbers that matter, at the bottom of every stage; it never scrolls away. */
export function VerdictLine({
  outcome,
  unit = "mm",
  text,
  children,
}: {
  outcome: Outcome | null;
  /** In which lengths are shown. */
  unit?: LengthUnit;
  text: string;
  children?: ReactNode;
}) {
  const estimates = outcome?.status === "solved" ? outcome.estimates.filter((e) => e.headline) : [];
  return (
    <section
      aria-label="Verdict so far"
      data-verdict-line
      className="sticky bottom-0 z-10 border-t border-hair bg-sheet"
    >
      <div className="mx-auto flex min-h-13 max-w-[1680px] flex-wrap items-center gap-x-6 max-sm:justify-between gap-y-1 px-6 py-1 max-sm:px-4">
        {estimates.map((e, i) => (
          <p key={e.id} className={clsx("whitespace-nowrap max-sm:whitespace-normal", i > 0 && "max-sm:hidden")}>
            <span className="text-[14px] text-ink2">{e.label} </span>
            <EstimateText estimate={e} unit={unit} />
          </p>
        ))}
        <p className={clsx("ml-auto text-[14px] text-ink2 max-sm:ml-0", estimates.length > 0 && "max-sm:hidden")}>
          {text}
        </p>
        {children}
      </div>
    </section>
  );
}

function EstimateText({ estimate, unit }: { estimate: Estimate; unit: LengthUnit }) {
  return (
    <b className="num font-semibold whitespace-nowrap">
      {withUncertainty(estimate.quantity, shownUnit(estimate.unit, unit))}
    </b>
  );
}
