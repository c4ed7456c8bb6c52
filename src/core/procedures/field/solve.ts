/** The field as it is, what to enter so that it is right, and what no setting of this controller can make right. */
import { combine } from "../../estimate/adjustment";
import { beyondMachines, type MachineLimit } from "../../measuring/beyond-machines";
import { newestRead } from "../../measuring/examined";
import { withoutLeftOut } from "../../measuring/length-readings";
import { lengthRow } from "../../measuring/length-row";
import { numberIn } from "../../measuring/number-correction";
import type { Budgeted } from "../../metrology/budget";
import { fixed, plain } from "../../metrology/quantity-text";
import { withinSentence } from "../../metrology/sentence-case";
import { learnedEffectKey } from "../../settings/learned-of-machine";
import { quantitiesAt } from "../../trial/answer";
import { lengthUnitOf } from "../../trial/decisions";
import { estimate, type GivenOutcome } from "../../trial/given-outcome";
import type { History, RoundRecord } from "../../trial/history";
import type { Estimate, Finding, ResultTable } from "../../trial/outcome";
import { correctionsOf, type Tuned, tunedIn } from "./correction";
import { fieldFigures } from "./figures";
import { errorLabel } from "./judge";
import { LENGTHS, type LengthId, lengthsOf, nominalMm } from "./lengths";
import { basisOf, mapped, termName, type Vector, worstPoint } from "./map";
import { needsOf } from "./needs";
import { type FieldRead, fieldIn, missingIn, solvedTerms } from "./observe";
import { type FieldPlan, formTermsOf } from "./plan";
import { atWholeField, effectMm } from "./present";
import { fieldKey } from "./setting";

type H = History<FieldPlan>;
type Round = RoundRecord<FieldPlan>;

const CHECK = "Check the readings and their unit, and which two crossings were measured.";
const LIMITS: readonly MachineLimit[] = [
  { estimate: "scale", low: -6, high: 6, check: CHECK },
  { estimate: "bow", low: -6, high: 6, check: CHECK },
  { estimate: "keystone", low: -3, high: 3, check: CHECK },
  { estimate: "shear", low: -3, high: 3, check: CHECK },
  { estimate: "own cubic", low: -2, high: 2, check: CHECK },
];
const MID_LINES: readonly LengthId[] = ["x middle", "y middle"];

export function solveField(history: H): GivenOutcome {
  const round = newestRead(history);
  if (!round) return { status: "open", missing: "Nothing is read yet." };
  const table = tableOf(history, round);
  const missing = missingIn(history, round);
  if (missing.length > 0) return missingOutcome(round, missing, table);
  const read = fieldIn(history, round);
  const needs = needsOf(history, round);
  if (!read || !needs)
    return { status: "unsolvable", reason: "No field has these lengths. Measure all lengths again.", table };
  const tuned = tunedIn(history, round);
  const estimates = estimatesOf(round, read);
  const after = worstPoint(needs.composed.after, round.plan.fieldMm / 2);
  return {
    status: "solved",
    estimates,
    corrections: correctionsOf(history, round, needs.needs, tuned),
    findings: [
      ...beyondMachines(estimates, LIMITS),
      ...tuned.flatMap((t) => tuningFindings(t)),
      ...rangeMissing(history, round, tuned),
      ...blindFindings(round),
      belongsTo(round),
    ],
    table,
    figures: fieldFigures(round, read, needs),
    learned: Object.fromEntries(
      tuned.flatMap(({ term, slope }) =>
        slope === null ? [] : [[learnedEffectKey(fieldKey(term)), atWholeField(slope, history, round, term)]],
      ),
    ),
    predicted: `Enter the new values and burn again. The farthest point will then be ${fixed(after.mm, 2)} mm off, instead of ${fixed(worstOf(round, read).quantity.value, 2)} mm.`,
  };
}

/** Which lengths are still to be read, or cannot be done without. */
function missingOutcome({ answers }: Round, missing: readonly LengthId[], table: ResultTable): GivenOutcome {
  const given = missing.filter((id) => answers.some((a) => a.site === id));
  const middle = given.find((id) => MID_LINES.includes(id));
  const name = (id: LengthId) => withinSentence(LENGTHS[id].label);
  if (middle)
    return {
      status: "unsolvable",
      table,
      reason: `The ${name(middle)} is missing. Without it, scale and bow cannot be told apart. Measure it, or burn the square again.`,
    };
  const [lost] = given;
  if (lost)
    return {
      status: "unsolvable",
      table,
      reason: `This length is missing: ${name(lost)}. Measure it, or burn the square again.`,
    };
  return {
    status: "open",
    table,
    missing: `Measure ${missing.slice(0, 3).map(name).join(", ")}${missing.length > 3 ? " and the others" : ""}.`,
  };
}

/** The error of the farthest point, with its uncertainty along the way in which it is off. */
export function worstOf({ plan }: Round, { map, fit }: FieldRead): Budgeted {
  const half = plan.fieldMm / 2;
  const { at, mm } = worstPoint((p: Vector) => mapped(map, p, half), half);
  const to = mapped(map, at, half);
  const [nx, ny] = mm > 0 ? [(to.x - at.x) / mm, (to.y - at.y) / mm] : [1, 0];
  const row = Object.fromEntries(
    solvedTerms(plan).map((term) => {
      const b = basisOf(term, { x: at.x / half, y: at.y / half });
      return [term, nx * b.x + ny * b.y];
    }),
  );
  const spread = combine(fit, row);
  return { ...spread, quantity: { ...spread.quantity, value: mm } };
}

function estimatesOf(round: Round, read: FieldRead): Estimate[] {
  const helps = "Take more readings per length, or use calipers instead of a rule.";
  return [
    estimate("worst", "Farthest point of the field", worstOf(round, read), { headline: true, helps }),
    ...solvedTerms(round.plan)
      .filter((t) => t !== "quadratic x" && t !== "quadratic y")
      .map((term) => estimate(term, errorLabel(term), read.term(term), { helps })),
  ];
}

function tuningFindings({ term, step, tries }: Tuned): Finding[] {
  const says = (id: string, tone: Finding["tone"], headline: string, text: string): Finding[] => [
    { id: `${id} ${term}`, tone, site: null, headline, text },
  ];
  if (step.do === "try") {
    if (step.why !== "first step" && step.why !== "larger step") return [];
    return says(
      "tune",
      "note",
      `The effect of ${termName(term)} is not known.`,
      "Enter the value and burn again. The next burn shows the effect.",
    );
  }
  if (step.why === "end of range")
    return says(
      "out of range",
      "needs you",
      `${termName(term)} reaches the end of its range.`,
      "The range of this setting cannot correct the error. Enter the nearest value. Check that X and Y of the head are not mixed up.",
    );
  if (step.why === "nearest" && tries.length > 1)
    return says(
      "no zero",
      "needs you",
      `No value of ${termName(term)} gives zero.`,
      "The nearest value is shown. Check that the controller uses this coefficient.",
    );
  return [];
}

/** A coefficient that is to be tried needs its range. */
function rangeMissing(history: H, round: Round, tuned: readonly Tuned[]): Finding[] {
  return formTermsOf(round.plan).flatMap((term): Finding[] => {
    const isTuned = tuned.some((t) => t.term === term);
    const isReadBack = numberIn(round, fieldKey(term)) !== null;
    if (isTuned || !isReadBack || effectMm(history, round, term) !== null) return [];
    return [
      {
        id: `range ${term}`,
        tone: "needs you",
        site: null,
        headline: `The range of ${termName(term)} is not known.`,
        text: "Enter its smallest and largest value on the machine page. Ustrina then proposes a value to try.",
      },
    ];
  });
}

/** What these lengths cannot show. */
function blindFindings({ plan }: Round): Finding[] {
  const cubics =
    plan.way === "nine"
      ? "A turn of the head is not visible. Measure the turn against a fence."
      : "Own cubics of the axes and a turn of the head are not visible. Both remain in the field.";
  return [
    { id: "blind", tone: "note", site: null, headline: "Some errors are not visible in these lengths.", text: cubics },
  ];
}

/** The conditions of the burn. In others the field is another one. */
function belongsTo({ plan }: Round): Finding {
  const perTenth = 0.1 * Math.tan((plan.beamDeg * Math.PI) / 180);
  const height = plan.heightMm ? `a height of ${plain(plan.heightMm, 2)} mm and ` : "";
  return {
    id: "belongs to",
    tone: "note",
    site: null,
    headline: `This field is valid for ${height}stock of ${plain(plan.stockMm, 2)} mm.`,
    text: `A height that is 0.1 mm wrong moves the edge of the field by ${fixed(perTenth, 3)} mm. Set the focus on the top face of every stock.`,
  };
}

function tableOf(history: H, round: Round): ResultTable {
  const unit = lengthUnitOf(history);
  const { plan } = round;
  const kept = withoutLeftOut(round.answers, history.decisions);
  return {
    title: "Lengths of the square",
    columns: ["Length", `drawn, ${unit}`],
    resultLabel: `read, ${unit}`,
    rows: lengthsOf(plan).map((id) => {
      const [{ label }, values] = [LENGTHS[id], quantitiesAt(kept, id)];
      return lengthRow({ site: id, label, drawnMm: nominalMm(id, plan), values, repeats: plan.repeats }, unit);
    }),
  };
}
