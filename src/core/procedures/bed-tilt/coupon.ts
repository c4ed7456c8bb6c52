/** A bed is read at its places: nothing is burned to be kept. */

import { readoutAsk } from "../../coupon/ask";
import type { RoundSpec } from "../../coupon/round-spec";
import { eyewearLine } from "../../machine/not-known";
import { plain } from "../../metrology/quantity-text";
import type { PlanContext } from "../../trial/plan-form";
import { placesOf } from "./places";
import type { BedTiltPlan } from "./plan";

/** Readouts up to this are typed without being asked about, mm. */
const PLAUSIBLE_MM = 5000;

export function bedTiltRound(plan: BedTiltPlan, { machine }: PlanContext): RoundSpec {
  const places = placesOf(plan, machine);
  const fromMiddle = machine.kind === "galvo";
  const where = ({ x, y }: { x: number; y: number }) =>
    fromMiddle
      ? `X ${plain(x - machine.widthMm / 2)}, Y ${plain(y - machine.depthMm / 2)} mm from the middle`
      : `${plain(x)} mm from the left, ${plain(y)} mm from the front`;
  return {
    pieces: [],
    placement: { xMm: 0, yMm: 0 },
    delivery: "Nothing is kept: heights are read",
    program: [
      {
        kind: "tell",
        text: "Find the focus at each point in the same way, for example with a spacer that just fits. Write down the number of the readout.",
      },
      ...places.map((p) => ({ kind: "tell" as const, text: `Bed, ${p.label}: ${where(p)}` })),
    ],
    sites: places.map((p) => ({
      id: p.id,
      label: `Bed, ${p.label}`,
      question: `Number of the readout in focus, ${p.label}?`,
      ask: readoutAsk({ plausibleUpTo: PLAUSIBLE_MM, stepMm: plan.settableMm }),
      measurand: { kind: "focus readout", xMm: p.x, yMm: p.y },
      place: null,
      repeats: plan.repeats,
      openEnded: false,
    })),
    checklist: [
      eyewearLine(machine),
      "Switch the beam off if you use a spacer.",
      "Clear the bed. Use one flat piece and move it from point to point.",
      "Approach each height from the same side.",
    ],
  };
}
