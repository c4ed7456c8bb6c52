/** Does the surface go as far as it is sent? */

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
import { slipOf, wrongWay } from "./findings";
import type { RotaryPlan } from "./plan";
import { readTravel } from "./read-travel";
import { errorOf } from "./solve";

const ADVICE = {
  proved: "Nothing to change.",
  "not proved": "Enter what this burn says, and prove it once more.",
  "cannot tell": "Tolerance and doubt overlap: read more often, or take the line once around.",
} as const;

export function judgeTravel(history: History<RotaryPlan>): Verdict | null {
  const last = history.rounds.at(-1);
  if (!last || (last.purpose !== "proof" && last.purpose !== "check")) return null;
  const read = readTravel(history, last);
  if (!read) return null;
  const after = errorOf(read);
  const before =
    history.rounds
      .filter((r) => r.n < last.n)
      .map((r) => errorIn(history, r))
      .findLast((error) => error !== null) ?? null;
  const mirrored = wrongWay(last.plan, read);
  const result = mirrored.length > 0 ? "not proved" : ruling(after, history.tolerance);
  const [wrong] = mirrored;
  return wholeProof(
    history,
    {
      result,
      tolerance: history.tolerance,
      unit: "percent",
      headline: headlineOf(last.purpose, result),
      advice: wrong
        ? wrong.headline
        : `It goes ${fixed(Math.abs(100 * after.value), 2)} ± ${fixed(100 * expandedUncertainty(after), 2)} % too ${after.value < 0 ? "short" : "far"}. ${ADVICE[result]}`,
      lines: [{ label: "Error of travel", before, after, result }],
      ways: readMore(result, last, "every place"),
      asFound: { label: "error of travel", quantity: after },
      // A part that slips may be right once: it is said beside the verdict.
      findings: [
        ...mirrored,
        ...slipOf(history, last.plan, read).filter((f) => f.tone === "needs you"),
        ...(last.purpose === "proof" ? whatHappened(before, after) : []),
      ],
    },
    [],
  );
}

function errorIn(history: History<RotaryPlan>, round: RoundRecord<RotaryPlan>): Measured | null {
  const read = readTravel(history, round);
  return read ? errorOf(read) : null;
}

const BECAME = {
  unchanged: {
    headline: "It goes as far as before.",
    text: "The new number did not reach the rotary: another profile of the controller is chosen, or it wants to be started again after it.",
  },
  doubled: {
    headline: "It is off twice as much as before.",
    text: "The number was changed the wrong way: more steps go farther, a thicker roller goes less far.",
  },
} as const;

function whatHappened(before: Measured | null, after: Measured): Finding[] {
  return becameFindings(before, after, BECAME);
}
