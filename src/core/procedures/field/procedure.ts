/** Field: marks of a galvo lie where they are drawn, over the whole working field of a lens. */
import { predictedReading } from "../../measuring/examined";
import { type CourseWords, plainNext, sameAgain } from "../../measuring/plain-course";
import { readTicks } from "../../measuring/read-ticks";
import { type Measured, measured } from "../../metrology/measured";
import { sitesLeft } from "../../trial/answer";
import type { History, Next } from "../../trial/history";
import type { Outcome } from "../../trial/outcome";
import type { Verdict } from "../../trial/verdict";
import { defineProcedure } from "../contract";
import { FOCUS_HEIGHT } from "../focus/plan";
import { NEEDS_ORIENTATION } from "../orientation/setting";
import { isOpen, tunedIn } from "./correction";
import { fieldRound } from "./coupon";
import { bentSquare, fieldDetail } from "./detail";
import { judgeField } from "./judge";
import { lengthOf, lengthsOf, nominalMm } from "./lengths";
import { observeField } from "./observe";
import { type FieldPlan, fieldPlan, keyOf, planWarnings, settableTerms } from "./plan";
import { FIELD_SETTINGS } from "./setting";
import { solveField } from "./solve";

/** Good enough for two jobs that are joined at the edge of a field, mm. (common practice, no source) */
const DEFAULT_TOLERANCE_MM = 0.15;
/** Lengths come out within this share of their nominal before anything is known. */
const EXPECTED_WITHIN = 0.02;

const WORDS: CourseWords = {
  read: "Measure the lengths of the square first.",
  prove: "Enter the new values and read them back. Then burn the square again.",
  proved: "Proved: the field is as drawn.",
  holding: "Still valid. Change nothing.",
};

export const galvoField = defineProcedure<FieldPlan>({
  id: "field",
  title: "Field",
  summary: "Marks lie where they are drawn, over the whole field",
  machineKinds: ["galvo"],
  settings: FIELD_SETTINGS,
  needs: [
    { on: "optic", effect: "stale" },
    { on: "setting", what: FOCUS_HEIGHT, effect: "stale", why: "the focus height was changed" },
    ...NEEDS_ORIENTATION,
    { on: "change", what: "head", effect: "stale" },
    { on: "change", what: "thickness", effect: "stale" },
    { on: "change", what: "mirrors", effect: "stale" },
    { on: "change", what: "bed", effect: "check" },
    { on: "change", what: "driver", effect: "check" },
    { on: "change", what: "firmware", effect: "check" },
  ],
  together: true,
  tolerance: { default: DEFAULT_TOLERANCE_MM, unit: "mm", label: "Largest error of a setting at the corner" },
  recheck: { defaultDays: 365, why: "Heads warm up and age." },
  plan: fieldPlan,
  sets: (plan) => settableTerms(plan).map(keyOf),
  warnings: planWarnings,
  round: fieldRound,
  observe: observeField,
  expected: expectedLength,
  solve: solveField,
  next,
  judge: judgeField,
  overlay: (history) => [...bentSquare(history), ...readTicks(history)],
  detail: fieldDetail,
});

/** While the effect of a coefficient is not known, the next burn shows it; then the proof. */
function next(history: History<FieldPlan>, outcome: Outcome, verdict: Verdict | null): Next<FieldPlan> {
  const last = history.rounds.at(-1);
  const proof = sameAgain(history, outcome, FIELD_SETTINGS);
  const isRead = last !== undefined && sitesLeft(last.spec.sites, last.answers).length === 0;
  if (last && isRead && outcome.status === "solved" && "plan" in proof && verdict?.result !== "proved") {
    const open = tunedIn(history, last).filter((t) => isOpen(history, t, last));
    if (open.length > 0)
      return {
        do: "round",
        purpose: "tune",
        ...proof,
        why: "Enter the values to try and read them back. Burn the square again to see their effect.",
      };
  }
  return plainNext(history, outcome, verdict, WORDS, proof);
}

/** By the other lengths; before they tell, as drawn. */
function expectedLength(history: History<FieldPlan>, site: string): Measured | null {
  const plan = history.rounds.at(-1)?.plan;
  const predicted = predictedReading(observeField, history, site);
  if (predicted || !plan || !lengthsOf(plan).some((id) => id === site)) return predicted;
  const nominal = nominalMm(lengthOf(site), plan);
  return measured(nominal, EXPECTED_WITHIN * nominal, Infinity);
}
