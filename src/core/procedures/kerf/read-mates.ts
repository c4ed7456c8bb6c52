/** The offset at which mates fit snugly, from how each of them went in. */
import { type Judged, middleOfClass, type OrderedModel } from "../../fitting/ordered-thresholds";
import { coverageFactor } from "../../fitting/student-t";
import { namedAnswers } from "../../measuring/length-readings";
import { type Budgeted, type BudgetPart, joined } from "../../metrology/budget";
import { type Measured, measured } from "../../metrology/measured";
import type { History, RoundRecord } from "../../trial/history";
import { clearanceOf, type KerfPlan, offsetsOf } from "./plan";
import { FITS, mateSite, SNUG } from "./sites";

/** SD of the gap at which one person says the same of a fit. (common practice, no source) */
const HAND_MM = 0.012;
/** Thresholds may lie so many steps beyond the mates. */
const BEYOND_STEPS = 1;
/** So many fits lower than a mate before it: they contradict each other. */
const CONTRADICTS = 2;

/** `id`: by which it is left out. */
export type JudgedMate = Judged & { site: string; index: number; id: string };

export type MatesRead = {
  judged: JudgedMate[];
  /** Toward which end no mate goes on far enough; `null` where snug lies between two. */
  open: "smaller" | "larger" | null;
  /** Two mates of which the one with the larger offset went in much more easily; `null` where none contradict. */
  contradiction: { first: JudgedMate; second: JudgedMate } | null;
  /** Offset per side at which they are snug, mm; `null` where it is open or contradictory. */
  snug: Measured | null;
};

/** Each judgement that is not left out, with the offset of its pair. */
export function judgedMates(decisions: History["decisions"], { plan, answers }: RoundRecord<KerfPlan>): JudgedMate[] {
  const named = namedAnswers(answers, decisions);
  return offsetsOf(plan).flatMap((x, index) =>
    named.flatMap(({ answer: { site, content }, id }): JudgedMate[] => {
      if (site !== mateSite(index) || content.status !== "read" || content.value.kind !== "ordinal") return [];
      return [{ x, rank: (FITS as readonly string[]).indexOf(content.value.category), site, index, id }];
    }),
  );
}

/** @returns `null` before anything is judged */
export function readMates(decisions: History["decisions"], round: RoundRecord<KerfPlan>): MatesRead | null {
  const { plan } = round;
  const judged = judgedMates(decisions, round);
  if (judged.length === 0) return null;
  const contradiction = contradictionIn(judged);
  const open = openEnd(judged);
  const snug = open === null && contradiction === null ? snugOf(judged, fitModel(plan, judged)) : null;
  // Contradictory judgements have no likelihood.
  if (snug && !Number.isFinite(snug.value)) return { judged, open, snug: null, contradiction: farthestApart(judged) };
  return { judged, open, contradiction, snug };
}

/** The pair of judgements that contradicts the order of the offsets most. */
function farthestApart(judged: readonly JudgedMate[]): MatesRead["contradiction"] {
  const pairs = judged.flatMap((first) => judged.map((second) => ({ first, second })));
  const against = ({ first, second }: (typeof pairs)[number]) =>
    second.x < first.x ? -Infinity : first.rank - second.rank;
  return pairs.reduce<MatesRead["contradiction"]>(
    (worst, pair) => (worst === null || against(pair) > against(worst) ? pair : worst),
    null,
  );
}

function snugOf(judged: readonly JudgedMate[], model: OrderedModel): Measured {
  const { middle, within95 } = middleOfClass(judged, SNUG, model);
  return measured(middle, within95 / coverageFactor(Infinity), Infinity);
}

/** What is supposed of how a person feels a fit. */
export function fitModel(plan: KerfPlan, judged: readonly JudgedMate[]): OrderedModel {
  const offsets = judged.map((m) => m.x);
  const beyond = BEYOND_STEPS * plan.stepMm;
  return {
    classes: FITS.length,
    usualSigma: HAND_MM / clearanceOf(plan).perOffset,
    low: Math.min(...offsets) - beyond,
    high: Math.max(...offsets) + beyond,
  };
}

/** Snug is bracketed by one that is easier and one that is harder. */
function openEnd(judged: readonly JudgedMate[]): MatesRead["open"] {
  if (judged.every((m) => m.rank >= SNUG)) return "smaller";
  return judged.every((m) => m.rank <= SNUG) ? "larger" : null;
}

function contradictionIn(judged: readonly JudgedMate[]): MatesRead["contradiction"] {
  for (const first of judged)
    for (const second of judged)
      if (second.x > first.x && first.rank - second.rank >= CONTRADICTS) return { first, second };
  return null;
}

/** The kerf that a snug offset stands for, if snug is the gap that is said of it. */
export function kerfOfSnug(plan: KerfPlan, snug: Measured): Budgeted {
  const { atZero, cuts, perOffset } = clearanceOf(plan);
  const part = (id: string, label: string, kind: BudgetPart["kind"], standardUncertainty: number): BudgetPart => ({
    id,
    label,
    kind,
    standardUncertainty,
    degreesOfFreedom: "infinite",
  });
  return joined((plan.snugGapMm - atZero + perOffset * snug.value) / cuts, [
    part("snug", "Where they are snug", "A", (perOffset * snug.standardUncertainty) / cuts),
    part("gap", "Gap at which they are snug", "B", plan.snugWithinMm / Math.sqrt(3) / cuts),
    ...(plan.way === "sheet slot"
      ? [part("thickness", "Thickness of the sheet", "B", plan.from?.thickness?.uMm ?? 0)]
      : []),
  ]);
}
