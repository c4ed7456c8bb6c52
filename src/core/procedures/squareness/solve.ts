/** How far the axes are from square, which way Y leans, and what to shift on the gantry. */

import { newestRead } from "../../measuring/examined";
import { lengthRow } from "../../measuring/length-row";
import { worthOf } from "../../measuring/number-correction";
import { type Budgeted, joined, times } from "../../metrology/budget";
import { expandedUncertainty } from "../../metrology/measured";
import { fixed, plain, shownLength, shownNumber } from "../../metrology/quantity-text";
import { quantitiesAt } from "../../trial/answer";
import { lengthUnitOf } from "../../trial/decisions";
import { estimate, type GivenOutcome, LEAVE_IT } from "../../trial/given-outcome";
import type { History, RoundRecord } from "../../trial/history";
import type { Adjustment, Estimate, Finding, ResultTable } from "../../trial/outcome";
import { lengthsOf } from "./coupon";
import { LENGTHS, nominalMm } from "./layout";
import { type Lean, leanOf, neededFor, readIn } from "./lean";
import type { SquarenessPlan } from "./plan";

/** A beam is shifted by no less by hand, mm. (common practice, no source) */
const SHIFT_STEP_MM = 0.05;
/** From this lean on something is loose or misread rather than out of square. */
const ASKED_BEYOND = 0.02;

export function solveSquareness(history: History<SquarenessPlan>): GivenOutcome {
  const round = newestRead(history);
  if (!round) return { status: "open", missing: "Nothing is read yet." };
  const found = leanOf(history, round);
  const table = tableOf(history, round);
  if (!found) {
    const isRead = neededFor(round.plan).every((id) => quantitiesAt(round.answers, id).length > 0);
    return isRead
      ? {
          status: "unsolvable",
          reason: "No rectangle has these lengths. Measure all lengths again.",
          table,
          findings: [],
        }
      : { status: "open", missing: missingIn(round.plan), table, findings: [] };
  }
  return {
    status: "solved",
    estimates: estimatesOf(round, found),
    adjustments: [shiftOf(history, round, found.lean)],
    findings: findingsOf(history, found),
    table,
    predicted: "Shift the beam, home the machine and burn again. Expect equal diagonals.",
  };
}

function missingIn({ way }: SquarenessPlan): string {
  return way === "diagonals" ? "Measure both diagonals." : "Measure both sides and the diagonal.";
}

function estimatesOf(round: RoundRecord<SquarenessPlan>, { lean }: Lean): Estimate[] {
  const helps = helpFor(round.plan);
  return [
    estimate("lean", "Lean of Y toward X", lean, { unit: "mmPerM", headline: true, helps }),
    estimate("angle", "Angle off square", lean, { unit: "deg", helps }),
  ];
}

function helpFor({ way }: SquarenessPlan): string {
  return way === "triangle"
    ? "Measure the second diagonal too. The systematic error of the gauge cancels between both."
    : "Burn a larger rectangle, or take more readings.";
}

/** Turning the beam clockwise about its other end by g makes the angle right: the right end comes toward the operator. */
function shiftOf(history: History<SquarenessPlan>, { plan }: RoundRecord<SquarenessPlan>, lean: Budgeted): Adjustment {
  const { quantity, parts } = times(lean, plan.railsMm);
  const unit = lengthUnitOf(history);
  const toward = lean.quantity.value > 0 === (plan.end === "right");
  const size = joined(Math.abs(quantity.value), parts).quantity;
  return {
    id: plan.end,
    label: `${plan.end} end of the beam`,
    quantity: size,
    unit: "mm",
    text:
      size.value < SHIFT_STEP_MM / 2
        ? LEAVE_IT
        : `${shownLength(size.value, unit, 2)} ${toward ? "toward you" : "away from you"}`,
    arithmetic: [
      `${fixed(1000 * lean.quantity.value, 2)} mm per metre × ${plain(plan.railsMm)} mm between the rails = ${shownNumber(quantity.value, unit, 2)} ${unit}`,
      `the back leans to the ${lean.quantity.value > 0 ? "right" : "left"}, so shift the ${plan.end} end ${toward ? "toward you" : "away from you"}`,
    ],
    worth: worthOf(size, SHIFT_STEP_MM),
    at: null,
    turns: { byRad: 0 - lean.quantity.value },
  };
}

function findingsOf(history: History<SquarenessPlan>, { lean }: Lean): Finding[] {
  const { value } = lean.quantity;
  const expanded = expandedUncertainty(lean.quantity);
  const findings: Finding[] = [];
  if (Math.abs(value) > ASKED_BEYOND)
    findings.push({
      id: "far off square",
      tone: "needs you",
      site: null,
      headline: `Y leans by ${plain(1000 * Math.abs(value), 1)} mm per metre. This is unusual for a gantry.`,
      text: "Check that no belt jumped a tooth on one side and that both ends of the beam are tight. Read the corners again.",
    });
  else if (Math.abs(value) + expanded <= history.tolerance)
    findings.push({
      id: "square",
      tone: "good",
      site: null,
      headline: "X and Y are square within the tolerance.",
      text: "Leave the beam where it is.",
    });
  return findings;
}

function tableOf(history: History<SquarenessPlan>, round: RoundRecord<SquarenessPlan>): ResultTable {
  const unit = lengthUnitOf(history);
  const read = readIn(round, history.gauges);
  return {
    title: "Sides and diagonals",
    columns: ["From corner to corner", "drawn"],
    resultLabel: `read, ${unit}`,
    rows: lengthsOf(round.plan).map((id) => {
      const { label } = LENGTHS[id];
      const values = read[id]?.values ?? [];
      return lengthRow(
        { site: id, label, drawnMm: nominalMm(id, round.plan), values, repeats: round.plan.repeats },
        unit,
      );
    }),
  };
}
