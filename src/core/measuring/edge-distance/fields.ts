/** What is asked of two lines at distances from two edges, for every procedure that burns them. */
import { field } from "../../trial/plan-field";
import type { PlanContext } from "../../trial/plan-form";
import { lineFields, repeatsField } from "../../trial/shared-fields";
import { axesField, WITH_X, WITH_Y } from "../axes-field";
import { knownLengthField } from "../known-length";
import { type EdgeTerms, MEASURED_TO, SIDES_X, SIDES_Y } from "./terms";

type Usual = Pick<EdgeTerms, "sideX" | "sideY" | "distanceXMm" | "distanceYMm">;

/** @param edge what it lies against: `edge of the stock`, `stop` */
export function edgeFields(context: PlanContext, edge: string, usual: Usual) {
  const group = "Lines";
  const why = `Drawn distance from that ${edge}.`;
  return {
    axes: axesField(group),
    sideX: field.choice(SIDES_X, { label: `X is measured from the ${edge}`, group, usual: usual.sideX }),
    distanceXMm: field.length({ label: "Line along Y at", group, why, usual: usual.distanceXMm, when: WITH_X }),
    sideY: field.choice(SIDES_Y, { label: `Y is measured from the ${edge}`, group, usual: usual.sideY }),
    distanceYMm: field.length({ label: "Line along X at", group, why, usual: usual.distanceYMm, when: WITH_Y }),
    measuredTo: field.choice(MEASURED_TO, { label: "Measured to", group: "Reading", usual: "centre" }),
    lineWidthMm: field.length({
      label: "Width of the line",
      group: "Reading",
      why: "Half of the width is added to each reading.",
      usual: 0.2,
      min: 0,
      max: [2, "Lines are usually 0.1 to 0.3 mm wide."],
      when: { field: "measuredTo", is: ["near"] },
    }),
    repeats: repeatsField(2),
    knownMm: knownLengthField(context),
    ...lineFields(context.machine),
  };
}
