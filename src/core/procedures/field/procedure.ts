/** Field: marks of a galvo lie where they are drawn, over the whole working field of a lens. */
import { type CourseWords, type ProofPlan, plainNext, sameAgain } from "../../measuring/plain-course";
import { sitesLeft } from "../../trial/answer";
import type { History, Next } from "../../trial/history";
import type { Outcome } from "../../trial/outcome";
import type { Verdict } from "../../trial/verdict";
import { defineProcedure } from "../contract";
import { FOCUS_HEIGHT } from "../focus/plan";
import { NEEDS_ORIENTATION } from "../orientation/setting";
import { asBent } from "./bent";
import { isOpen, tunedIn } from "./correction";
import { judgeField } from "./judge";
import { type FieldPlan, fieldPlan, planWarnings, settingsOf } from "./plan";
import { FIELD_SETTINGS, MAP_KEYS } from "./setting";
import { solveField } from "./solve";
import { fieldWayOf } from "./ways";

/** Good enough for two jobs that are joined at the edge of a field, mm. (common practice, no source) */
const DEFAULT_TOLERANCE_MM = 0.15;

const words = (nothingRead: string): CourseWords => ({
  read: nothingRead,
  prove: "Enter the new values and read them back. Then burn the proof.",
  proved: "Proved: the field is as drawn.",
  holding: "Still valid. Change nothing.",
});

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
  sets: (plan, machine) => settingsOf(plan, machine),
  warnings: planWarnings,
  round: (plan, context, purpose) => fieldWayOf(plan).round(plan, context, purpose),
  asSent: (spec, _, inForce) => asBent(spec, inForce[MAP_KEYS.artwork] ?? null),
  observe: (history, round) => fieldWayOf(round.plan).observe(history, round),
  expected: (history, site) => {
    const last = history.rounds.at(-1);
    return last ? fieldWayOf(last.plan).expected(history, last, site) : null;
  },
  solve: solveField,
  next,
  judge: judgeField,
  overlay: (history) => ofLast(history)?.overlay(history) ?? [],
  detail: (history, focus) => ofLast(history)?.detail(history, focus) ?? null,
});

function ofLast({ rounds }: History<FieldPlan>) {
  const last = rounds.at(-1);
  return last && fieldWayOf(last.plan);
}

/** The same again, or the square with which it is to be proved. */
function proofOf(history: History<FieldPlan>, outcome: Outcome): ProofPlan<FieldPlan> {
  const proof = sameAgain(history, outcome, FIELD_SETTINGS);
  if (!("plan" in proof) || proof.plan.how !== "grid" || proof.plan.proved !== "square") return proof;
  return { ...proof, plan: { ...proof.plan, how: "square", way: "nine" } };
}

/** While the effect of a coefficient is not known, the next burn shows it; then the proof. */
function next(history: History<FieldPlan>, outcome: Outcome, verdict: Verdict | null): Next<FieldPlan> {
  const last = history.rounds.at(-1);
  const proof = proofOf(history, outcome);
  const isRead = last !== undefined && sitesLeft(last.spec.sites, last.answers).length === 0;
  if (last && isRead && outcome.status === "solved" && "plan" in proof && verdict?.result !== "proved") {
    const open = tunedIn(history, last).filter((t) => isOpen(history, t, last));
    if (open.length > 0)
      return {
        do: "round",
        purpose: "tune",
        ...proof,
        why: "Enter the values to try and read them back. Burn again to see their effect.",
      };
  }
  return plainNext(history, outcome, verdict, words(ofLast(history)?.nothingRead ?? ""), proof);
}
