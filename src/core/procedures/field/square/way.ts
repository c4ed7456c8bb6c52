/** A field measured by the lengths of a square: sides, mid-lines, diagonals, halves or quarters. */
import { predictedReading } from "../../../measuring/examined";
import { withoutLeftOut } from "../../../measuring/length-readings";
import { lengthRow } from "../../../measuring/length-row";
import { readTicks } from "../../../measuring/read-ticks";
import { measured } from "../../../metrology/measured";
import { withinSentence } from "../../../metrology/sentence-case";
import { quantitiesAt } from "../../../trial/answer";
import { lengthUnitOf } from "../../../trial/decisions";
import { estimate, type GivenOutcome } from "../../../trial/given-outcome";
import type { History, RoundRecord } from "../../../trial/history";
import type { Estimate, Finding, ResultTable } from "../../../trial/outcome";
import { FARTHEST, worstOf } from "../found";
import { termError } from "../map";
import type { FieldPlan } from "../plan";
import type { FieldWay } from "../way";
import { fieldRound } from "./coupon";
import { bentSquare, fieldDetail } from "./detail";
import { LENGTHS, type LengthId, lengthOf, lengthsOf, nominalMm } from "./lengths";
import { fieldIn, missingIn, observeField, solvedTerms } from "./observe";

type H = History<FieldPlan>;
type Round = RoundRecord<FieldPlan>;

const MID_LINES: readonly LengthId[] = ["x middle", "y middle"];
/** Lengths come out within this share of their nominal before anything is known. */
const EXPECTED_WITHIN = 0.02;

export const bySquare: FieldWay = {
  nothingRead: "Measure the lengths of the square first.",
  round: fieldRound,
  observe: observeField,
  found: (history, round) => fieldIn(history, round)?.found ?? null,
  missing: missingOutcome,
  estimates: estimatesOf,
  findings: (_, round) => blindFindings(round),
  figures: () => [],
  wishes: () => [],
  table: tableOf,
  expected: (history, { plan }, site) => {
    const predicted = predictedReading(observeField, history, site);
    if (predicted || !lengthsOf(plan).some((id) => id === site)) return predicted;
    const nominal = nominalMm(lengthOf(site), plan);
    return measured(nominal, EXPECTED_WITHIN * nominal, Infinity);
  },
  overlay: (history) => [...bentSquare(history), ...readTicks(history)],
  detail: fieldDetail,
};

/** Lengths that are still to be read. */
function missingOutcome(history: H, round: Round): GivenOutcome | null {
  const missing = missingIn(history, round);
  if (missing.length === 0) return null;
  const { answers } = round;
  const given = missing.filter((id) => answers.some((a) => a.site === id));
  const middle = given.find((id) => MID_LINES.includes(id));
  const name = (id: LengthId) => withinSentence(LENGTHS[id].label);
  if (middle)
    return {
      status: "unsolvable",
      reason: `The ${name(middle)} is missing. Without it, scale and bow cannot be told apart. Measure it, or burn the square again.`,
    };
  const [lost] = given;
  if (lost)
    return {
      status: "unsolvable",
      reason: `This length is missing: ${name(lost)}. Measure it, or burn the square again.`,
    };
  return {
    status: "open",
    missing: `Measure ${missing.slice(0, 3).map(name).join(", ")}${missing.length > 3 ? " and the others" : ""}.`,
  };
}

function estimatesOf(history: H, round: Round): Estimate[] {
  const read = fieldIn(history, round);
  if (!read) return [];
  const helps = "Take more readings per length, or use calipers instead of a rule.";
  return [
    estimate("worst", FARTHEST, worstOf(read.found), { headline: true, helps }),
    ...solvedTerms(round.plan)
      .filter((t) => t !== "quadratic x" && t !== "quadratic y")
      .map((term) => estimate(term, termError(term), read.term(term), { helps })),
  ];
}

/** Errors that these lengths cannot show. */
function blindFindings({ plan }: Round): Finding[] {
  const cubics =
    plan.way === "nine"
      ? "A turn of the head is not visible. Measure the turn against a fence."
      : "Own cubics of the axes and a turn of the head are not visible. Both remain in the field.";
  return [
    { id: "blind", tone: "note", site: null, headline: "Some errors are not visible in these lengths.", text: cubics },
  ];
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
