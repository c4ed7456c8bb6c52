/** On the drawing of what is burned: the seam where the part has come round, and what is read. */
import { line } from "../../drawing/close-up";
import type { Primitive } from "../../drawing/scene";
import { readTicks } from "../../measuring/read-ticks";
import { plain } from "../../metrology/quantity-text";
import type { History } from "../../trial/history";
import { ALONG_MM, LEAD_MM, pointAt } from "./layout";
import { isBurned, type RotaryPlan } from "./plan";

/** Where the way around is drawn, beside the lanes. */
const ACROSS_MM = ALONG_MM - 2.5;

export function overlayOf(history: History<RotaryPlan>): Primitive[] {
  const plan = history.rounds.at(-1)?.plan;
  return [...(plan && isBurned(plan) ? seamOf(plan) : []), ...readTicks(history)];
}

/** Where what is drawn flat meets itself on the part. */
export function seamOf(plan: RotaryPlan): Primitive[] {
  const around = Math.PI * plan.diameterMm;
  const seam = (v: number) =>
    line(pointAt(plan, 0, v), pointAt(plan, ALONG_MM, v), { tone: "faint", weight: "hair", dashed: true });
  return plan.way === "wrap"
    ? [
        seam(LEAD_MM),
        seam(LEAD_MM + around),
        {
          kind: "dimension",
          from: pointAt(plan, ACROSS_MM, LEAD_MM),
          to: pointAt(plan, ACROSS_MM, LEAD_MM + around),
          along: plan.replaces,
          at: pointAt(plan, ACROSS_MM, LEAD_MM)[plan.replaces === "y" ? "x" : "y"],
          text: plain(around, 1),
          tone: "faint",
        },
      ]
    : [];
}
