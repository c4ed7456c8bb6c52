/** How far the surface goes for what is sent, and the number that makes it right. */

import { numberIn } from "../../measuring/number-correction";
import { type Budgeted, joined } from "../../metrology/budget";
import { shownNumber } from "../../metrology/quantity-text";
import { quantitiesAt } from "../../trial/answer";
import { lengthUnitOf } from "../../trial/decisions";
import { estimate, type GivenOutcome } from "../../trial/given-outcome";
import type { History, RoundRecord } from "../../trial/history";
import type { Correction, Estimate, ResultTable } from "../../trial/outcome";
import { ESTIMATE, travelCorrection } from "./correction";
import { againstDescription, findingsOf } from "./findings";
import { type RotaryPlan, restsElsewhere, sentMm, sizesNeeded } from "./plan";
import { readTravel, type TravelRead } from "./read-travel";
import { ROLLER_DIAMETER, ROTARY_STEPS } from "./setting";
import { sizeSlip } from "./size-slip";
import { SITES } from "./travel";

/** Less than this share of what was sent is no travel at all. */
const STANDS_STILL = 0.005;

export function solveRotary(history: History<RotaryPlan>): GivenOutcome {
  const round = history.rounds.findLast((r) => r.answers.length > 0);
  const table = round ? tableOf(history, round) : null;
  if (!round) return { status: "open", missing: "Nothing is read yet.", table, findings: [] };
  const read = readTravel(history, round);
  if (stoodStill(round)) return { status: "unsolvable", reason: STOOD_STILL, table, findings: [] };
  if (!read) return { status: "open", missing: missingIn(round.plan), table, findings: [] };
  const reason = contradictionIn(round.plan, read);
  if (reason) return { status: "unsolvable", reason, table, findings: [] };
  const correction = travelCorrection(history, round, read);
  return {
    status: "solved",
    estimates: estimatesOf(round.plan, read),
    corrections: correction ? [correction] : [],
    findings: [
      ...findingsOf(history, round, read),
      ...againstDescription(describedIn(round), stepsAfter(round, correction)),
    ],
    table,
    predicted: predictedFor(round.plan),
  };
}

function missingIn(plan: RotaryPlan): string {
  const size = plan.sizedBy === "around" ? "measure around the part" : "measure across the part";
  const sizes = sizesNeeded(plan).length > 0 ? `, and ${size}` : "";
  if (plan.way === "traced") return `Note both readouts and measure the line${sizes}.`;
  return plan.way === "wrap"
    ? `Measure the gap and the width of a line${sizes}.`
    : `Measure from line 1 to line 2${sizes}.`;
}

const STOOD_STILL =
  "The readout is the same at both ends of the line. Check that the rotary is plugged in, switched on and chosen in the controller. Then note both readouts again.";

/** The readout shows the same at both ends of a line. */
function stoodStill({ plan, answers }: RoundRecord<RotaryPlan>): boolean {
  const [first, second] = [SITES.first, SITES.second].map((site) => quantitiesAt(answers, site).at(-1));
  if (first === undefined || second === undefined) return false;
  return Math.abs(second - first) <= STANDS_STILL * sentMm(plan);
}

function contradictionIn(plan: RotaryPlan, read: TravelRead): string | null {
  const slip = sizeSlip(plan, read.read);
  if (slip) return slip;
  if (read.travelled > STANDS_STILL * read.due) return null;
  return read.travelled < 0
    ? "The last line is before the first. The workpiece turned the wrong way, or the gap is longer than the circumference. Check which line is which, and read again."
    : "The workpiece did not turn. Check that the rotary is plugged in, switched on and chosen in the controller. Check that its steps are not 0, and that the driven roller carries the workpiece.";
}

function predictedFor(plan: RotaryPlan): string {
  if (plan.way === "wrap") return "Enter the new value and read it back. Expect the next line to end where it begins.";
  return "Enter the new value and read it back. Expect the commanded travel in the next burn.";
}

/** Error of the travel as a share: what goes by too much. */
export function errorOf({ ratio }: Pick<TravelRead, "ratio">) {
  return { ...ratio.quantity, value: ratio.quantity.value - 1 };
}

function estimatesOf(plan: RotaryPlan, read: TravelRead): Estimate[] {
  const error = { quantity: errorOf(read), parts: read.ratio.parts };
  const { marked, resting, back } = read;
  return [
    estimate(ESTIMATE, "Error of travel", error, { unit: "percent", headline: true, helps: helpFor(plan, read) }),
    ...(marked
      ? [
          estimate("marked", "Across where it is marked", marked, {
            helps: "Take more readings, and turn the workpiece between them.",
          }),
        ]
      : []),
    ...(resting ? [estimate("resting", "Across where it lies", resting)] : []),
    ...(back ? [estimate("back", "Off its place after the way back", back)] : []),
    ...(restsElsewhere(plan) && marked && resting ? [partFactor(marked, resting)] : []),
  ];
}

/** By which artwork is multiplied for a part that rests on one diameter and is marked on another. */
function partFactor(marked: Budgeted, resting: Budgeted): Estimate {
  const factor = resting.quantity.value / marked.quantity.value;
  const relative = (b: Budgeted, id: string) =>
    b.parts.map((p) => ({
      ...p,
      id: `${id} ${p.id}`,
      standardUncertainty: (factor * p.standardUncertainty) / b.quantity.value,
    }));
  const budgeted = joined(factor, [...relative(marked, "marked"), ...relative(resting, "resting")]);
  return estimate("part factor", "For this part, artwork times", budgeted, { unit: "one" });
}

function helpFor(plan: RotaryPlan, { ratio }: TravelRead): string | null {
  const [largest] = ratio.parts;
  if (!largest) return null;
  const { id } = largest;
  if (id.startsWith("placing size"))
    return "Take more readings of the workpiece, turned between them. Or measure around it with a tape measure.";
  if (id.startsWith("limit") || id.startsWith("zero"))
    return "Use a thicker workpiece or a better gauge. The limit of error of this gauge dominates.";
  if (id === "runout")
    return plan.way === "wrap" ? "Align the workpiece in the chuck." : "Burn a line once around. Runout cancels there.";
  if (id === "tape") return "Use thinner tape, or burn a line once around on the workpiece.";
  if (id === "dot" || id === "readout") return "Use a longer line, or burn the line.";
  if (id === "grip") return null;
  if (id === "on each other") return "Read with a microscope, or burn with a thinner line.";
  return plan.way === "wrap" ? "Take more readings of the gap." : "Take more readings, or burn a line once around.";
}

function describedIn({ spec }: RoundRecord<RotaryPlan>): number | null {
  return spec.turned?.describedSteps ?? null;
}

/** The steps that are right; `null` where they are not known. */
function stepsAfter(round: RoundRecord<RotaryPlan>, correction: Correction | null) {
  const [row] = correction?.rows ?? [];
  if (correction?.setting === ROTARY_STEPS && row) return { exact: row.enter - row.rounding, isMeasured: true };
  const held = correction?.setting === ROLLER_DIAMETER ? numberIn(round, ROTARY_STEPS) : null;
  return held === null ? null : { exact: held, isMeasured: false };
}

function tableOf(history: History<RotaryPlan>, round: RoundRecord<RotaryPlan>): ResultTable {
  const unit = lengthUnitOf(history);
  const found = readTravel(history, round);
  const shown = [SITES.line, SITES.span, SITES.gap, SITES.width, SITES.back, SITES.marked, SITES.resting] as const;
  return {
    title: "Travel and part",
    columns: ["Place"],
    resultLabel: `read, ${unit}`,
    rows: round.spec.sites
      .filter((site) => shown.includes(site.id as (typeof shown)[number]))
      .map((site) => {
        const here = round.answers.filter((a) => a.site === site.id);
        const value = found?.read[site.id as (typeof shown)[number]] ?? meanOf(here);
        return {
          label: site.label,
          sites: [site.id],
          cells: [],
          result: value === null ? (here.length > 0 ? "on each other" : "–") : shownNumber(value, unit, 2),
          state: here.length === 0 ? "none" : here.length >= site.repeats || value === null ? "read" : "part",
        };
      }),
  };
}

function meanOf(answers: RoundRecord["answers"]): number | null {
  const values = answers.flatMap(({ content }) =>
    content.status === "read" && content.value.kind === "quantity" ? [content.value.value] : [],
  );
  return values.length === 0 ? null : values.reduce((sum, v) => sum + v, 0) / values.length;
}
