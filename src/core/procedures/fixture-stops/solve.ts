/**
 * Where the stops of a fixture stand.
 *
 *   stop = where it was taken to stand - e      e measured minus nominal, away from the stop
 */

import { elementAt } from "../../fitting/element-at";
import type { Axis } from "../../machine/machine-kind";
import { edgeFindings } from "../../measuring/edge-distance/findings";
import { edgesOf, errorsRead } from "../../measuring/edge-distance/read-edges";
import { edgeTable } from "../../measuring/edge-distance/result-table";
import { offText, sideOf } from "../../measuring/edge-distance/terms";
import { newestRead } from "../../measuring/examined";
import { numberCorrection } from "../../measuring/number-correction";
import { type Budgeted, times } from "../../metrology/budget";
import { fixed, plain, shownLength, signed } from "../../metrology/quantity-text";
import { lengthUnitOf } from "../../trial/decisions";
import type { GivenOutcome } from "../../trial/given-outcome";
import type { History, RoundRecord } from "../../trial/history";
import type { Correction, Estimate } from "../../trial/outcome";
import { aboutOf, type FixturePlan, linesOf } from "./plan";
import { FIXTURE_STOPS } from "./setting";

export function solveFixture(history: History<FixturePlan>): GivenOutcome {
  const round = newestRead(history);
  if (!round) return { status: "open", missing: "Nothing is read yet." };
  const read = stopsIn(history, round);
  const unit = lengthUnitOf(history);
  const table = edgeTable(round.plan, round.spec.sites, read, unit);
  if (!read) return { status: "open", missing: "Measure from one stop.", table, findings: [] };
  return {
    status: "solved",
    estimates: errorsRead(read).map(({ axis, error }) => estimateOf(round, axis, error)),
    corrections: errorsRead(read).map(({ axis, error }) => correctionOf(history, round, axis, error)),
    findings: edgeFindings(read),
    table,
    predicted: "Write down the new positions of the stops. Expect the next cross at its nominal distances.",
  };
}

/** Usual error of the position of a stop, sd, mm. (common practice, no source) */
const USUAL_MM = 6;

const estimateId = (axis: Axis) => `stop ${axis}`;

export const { read: stopsIn, observe: observeStops } = edgesOf<FixturePlan>({
  linesOf,
  estimateId,
  edge: "stop",
  usualMm: USUAL_MM,
});

function estimateOf({ plan }: RoundRecord<FixturePlan>, axis: Axis, error: Budgeted): Estimate {
  const { quantity, parts } = times(error, -1);
  return {
    id: estimateId(axis),
    label: `Stop of ${axis.toUpperCase()}, from the ${sideOf(plan, axis)} side`,
    unit: "mm",
    quantity: { ...quantity, value: aboutOf(plan, axis) + quantity.value },
    headline: true,
    budget: parts,
    helps: "Take more readings, or use longer arms.",
  };
}

function correctionOf(
  history: History<FixturePlan>,
  { plan }: RoundRecord<FixturePlan>,
  axis: Axis,
  error: Budgeted,
): Correction {
  const spec = elementAt(FIXTURE_STOPS, axis === "x" ? 0 : 1);
  const unit = lengthUnitOf(history);
  const old = aboutOf(plan, axis);
  const change = times(error, -1).quantity;
  return numberCorrection(history.machine, {
    spec,
    estimate: estimateId(axis),
    old,
    change,
    heldBack: null,
    arithmetic: [
      `measured − nominal, at the corner of the stops: ${offText(error.quantity.value, shownLength(Math.abs(error.quantity.value), unit, 3), sideOf(plan, axis), "stop")}`,
      `taken to stand at ${plain(old)} mm ${change.value < 0 ? "−" : "+"} ${fixed(Math.abs(change.value), 3)} mm = ${fixed(old + change.value, 3)} mm from the ${sideOf(plan, axis)} side of the working area`,
    ],
    leaves: (rounding) => `rounding leaves ${signed(rounding, 3)} mm`,
  });
}
