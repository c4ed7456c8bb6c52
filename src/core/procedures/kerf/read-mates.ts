/** The offset at which mates fit snugly, from how each of them went in. */
import { type Judged, likelihoods, middleOfClass, type OrderedModel } from "../../fitting/ordered-thresholds";
import { coverageFactor } from "../../fitting/student-t";
import { type Budgeted, type BudgetPart, joined } from "../../metrology/budget";
import { type Measured, measured } from "../../metrology/measured";
import type { RoundRecord } from "../contract";
import { clearanceOf, type KerfPlan, offsetsOf } from "./plan-type";
import { FITS, mateSite, SNUG } from "./sites";

/** SD of the gap at which one person says the same of a fit. (common practice, no source) */
const HAND_MM = 0.012;
/** Thresholds may lie so many steps beyond the mates. */
const BEYOND_STEPS = 1;
/** A judgement less likely than this by all the others is looked at again. */
const UNLIKELY = 0.02;
/** From so few none stands out. */
const FEW = 3;
/** So many fits lower than a mate before it: they contradict each other. */
const CONTRADICTS = 2;

export type JudgedMate = Judged & { site: string; index: number };

export type MatesRead = {
  judged: JudgedMate[];
  /** Toward which end no mate goes on far enough; `null` where snug lies between two. */
  open: "smaller" | "larger" | null;
  /** Two mates of which the one with the larger offset went in much more easily; `null` where none contradict. */
  contradiction: { first: JudgedMate; second: JudgedMate } | null;
  /** Offset per side at which they are snug, mm; `null` where it is open or contradictory. */
  snug: Measured | null;
};

/** @returns `null` before anything is judged */
export function readMates(round: RoundRecord<KerfPlan>): MatesRead | null {
  const { plan, answers } = round;
  const judged = offsetsOf(plan).flatMap((x, index) =>
    answers.flatMap(({ site, content }): JudgedMate[] => {
      if (site !== mateSite(index) || content.status !== "read" || content.value.kind !== "ordinal") return [];
      return [{ x, rank: (FITS as readonly string[]).indexOf(content.value.category), site, index }];
    }),
  );
  if (judged.length === 0) return null;
  const contradiction = contradictionIn(judged);
  const open = openEnd(judged);
  const snug = open === null && contradiction === null ? snugOf(judged, modelOf(plan, judged)) : null;
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

/** Mates that do not fit in with the others, each once, in their order. */
export function oddMates(plan: KerfPlan, { judged }: Pick<MatesRead, "judged">): JudgedMate[] {
  const likely = judged.length > FEW ? likelihoods(judged, modelOf(plan, judged)) : [];
  const odd = judged.filter((_, i) => (likely[i] ?? 1) < UNLIKELY);
  return odd.filter((m, i) => odd.findIndex((o) => o.index === m.index) === i);
}

function snugOf(judged: readonly JudgedMate[], model: OrderedModel): Measured {
  const { middle, within95 } = middleOfClass(judged, SNUG, model);
  return measured(middle, within95 / coverageFactor(Infinity), Infinity);
}

function modelOf(plan: KerfPlan, judged: readonly JudgedMate[]): OrderedModel {
  const offsets = judged.map((m) => m.x);
  const beyond = BEYOND_STEPS * plan.stepMm;
  return {
    ...{ classes: FITS.length, usualSigma: HAND_MM / clearanceOf(plan).perOffset },
    ...{ low: Math.min(...offsets) - beyond, high: Math.max(...offsets) + beyond },
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
    ...{ id, label, kind, standardUncertainty, degreesOfFreedom: "infinite" },
  });
  return joined((plan.snugGapMm - atZero + perOffset * snug.value) / cuts, [
    part("snug", "Where they are snug", "A", (perOffset * snug.standardUncertainty) / cuts),
    part("gap", "Gap at which they are snug", "B", plan.snugWithinMm / Math.sqrt(3) / cuts),
    ...(plan.way === "sheet slot"
      ? [part("thickness", "Thickness of the sheet", "B", plan.from?.thickness?.uMm ?? 0)]
      : []),
  ]);
}
