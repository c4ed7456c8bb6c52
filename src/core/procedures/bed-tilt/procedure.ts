/** Bed tilt: the readout at which each place is in focus tells how the bed leans, and what to turn at each corner. */

import { headlineOf, readMore } from "../../measuring/plain-course";
import { expandedUncertainty } from "../../metrology/measured";
import { fixed } from "../../metrology/quantity-text";
import { ruling } from "../../metrology/tolerance";
import type { History } from "../../trial/history";
import type { Verdict } from "../../trial/verdict";
import { wholeProof } from "../../trial/verdict";
import { defineProcedure } from "../contract";
import { bedTiltRound } from "./coupon";
import { detailOf } from "./detail";
import { type BedTiltPlan, bedTiltPlan } from "./plan";
import { observeBed, readBed } from "./read-bed";
import { largestLift, solveBedTilt } from "./solve";

export const bedTilt = defineProcedure<BedTiltPlan>({
  id: "bed-tilt",
  title: "Bed tilt",
  summary: "Level the bed: the same height in focus everywhere on it",
  machineKinds: ["CO2 gantry", "diode gantry", "galvo"],
  settings: [],
  needs: [
    { on: "change", what: "bed", effect: "stale" },
    { on: "change", what: "home", effect: "check" },
  ],
  occasional: true,
  adjusts: { change: "bed", by: "raise by", against: "against the highest" },
  tolerance: { default: 1, unit: "mm", label: "Largest difference between supports left" },
  recheck: { defaultDays: 180, why: "Beds settle, and are leaned on." },
  plan: bedTiltPlan,
  round: bedTiltRound,
  observe: observeBed,
  solve: solveBedTilt,
  words: {
    read: "Read the places first.",
    prove: "Raise the supports, then read the same places again.",
    proved: "Proved: the bed is level.",
    holding: "Still level: nothing to change.",
  },
  judge: judgeBed,
  overlay: () => [],
  detail: detailOf,
});

const ADVICE = {
  proved: "Nothing to turn.",
  "not proved": "Raise the supports by what is left, and read once more.",
  "cannot tell": "Tolerance and doubt overlap: read more often at each place.",
} as const;

function judgeBed(history: History<BedTiltPlan>): Verdict | null {
  const last = history.rounds.at(-1);
  if (!last || (last.purpose !== "proof" && last.purpose !== "check")) return null;
  const left = (round: typeof last) => largestLift(readBed(history, round))?.quantity ?? null;
  const after = left(last);
  if (!after) return null;
  const earlier = history.rounds.findLast((r) => r.n < last.n && left(r) !== null);
  const result = ruling(after, history.tolerance);
  return wholeProof(
    history,
    {
      result,
      tolerance: history.tolerance,
      unit: "mm",
      findings: [],
      headline: headlineOf(last.purpose, result),
      advice: `Supports differ by ${fixed(after.value, 2)} ± ${fixed(expandedUncertainty(after), 2)} mm at most. ${ADVICE[result]}`,
      lines: [{ label: "Largest difference between supports", before: earlier ? left(earlier) : null, after, result }],
      ways: readMore(result, last, "every place", "coming to it"),
      asFound: { label: "largest difference between supports", quantity: after },
    },
    [],
  );
}
