/** Bed tilt: the readout at which each place is in focus tells how the bed leans, and what to turn at each corner. */
import { expandedUncertainty } from "../../fitting/student-t";
import { fixed } from "../../metrology/quantity-text";
import { ruling } from "../../metrology/tolerance";
import { sitesLeft } from "../answer";
import type { History, Next, Procedure } from "../contract";
import type { Outcome } from "../outcome";
import type { Verdict } from "../verdict";
import { bedTiltRound } from "./coupon";
import { detailOf } from "./detail";
import { type BedTiltPlan, planForm } from "./plan";
import { readBed } from "./read-bed";
import { largestLift, solveBedTilt } from "./solve";

const MORE_READINGS = 2;

export const bedTilt: Procedure<BedTiltPlan> = {
  id: "bed-tilt",
  version: 1,
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
  plan: planForm,
  actsFrom: () => "controller",
  sets: () => [],
  warnings: () => [],
  round: bedTiltRound,
  asSent: (spec) => spec,
  checkPlan: (last) => last,
  expected: () => null,
  solve: solveBedTilt,
  next,
  judge,
  overlay: () => [],
  detail: detailOf,
};

function next(history: History<BedTiltPlan>, outcome: Outcome): Next<BedTiltPlan> {
  const last = history.rounds.at(-1);
  if (!last) return { do: "stop", why: "Nothing is laid out yet." };
  const unread = sitesLeft(last.spec.sites, last.answers).map((s) => s.id);
  if (outcome.status !== "solved" || (last.answers.length === 0 && unread.length > 0))
    return {
      do: "read",
      sites: unread,
      why: outcome.status === "unsolvable" ? outcome.reason : "Read the places first.",
    };
  const verdict = judge(history);
  if (verdict && unread.length > 0)
    return { do: "read", sites: unread, why: `The ${last.purpose} is not read to its end.` };
  if (verdict?.result === "proved")
    return {
      do: "stop",
      why: last.purpose === "check" ? "Still level: nothing to change." : "Proved: the bed is level.",
    };
  if (verdict?.result === "cannot tell")
    return { do: "read", sites: verdict.ways[0]?.sites ?? [], why: "Tolerance and doubt overlap: read once more." };
  return {
    ...{ do: "round", purpose: "proof", set: [], plan: last.plan },
    why: "Raise the supports, then read the same places again.",
  };
}

const HEADLINES = {
  proof: { proved: "Proved", "not proved": "Not proved", "cannot tell": "These readings cannot tell yet" },
  check: {
    proved: "Still holding",
    "not proved": "No longer holding",
    "cannot tell": "These readings cannot tell yet",
  },
} as const;
const ADVICE = {
  proved: "Nothing to turn.",
  "not proved": "Raise the supports by what is left, and read once more.",
  "cannot tell": "Tolerance and doubt overlap: read more often at each place.",
} as const;

function judge(history: History<BedTiltPlan>): Verdict | null {
  const last = history.rounds.at(-1);
  if (!last || (last.purpose !== "proof" && last.purpose !== "check")) return null;
  const left = (round: typeof last) => largestLift(readBed(history, round));
  const after = left(last);
  if (!after) return null;
  const earlier = history.rounds.findLast((r) => r.n < last.n && left(r) !== null);
  const result = ruling(after, history.tolerance);
  return {
    ...{ result, tolerance: history.tolerance, unit: "mm", findings: [] },
    headline: HEADLINES[last.purpose === "check" ? "check" : "proof"][result],
    advice: `Supports differ by ${fixed(after.value, 2)} ± ${fixed(expandedUncertainty(after), 2)} mm at most. ${ADVICE[result]}`,
    lines: [{ label: "Largest difference between supports", before: earlier ? left(earlier) : null, after, result }],
    ways:
      result === "cannot tell"
        ? [
            {
              text: `Read every place ${MORE_READINGS} times more, coming to it anew.`,
              ...{ sites: last.spec.sites.map((s) => s.id), more: MORE_READINGS, gauge: null },
            },
          ]
        : [],
    asFound: { label: "largest difference between supports", quantity: after },
  };
}
