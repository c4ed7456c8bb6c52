/**
 * How far the origin is off, and the new offsets.
 *
 *   new = old - sense e / count      e measured minus nominal, away from the edge; sense +1 if a larger number moves marks away
 *
 * 0.064 in at 0.001 in a count is 64 counts. [common practice, no source]
 */

import type { Axis } from "../../machine/machine-kind";
import { beyondMachines, type MachineLimit } from "../../measuring/beyond-machines";
import { edgeFindings } from "../../measuring/edge-distance/findings";
import { errorsRead } from "../../measuring/edge-distance/read-edges";
import { edgeTable } from "../../measuring/edge-distance/result-table";
import { distanceOf, offText, sideOf } from "../../measuring/edge-distance/terms";
import { newestRead } from "../../measuring/examined";
import { holdOf, numberCorrection, numberIn } from "../../measuring/number-correction";
import { type Budgeted, times } from "../../metrology/budget";
import { fixed, plain, shownLength, signed } from "../../metrology/quantity-text";
import { fromInternal, UNITS } from "../../metrology/units";
import { lengthUnitOf } from "../../trial/decisions";
import { estimate, type GivenOutcome } from "../../trial/given-outcome";
import type { History, RoundRecord } from "../../trial/history";
import type { Correction, Estimate, Finding } from "../../trial/outcome";
import { edgesIn, estimateId } from "./observe";
import type { OriginPlan } from "./plan";
import { countMm, learnedSlope, type Sense, senseOf, specOf, TELLS_SIZE } from "./sense";
import { HOME_OFFSET } from "./setting";

/** A count that moves this much more or less than said is another count. */
const COUNT_WITHIN = 0.3;

const LIMITS: readonly MachineLimit[] = [
  {
    estimate: "error",
    low: -10,
    high: 10,
    check: "Check the reading and the edge that it was measured from. Check that the stock touches both stops.",
  },
];

export function solveOrigin(history: History<OriginPlan>): GivenOutcome {
  const round = newestRead(history);
  if (!round) return { status: "open", missing: "Nothing is read yet." };
  const read = edgesIn(history, round);
  const unit = lengthUnitOf(history);
  const table = edgeTable(round.plan, round.spec.sites, read, unit);
  if (!read) return { status: "open", missing: "Measure from one edge.", table, findings: [] };
  const errors = errorsRead(read);
  const axes = errors.map((e) => e.axis);
  const corrections = errors.flatMap(({ axis, error }) => correctionOf(history, round, axis, error) ?? []);
  const estimates = errors.map(({ axis, error }) => estimateOf(round, axis, error));
  const edges = edgeFindings(read);
  return {
    status: "solved",
    estimates,
    corrections,
    findings: [
      ...(edges.some((f) => f.tone === "needs you") ? [] : beyondMachines(estimates, LIMITS)),
      ...edges,
      ...axes.flatMap((axis) => senseFindings(history, round, axis)),
      ...corrections.flatMap((c) => rangeEnd(c, Math.abs(read.errors[axisOf(c)]?.quantity.value ?? 0))),
    ],
    table,
    predicted: `Enter the new offset of one axis and read it back. Then do the same for the other axis, and home the machine. Expect the lines ${axes.map((axis) => `${plain(distanceOf(round.plan, axis))} mm from the ${sideOf(round.plan, axis)} edge`).join(" and ")}.`,
  };
}

function estimateOf({ plan }: RoundRecord<OriginPlan>, axis: Axis, error: Budgeted): Estimate {
  const helps = "Take more readings, or burn a box with longer sides.";
  return estimate(estimateId(axis), `Error from the ${sideOf(plan, axis)} edge`, error, { headline: true, helps });
}

/** @returns `null` while the offset in force is not read back */
function correctionOf(
  history: History<OriginPlan>,
  round: RoundRecord<OriginPlan>,
  axis: Axis,
  error: Budgeted,
): Correction | null {
  const spec = specOf(axis);
  const old = numberIn(round, spec.key);
  if (old === null) return null;
  const sense = senseOf(history, round, axis);
  const count = countMm(round.plan, history.machine, axis);
  const unit = lengthUnitOf(history);
  const held = holdOf(history.machine, spec);
  const change = times(error, -sense.sense / count).quantity;
  const shown = (value: number) => plain(fromInternal(value, held.unit), 4);
  const symbol = UNITS[held.unit].symbol;
  const per = count === 1 ? "" : ` ÷ ${plain(count, 4)} mm per count`;
  return numberCorrection(history.machine, {
    spec,
    estimate: estimateId(axis),
    old,
    change,
    heldBack: null,
    arithmetic: [
      `measured − nominal, at the corner: ${offText(error.quantity.value, shownLength(Math.abs(error.quantity.value), unit, 3), sideOf(round.plan, axis), "edge")}`,
      senseLine(sense),
      `${shown(old)} ${change.value < 0 ? "−" : "+"} ${fixed(Math.abs(error.quantity.value), 3)} mm${per} = ${shown(old + change.value)} ${symbol}`,
    ],
    leaves: (rounding) => `rounding leaves ${signed(rounding * count, 3)} mm`,
  });
}

function senseLine(sense: Sense): string {
  if (!sense.known)
    return "assumed for a first try, because it is not known: a larger number moves marks away from the edge";
  const what = `a larger number moves marks ${sense.sense > 0 ? "away from" : "toward"} the edge`;
  return sense.from === "said" ? what : `${what}, as the last two burns show`;
}

function senseFindings(history: History<OriginPlan>, round: RoundRecord<OriginPlan>, axis: Axis): Finding[] {
  const name = axis.toUpperCase();
  const says = (id: string, tone: Finding["tone"], headline: string, text: string): Finding[] => [
    { id: `${id} ${axis}`, tone, site: null, headline, text },
  ];
  if (numberIn(round, specOf(axis).key) === null)
    return says(
      "not read back",
      "needs you",
      `The offset of ${name} is not read back.`,
      "Read the offset at the controller and confirm it. The new offset is worked out from the old one.",
    );
  const sense = senseOf(history, round, axis);
  if (!sense.known)
    return says(
      "sense",
      "note",
      `The effect of a larger offset of ${name} is not known.`,
      "The new offset is a first try. If the marks move the wrong way, the next burn shows it. The offset after that is right.",
    );
  const slope = learnedSlope(history, axis, TELLS_SIZE);
  if (slope === null) return [];
  if (Math.sign(slope) !== sense.sense)
    return says(
      "other sense",
      "needs you",
      `A larger offset of ${name} moves marks the opposite way.`,
      `The last two burns show that a larger offset moves marks ${slope > 0 ? "away from" : "toward"} the edge. Choose this when you lay out the next burn.`,
    );
  if (Math.abs(Math.abs(slope) - 1) > COUNT_WITHIN)
    return says(
      "count",
      "needs you",
      `The offset of ${name} moved marks ${plain(Math.abs(slope), 2)} times as far as expected.`,
      `Check that one count is ${plain(countMm(round.plan, history.machine, axis), 4)} mm, and check the unit of the offset.`,
    );
  return [];
}

function axisOf({ setting }: Correction): Axis {
  return setting === HOME_OFFSET.x ? "x" : "y";
}

/** What the controller cannot take is left for the switch or the stops. */
function rangeEnd(correction: Correction, offMm: number): Finding[] {
  const [row] = correction.rows;
  if (!row?.heldBack || row.old === null) return [];
  return [
    {
      id: `range end ${correction.setting}`,
      tone: "needs you",
      site: null,
      headline: `${correction.label} is at the limit of the controller.`,
      text: `The controller cannot move the marks by ${shownLength(offMm, "mm", 2)}. Move the home switch or the stops of the bed by about this distance. Then home the machine and measure again.`,
    },
  ];
}
