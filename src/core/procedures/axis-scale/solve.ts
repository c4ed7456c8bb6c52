/** The scale of each axis from what was read, what to enter, and what was noticed. */

import type { Axis } from "../../machine/machine-kind";
import { axesOf } from "../../measuring/axes-field";
import { beyondMachines, type MachineLimit, USUAL_KERF_MM } from "../../measuring/beyond-machines";
import { newestRead } from "../../measuring/examined";
import { type Approaches, positioning } from "../../measuring/positioning";
import type { BudgetPart } from "../../metrology/budget";
import type { Measured } from "../../metrology/measured";
import { expandedUncertainty } from "../../metrology/measured";
import { plain, withUncertainty } from "../../metrology/quantity-text";
import { lengthUnitOf } from "../../trial/decisions";
import { estimate, type GivenOutcome } from "../../trial/given-outcome";
import type { History, RoundRecord } from "../../trial/history";
import type { Estimate } from "../../trial/outcome";
import { scaleCorrection } from "./correction";
import { figuresOf } from "./figures";
import { findingsOf } from "./findings";
import { type AxisRead, axesRead, estimateId } from "./observe";
import { type AxisScalePlan, isLadder, spanOf } from "./plan";
import { resultTable } from "./result-table";

/** A tick that reads less than the one before it by more than this is out of order, mm. */
const OUT_OF_ORDER_MM = 1;

export function solveAxisScale(history: History<AxisScalePlan>): GivenOutcome {
  const round = newestRead(history);
  if (!round) return { status: "open", missing: "Nothing is read yet." };
  const axes = axesRead(history, round);
  const table = resultTable(round, axes, lengthUnitOf(history));
  if (axes.length === 0) return { status: "open", missing: missingIn(round.plan), table, findings: [] };
  const findings = findingsOf(history, round, axes);
  const wrong =
    axes.map(outOfOrder).find((text) => text !== null) ?? axes.map(notGrowing).find((text) => text !== null);
  if (wrong) return { status: "unsolvable", reason: wrong, table, findings };
  const estimates = axes.flatMap((read) => estimatesOf(round, read));
  return {
    status: "solved",
    estimates,
    corrections: axes.flatMap((read) => scaleCorrection(history, round, read) ?? []),
    findings: [...beyondMachines(estimates, LIMITS), ...findings],
    table,
    figures: figuresOf(round, axes, lengthUnitOf(history)),
    predicted: predictedFor(round.plan),
  };
}

const LIMITS: readonly MachineLimit[] = [
  {
    estimate: "scale",
    low: -0.015,
    high: 0.015,
    check: "Check the readings, the readout, the drawing, and the value read back.",
  },
  { estimate: "kerf", ...USUAL_KERF_MM, check: "Check that part and hole are not mixed up." },
  {
    estimate: "backlash",
    low: -1,
    high: 1,
    check: "Check that ticks approached from each side were not mixed up.",
  },
];

function missingIn({ way }: AxisScalePlan): string {
  if (way === "by hand") return "Note both readouts and measure the distance.";
  return way === "part and hole" ? "Measure part and hole along one axis." : "Measure along one axis.";
}

function predictedFor(plan: AxisScalePlan): string {
  const spans = axesOf(plan).map((axis) => `${plain(spanOf(plan, axis))} mm along ${axis.toUpperCase()}`);
  return `Enter the new value of one axis and read it back. Then do the same for the other axis. Expect ${spans.join(" and ")} in the next burn.`;
}

/** Error of an axis as a share: what a nominal length comes out too long. */
export function errorOf({ ratio }: AxisRead) {
  return { ...ratio.quantity, value: ratio.quantity.value - 1 };
}

function estimatesOf(round: RoundRecord<AxisScalePlan>, read: AxisRead): Estimate[] {
  const name = read.axis.toUpperCase();
  const places = positioning(approachesOf(read));
  const error = { quantity: errorOf(read), parts: read.ratio.parts };
  const helps = helpFor(round.plan, read);
  return [
    estimate(estimateId(read.axis), `Error of length, ${name}`, error, { unit: "percent", headline: true, helps }),
    ...(read.kerf ? [estimate(`kerf ${read.axis}`, `Cut, by part and hole along ${name}`, read.kerf)] : []),
    ...(read.reversal
      ? [estimate(`backlash ${read.axis}`, `${name}: from the last minus from the first`, read.reversal)]
      : []),
    ...(places?.repeatability ? [repeatabilityOf(read.axis, places.repeatability)] : []),
  ];
}

function repeatabilityOf(axis: Axis, quantity: Measured): Estimate {
  const { standardUncertainty, degreesOfFreedom } = quantity;
  const parts: BudgetPart[] = [
    { id: "few", label: "Few approaches", kind: "A", standardUncertainty, degreesOfFreedom },
  ];
  const label = `${axis.toUpperCase()}: repeatability from both sides, as read`;
  return estimate(`repeatability ${axis}`, label, { quantity, parts }, { helps: "Burn more rows from each side." });
}

/** Where each tick lies by its rows, minus nominal. */
export function approachesOf({ read }: AxisRead): Approaches[] {
  const places = [...new Set(read.map((r) => r.nominalMm))];
  return places.map((nominalMm) => {
    const from = (side: "up" | "down") =>
      read.flatMap((r) =>
        r.nominalMm === nominalMm && r.place.kind === "tick" && r.place.side === side ? [r.mean - nominalMm] : [],
      );
    return { nominalMm, up: from("up"), down: from("down") };
  });
}

function helpFor(plan: AxisScalePlan, { ratio }: AxisRead): string | null {
  const [largest] = ratio.parts;
  if (!largest) return null;
  if (largest.id.startsWith("limit"))
    return "Measure a longer length, or use a better gauge. The limit of error of this gauge dominates.";
  if (largest.id.startsWith("placing"))
    return isLadder(plan)
      ? "Take more readings, or burn a longer ladder."
      : "Take more readings, or measure a longer length.";
  if (largest.id.startsWith("form")) return "Cut another part from stock that cannot move during the cut.";
  if (largest.id.startsWith("kerf")) return "Measure the hole too.";
  return "Measure a longer length.";
}

function outOfOrder({ axis, read }: AxisRead): string | null {
  const rows = new Map<string, { site: string; index: number; mm: number }[]>();
  for (const { place, mean } of read)
    if (place.kind === "tick") {
      const key = `${place.row}`;
      rows.set(key, [...(rows.get(key) ?? []), { site: place.site, index: place.index, mm: mean }]);
    }
  for (const row of rows.values()) {
    const sorted = [...row].sort((a, b) => a.index - b.index);
    const at = sorted.findIndex((r, i) => i > 0 && r.mm < (sorted[i - 1]?.mm ?? 0) - OUT_OF_ORDER_MM);
    const [before, here] = [sorted[at - 1], sorted[at]];
    if (before && here)
      return `${axis.toUpperCase()}, tick ${here.index} reads ${plain(here.mm, 2)} mm, less than tick ${before.index} (${plain(before.mm, 2)} mm). Check that you read both from tick 0. Read both again.`;
  }
  return null;
}

function notGrowing({ axis, ratio }: AxisRead): string | null {
  const { value } = ratio.quantity;
  if (value > 0) return null;
  return `Readings along ${axis.toUpperCase()} do not grow with the nominal length (${withUncertainty(ratio.quantity, "one")}, ± ${plain(expandedUncertainty(ratio.quantity), 3)}). Read from tick 0, always from the same edge.`;
}
