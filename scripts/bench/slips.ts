/** What is promised of slips: clean trials are not accused, and no slip that can be seen makes a result wrong without a word. */
import { seeded, seedOf } from "../../src/practice/random";
import { slipSummaries, suspectsOf } from "../../src/testing/rehearsal/slip-rehearsal";
import { SLIP_SETS, type SlipSet, slipCases } from "../../src/testing/rehearsal/slip-sets";
import { above, below, type Line } from "./line";

const TRIALS = 300;
const FIRST = 24_000;

export function slips(): Line[] {
  return SLIP_SETS.flatMap(linesOf);
}

function linesOf(set: SlipSet): Line[] {
  const cases = slipCases(set, FIRST, TRIALS);
  const accused = cases.filter(({ procedure, history }) =>
    suspectsOf(procedure.solve(history)).some((finding) => finding.suspect),
  );
  const summaries = slipSummaries(cases, set.makers, set.sizeMm, (i) => seeded(seedOf(i, "slip"))).filter(
    (s) => !set.unseen.includes(s.kind),
  );
  const sum = (of: "made" | "silent" | "large" | "named") => summaries.reduce((total, s) => total + s[of], 0);
  return [
    {
      what: `${set.name}: clean trials in which a reading is accused`,
      ...below((100 * accused.length) / TRIALS, 2, "%"),
    },
    {
      what: `${set.name}: ${summaries.length} kinds of slip (${set.sizeMm} mm where of unknown size), silently wrong`,
      ...below((100 * sum("silent")) / sum("made"), 1, "%"),
    },
    {
      what: `${set.name}: slips of at least ${set.sizeMm} mm that are named`,
      ...above((100 * sum("named")) / sum("large"), 90, "%"),
    },
  ];
}
