"use client";
import { useRouter } from "next/navigation";
import { cardOf } from "../../../core/stock/stock-at-hand";
import { lengthUnitOf } from "../../../core/trial/decisions";
import type { StockResult } from "../../../core/trial/outcome";
import { keepForStock, takeOffCard } from "../../../server/actions/trial-actions";
import type { TrialView } from "../../../server/trial/trial-view";
import { Button } from "../../primitives/button";
import { Link } from "../../primitives/link";
import { Fault } from "../../primitives/notice";
import { useAction } from "../../primitives/use-action";
import { ResultBody } from "../../stock/result-body";

type Props = {
  view: TrialView;
  n: number;
  result: StockResult;
  /** A newer result is being calculated. */
  isBehind: boolean;
};

/** What a round tells of its stock, and that it is kept on its card. */
export function StockResultCard({ view, n, result, isBehind }: Props) {
  const router = useRouter();
  const { busy, fault, run } = useAction();
  const kept = view.keptForStock.find((k) => k.n === n);
  const other = view.keptForStock.find((k) => k.n !== n);
  const seen = view.rounds.find((r) => r.n === n)?.readingStamp ?? "";
  const isAsItWas = kept !== undefined && saySame(kept.result.values, result.values);
  const keep = () =>
    run(
      () => keepForStock({ trialId: view.id, n, seen }),
      () => router.refresh(),
    );
  return (
    <section className="card p-5" aria-label="For the card of the stock">
      <h2 className="text-[17px] font-bold">For this stock, this machine, these settings</h2>
      <ResultBody result={result} unit={lengthUnitOf(view)} />
      <div className="mt-3 flex flex-wrap items-center gap-3">
        {kept && isAsItWas ? (
          <>
            <p className="text-verdigris">
              ✓ On{" "}
              <Link href={`/stock/${cardOf(result.stock)}`} className="underline underline-offset-4">
                the card of its stock
              </Link>
              .
            </p>
            <Button
              weight="quiet"
              disabled={busy}
              onClick={() =>
                run(
                  () => takeOffCard({ trialId: view.id }),
                  () => router.refresh(),
                )
              }
            >
              Take it off again
            </Button>
          </>
        ) : (
          <>
            <Button weight={kept || other ? "plain" : "primary"} disabled={busy || isBehind} onClick={keep}>
              {kept || other ? "Keep this instead" : "Keep on the stock card"}
            </Button>
            {other && <p className="text-[14px] text-ink2">What burn {other.n} told is on the card now.</p>}
            {kept && <p className="text-[14px] text-ink2">Readings changed since it was kept.</p>}
          </>
        )}
      </div>
      {fault.message && <Fault>{fault.message}</Fault>}
    </section>
  );
}

/** Far less than anybody reads; browser and server may round the last digit differently. */
const SAME = 1e-9;

function saySame(a: StockResult["values"], b: StockResult["values"]): boolean {
  return (
    a.length === b.length &&
    a.every(({ id, quantity }) => {
      const other = b.find((v) => v.id === id)?.quantity;
      return (
        other !== undefined &&
        Math.abs(other.value - quantity.value) < SAME &&
        Math.abs(other.standardUncertainty - quantity.standardUncertainty) < SAME
      );
    })
  );
}
