/** How the bed leans, and by how much each support is to be raised. */

import type { MachineSpec } from "../../machine/machine-spec";
import { beyondMachines, type MachineLimit } from "../../measuring/beyond-machines";
import { newestRead } from "../../measuring/examined";
import { worthOf } from "../../measuring/number-correction";
import { type Budgeted, joined } from "../../metrology/budget";
import { expandedUncertainty } from "../../metrology/measured";
import { plain, shownNumber } from "../../metrology/quantity-text";
import { estimate, type GivenOutcome, LEAVE_IT } from "../../trial/given-outcome";
import type { History, RoundRecord } from "../../trial/history";
import type { Adjustment, Estimate, Finding, ResultTable } from "../../trial/outcome";
import type { BedTiltPlan } from "./plan";
import { type BedRead, isCurved, LIFT, readBed } from "./read-bed";

/** A turn is set to this share of it by hand. (common practice, no source) */
const TURN_STEP = 1 / 8;
/** Thinnest shim that is laid, mm. (common practice, no source) */
const SHIM_STEP_MM = 0.05;

export function solveBedTilt(history: History<BedTiltPlan>): GivenOutcome {
  const round = newestRead(history);
  if (!round) {
    const missing = history.rounds.length > 0 ? "No point of the bed is read yet." : "Nothing laid out yet.";
    return { status: "open", missing };
  }
  const read = readBed(history, round);
  const table = tableOf(read);
  const { plane } = read;
  if (plane.status !== "solved")
    return { status: "unsolvable", reason: whyNot(plane.status, round, history.machine), table, findings: [] };
  const estimates = estimatesOf(read, history.machine);
  return {
    status: "solved",
    estimates,
    adjustments: adjustmentsOf(read, round.plan),
    findings: [...beyondMachines(estimates, LIMITS), ...findingsOf(read, round.plan, history.machine)],
    table,
    predicted: "Raise the supports and read again. Expect the same number at every point.",
  };
}

const LIMITS: readonly MachineLimit[] = [
  { estimate: "lift", low: 0, high: 15, check: "Check each reading, and that all were taken in the same unit." },
];

function whyNot(status: "in line" | "few", { plan }: RoundRecord<BedTiltPlan>, machine: MachineSpec): string {
  if (status === "in line") return "All points so far are on one line. Measure a point away from this line.";
  return isCurved(plan, machine)
    ? "Read at least four points, because the field of a galvo is curved."
    : "Read at least three points.";
}

/** The lift that may be largest: what is left of the tilt where it matters. The highest support against itself is none. */
export function largestLift({ lifts }: BedRead): Budgeted | null {
  const size = ({ quantity }: Budgeted) => quantity.value + quantity.standardUncertainty;
  return lifts.reduce<Budgeted | null>((most, { lift }) => (most && size(most) >= size(lift) ? most : lift), null);
}

function estimatesOf(read: BedRead, { widthMm, depthMm }: MachineSpec): Estimate[] {
  const { plane } = read;
  if (plane.status !== "solved") return [];
  const origin = { x: 0, y: 0 };
  const helps = "Take more readings at each point.";
  const largest = largestLift(read);
  return [
    ...(largest ? [estimate(LIFT, "Largest difference between supports", largest, { headline: true, helps })] : []),
    estimate("across", "Right side higher than the left by", plane.difference(origin, { x: widthMm, y: 0 }), { helps }),
    estimate("away", "Back higher than the front by", plane.difference(origin, { x: 0, y: depthMm }), { helps }),
  ];
}

function adjustmentsOf({ lifts }: BedRead, plan: BedTiltPlan): Adjustment[] {
  return lifts.map(({ support, lift }): Adjustment => {
    // A support against itself is 0, and known as such.
    const { quantity } = joined(lift.quantity.value + 0, lift.parts);
    const liftMm = quantity.value;
    const turns = plan.pitchMm > 0 ? liftMm / plan.pitchMm : 0;
    const step = plan.pitchMm > 0 ? plan.pitchMm * TURN_STEP : SHIM_STEP_MM;
    return {
      id: support.id,
      label: support.label,
      quantity,
      unit: "mm",
      text:
        liftMm < step / 2
          ? LEAVE_IT
          : plan.pitchMm > 0
            ? turnText(turns, plan)
            : `shim of ${plain(roundedTo(liftMm, SHIM_STEP_MM), 2)} mm`,
      arithmetic:
        plan.pitchMm > 0
          ? [`${shownNumber(liftMm, "mm", 2)} ÷ ${plain(plan.pitchMm)} mm per turn = ${plain(turns, 2)} turns`]
          : [`${shownNumber(liftMm, "mm", 2)}, in steps of ${plain(SHIM_STEP_MM)} mm`],
      worth: worthOf(quantity, step),
      at: { x: support.x, y: support.y },
    };
  });
}

function turnText(turns: number, { turns: way }: BedTiltPlan): string {
  const rounded = roundedTo(turns, TURN_STEP);
  return `${plain(rounded, 2)} ${rounded === 1 ? "turn" : "turns"} ${way === "clockwise lifts" ? "clockwise" : "counter-clockwise"}`;
}

function roundedTo(value: number, step: number): number {
  return Math.round(value / step) * step;
}

function findingsOf({ plane, places }: BedRead, plan: BedTiltPlan, machine: MachineSpec): Finding[] {
  if (plane.status !== "solved") return [];
  const findings: Finding[] = [];
  const { curvature, isBowed } = plane;
  if (curvature && Math.abs(curvature.value) > expandedUncertainty(curvature)) {
    const reach = Math.hypot(machine.widthMm / 2 - plan.insetMm, machine.depthMm / 2 - plan.insetMm);
    const edge = curvature.value * reach ** 2;
    findings.push({
      id: "field curved",
      tone: "note",
      site: null,
      headline: `Focus at the corners is ${plain(Math.abs(edge), 2)} mm ${edge > 0 ? "higher" : "lower"} than in the middle.`,
      text: "The field of the lens is curved. The tilt is corrected for this. Use a different height for work near the corners.",
    });
  }
  if (isBowed) {
    const read = places.filter((p) => p.offMm !== null);
    const worst = read.reduce(
      (most, p) => (Math.abs(p.offMm ?? 0) > Math.abs(most.offMm ?? 0) ? p : most),
      read[0] ?? { label: "", id: "", offMm: 0 },
    );
    findings.push({
      id: "not flat",
      tone: "needs you",
      site: worst.id,
      headline: `The point ${worst.label} is ${plain(Math.abs(worst.offMm ?? 0), 2)} mm off the plane through the other points.`,
      text: "The bed is bowed, or a reading is wrong. Read this point again. The corner screws cannot correct a bow.",
    });
  }
  return findings;
}

function tableOf({ places, plane }: BedRead): ResultTable {
  return {
    title: "Readouts in focus",
    columns: ["Place", "readouts"],
    resultLabel: "off the plane, mm",
    rows: places.map((p) => {
      const off = plane.status === "solved" ? p.offMm : null;
      return {
        label: p.label,
        sites: [p.id],
        cells: [p.read.map((v) => plain(v, 2)).join("; ") || "…"],
        result: off === null ? "–" : shownNumber(off, "mm", 2),
        state: p.read.length > 0 ? ("read" as const) : ("none" as const),
      };
    }),
  };
}
