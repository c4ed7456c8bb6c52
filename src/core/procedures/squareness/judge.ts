/** Is it square enough? */

import { headlineOf, readMore } from "../../measuring/plain-course";
import { becameFindings } from "../../measuring/what-became";
import type { Measured } from "../../metrology/measured";
import { expandedUncertainty } from "../../metrology/measured";
import { fixed } from "../../metrology/quantity-text";
import { ruling } from "../../metrology/tolerance";
import type { History, RoundRecord } from "../../trial/history";
import type { Finding } from "../../trial/outcome";
import type { Verdict } from "../../trial/verdict";
import { wholeProof } from "../../trial/verdict";
import { leanOf } from "./lean";
import type { SquarenessPlan } from "./plan";

const ADVICE = {
  proved: "Nothing to shift.",
  "not proved": "Shift the beam by what is left, and prove it once more.",
  "cannot tell": "Tolerance and doubt overlap: read more often, or burn a larger rectangle.",
} as const;

export function judgeSquareness(history: History<SquarenessPlan>): Verdict | null {
  const last = history.rounds.at(-1);
  if (!last || (last.purpose !== "proof" && last.purpose !== "check")) return null;
  const leanIn = (round: RoundRecord<SquarenessPlan>) => leanOf(history, round)?.lean.quantity ?? null;
  const after = leanIn(last);
  if (!after) return null;
  const before =
    history.rounds
      .filter((r) => r.n < last.n)
      .map(leanIn)
      .findLast((lean) => lean !== null) ?? null;
  const result = ruling(after, history.tolerance);
  const side = after.value < 0 ? "left" : "right";
  return wholeProof(
    history,
    {
      result,
      tolerance: history.tolerance,
      unit: "mmPerM",
      headline: headlineOf(last.purpose, result),
      advice: `The back leans to the ${side} by ${fixed(1000 * Math.abs(after.value), 2)} ± ${fixed(1000 * expandedUncertainty(after), 2)} mm a metre. ${ADVICE[result]}`,
      lines: [{ label: "Lean of Y toward X", before, after, result }],
      ways: readMore(result, last, "every length"),
      asFound: { label: "lean of Y toward X", quantity: after },
      findings: last.purpose === "proof" ? whatHappened(before, after) : [],
    },
    [],
  );
}

const BECAME = {
  unchanged: {
    headline: "It leans as before.",
    text: "The beam sprang back, or homing pulls it to its stops again: shift the stop or the belt on that side.",
  },
  doubled: {
    headline: "It leans twice as much as before.",
    text: "The beam was shifted the wrong way: shift it back, and as much again.",
  },
} as const;

function whatHappened(before: Measured | null, after: Measured): Finding[] {
  return becameFindings(before, after, BECAME);
}
