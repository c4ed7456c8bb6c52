/** What a proof or a check says: is the bar as long as it is drawn? */
import { ruling } from "../../metrology/tolerance";
import type { History } from "../../trial/history";
import type { Verdict } from "../../trial/verdict";
import { wholeProof } from "../../trial/verdict";
import { LENGTH_SITE } from "./coupon";
import type { SampleBarPlan } from "./plan";
import { lengthOf } from "./solve";

export function judge(history: History<SampleBarPlan>): Verdict | null {
  const errorIn = (purposes: readonly string[]) => {
    const round = history.rounds.findLast((r) => purposes.includes(r.purpose));
    const length = round && lengthOf(history, round);
    return round && length ? { ...length.quantity, value: length.quantity.value - round.plan.lengthMm } : null;
  };
  const before = errorIn(["measure"]);
  const after = errorIn(["proof", "check"]);
  if (!after) return null;
  const result = ruling(after, history.tolerance);
  return wholeProof(
    history,
    {
      result,
      headline: result,
      tolerance: history.tolerance,
      unit: "mm",
      findings: [],
      advice: result === "proved" ? "Lengths come out as drawn." : "Enter the new offset and burn the bar again.",
      lines: [{ label: "Length", before, after, result }],
      ways:
        result === "cannot tell"
          ? [{ text: "Read the bar three times more.", sites: [LENGTH_SITE], more: 3, gauge: null }]
          : [],
      asFound: { label: "length", quantity: after },
    },
    [],
  );
}
