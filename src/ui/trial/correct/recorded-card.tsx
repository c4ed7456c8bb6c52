"use client";
import clsx from "clsx";
import { countText } from "../../../core/metrology/count-text";
import { withUncertainty } from "../../../core/metrology/quantity-text";
import { lengthUnitOf, shownUnit } from "../../../core/trial/decisions";
import type { Outcome } from "../../../core/trial/outcome";
import { type ComparedResult, comparedResults } from "../../../core/trial/recorded-result";
import type { TrialView } from "../../../server/trial/trial-view";
import { OnDay } from "../../primitives/ago";
import { HeadRow } from "../../primitives/head-row";

/** What was recorded of this burn beside the same readings worked out anew; nothing where both read the same while the trial is open. */
export function RecordedCard({ view, n, outcome }: { view: TrialView; n: number; outcome: Outcome }) {
  const recorded = view.recorded.find((r) => r.n === n);
  if (!recorded) return null;
  const compared = comparedResults(recorded.estimates, outcome);
  const changed = compared.filter((c) => c.differs !== "same");
  if (changed.length === 0 && view.endedAt === null) return null;
  return (
    <section className="card px-5 py-4" aria-label="Recorded result">
      <h2 className="font-semibold">
        Recorded on <OnDay at={recorded.at} />
      </h2>
      {changed.length === 0 ? (
        <p className="mt-1 text-ink2">Computed again from the readings, all results are the same.</p>
      ) : (
        <>
          <p className="mt-1 text-ink2">
            {`${countText(changed.length, "result")} of ${compared.length} ${changed.length === 1 ? "differs" : "differ"} when computed again from the present readings. The recorded values stay in the ledger.`}
          </p>
          <table className="mt-2 w-full">
            <HeadRow
              cells={[
                { label: "Result" },
                { label: "recorded", align: "right" },
                { label: "computed again", align: "right" },
              ]}
            />
            <tbody>
              {compared.map((c) => (
                <Row key={c.id} compared={c} view={view} />
              ))}
            </tbody>
          </table>
        </>
      )}
    </section>
  );
}

function Row({
  compared: { label, unit, recorded, now, differs },
  view,
}: {
  compared: ComparedResult;
  view: TrialView;
}) {
  const shown = shownUnit(unit, lengthUnitOf(view));
  return (
    <tr className={clsx("border-t border-hair", differs === "outside" && "text-ember")}>
      <th scope="row" className="py-1.5 pr-2 text-left font-normal">
        {label}
        {differs === "outside" && <span className="block text-[14px]">outside the uncertainty</span>}
      </th>
      <td className="num py-1.5 text-right">{withUncertainty(recorded, shown)}</td>
      <td className="num py-1.5 pl-3 text-right">{now ? withUncertainty(now, shown) : "no result"}</td>
    </tr>
  );
}
