"use client";
import { useRouter } from "next/navigation";
import { expandedUncertainty } from "../../../core/metrology/measured";
import { shownNumber } from "../../../core/metrology/quantity-text";
import { adjusted, lengthUnitOf } from "../../../core/trial/decisions";
import { LEAVE_IT } from "../../../core/trial/given-outcome";
import type { Adjustment } from "../../../core/trial/outcome";
import { noteAdjusted, undoAdjusted } from "../../../server/actions/trial-actions";
import type { TrialView } from "../../../server/trial/trial-view";
import { Button } from "../../primitives/button";
import { Fault } from "../../primitives/notice";
import { useAction } from "../../primitives/use-action";
import { procedureOf } from "../shared/known-procedure";
import { Workings } from "./workings";

type Props = { view: TrialView; n: number; adjustments: readonly Adjustment[] };

/** What is turned, laid or shifted by hand, and that it is done. */
export function AdjustmentCard({ view, n, adjustments }: Props) {
  const router = useRouter();
  const { busy, fault, run } = useAction();
  const unit = lengthUnitOf(view);
  const words = procedureOf(view).adjusts;
  const done = adjusted(n).of(view.decisions);
  const burnedOn = view.rounds.some((r) => r.n > n && r.burnedAt !== null);
  const seen = view.rounds.find((r) => r.n === n)?.readingStamp ?? "";
  return (
    <section className="card p-5" aria-label="What to adjust">
      <div className="flex flex-wrap items-baseline justify-between gap-2">
        <h2 className="text-[17px] font-bold">What to adjust by hand</h2>
        <span className="text-[14px] text-ink2">{words ? `${unit}, ${words.against}` : unit}</span>
      </div>
      <table className="mt-2 w-full">
        <thead>
          <tr className="border-y border-hair text-left text-[14px]">
            <th className="py-1.5">Where</th>
            <th className="py-1.5 text-right">{words?.by ?? "by"}</th>
            <th className="py-1.5 text-right">±</th>
            <th className="py-1.5 pl-4 max-sm:pl-3">do</th>
          </tr>
        </thead>
        <tbody>
          {adjustments.map((a) => (
            <tr key={a.id} className="border-b border-hair">
              <th scope="row" className="py-2 text-left font-normal first-letter:uppercase">
                {a.label}
              </th>
              <td className="num py-2 text-right">{shownNumber(a.quantity.value, unit, 2)}</td>
              <td className="num py-2 text-right text-ink2">{shownNumber(expandedUncertainty(a.quantity), unit, 2)}</td>
              <td className="py-2 pl-4 max-sm:pl-3">
                <b>{a.text}</b>
                {a.worth !== "yes" && a.text !== LEAVE_IT && (
                  <span className="text-[14px] text-ink2"> within the uncertainty</span>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <Workings of={adjustments.map((a) => ({ ...a, key: a.id }))} />
      <div className="mt-3">
        {done ? (
          <p className="flex flex-wrap items-center gap-x-3 text-ink2">
            Done, and noted as a change of {view.machine.name}.
            {view.endedAt === null && !burnedOn && (
              <Button
                weight="quiet"
                disabled={busy}
                onClick={() =>
                  run(
                    () => undoAdjusted({ trialId: view.id, n }),
                    () => router.refresh(),
                  )
                }
              >
                Not done after all
              </Button>
            )}
          </p>
        ) : (
          <Button
            weight="primary"
            disabled={busy || view.endedAt !== null}
            onClick={() =>
              run(
                () => noteAdjusted({ trialId: view.id, n, seen }),
                () => router.refresh(),
              )
            }
          >
            I have done this
          </Button>
        )}
        {fault.message && <Fault>{fault.message}</Fault>}
      </div>
    </section>
  );
}
