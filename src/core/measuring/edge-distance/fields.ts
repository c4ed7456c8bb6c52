/** What is asked and refused of two lines at distances from two edges, for every procedure that burns them. */
import { z } from "zod";
import type { FieldSpec, PlanContext } from "../../trial/plan-form";
import { choice, LENGTH, oneOf, POWER_SHAPE, positive, REPEATS_SHAPE, SPEED, speedShape } from "../../trial/plan-form";
import { knownLengthField, knownLengthShape } from "../known-length";
import { MEASURED_TO, SIDES_X, SIDES_Y } from "./terms";

export const AXES_CHOSEN = { "X and Y": "X and Y", X: "X alone", Y: "Y alone" } as const;

/** @param edge what it lies against: `edge of the stock`, `stop` */
export function edgeFields(edge: string): FieldSpec[] {
  const group = "Lines";
  const withX = { field: "axes", is: ["X and Y", "X"] };
  const withY = { field: "axes", is: ["X and Y", "Y"] };
  return [
    { key: "axes", label: "Axes", group, ...choice(AXES_CHOSEN), why: "" },
    { key: "sideX", label: `X is measured from the ${edge}`, group, ...choice(SIDES_X), why: "" },
    {
      key: "distanceXMm",
      label: "Line along Y at",
      group,
      ...LENGTH,
      why: `From that ${edge}, as it is drawn.`,
      when: withX,
    },
    { key: "sideY", label: `Y is measured from the ${edge}`, group, ...choice(SIDES_Y), why: "" },
    {
      key: "distanceYMm",
      label: "Line along X at",
      group,
      ...LENGTH,
      why: `From that ${edge}, as it is drawn.`,
      when: withY,
    },
    { key: "measuredTo", label: "Measured to", group: "Reading", ...choice(MEASURED_TO), why: "" },
    {
      key: "lineWidthMm",
      label: "Width of the line",
      group: "Reading",
      ...LENGTH,
      why: "Half of it is added.",
      when: { field: "measuredTo", is: ["near"] },
    },
    { key: "repeats", label: "Readings a site", group: "Reading", kind: "count", why: "Set anew each time." },
    knownLengthField(),
    {
      key: "speedMmPerS",
      label: "Speed",
      group: "Burn",
      ...SPEED,
      why: "Slow and thin.",
    },
    { key: "powerPct", label: "Power, %", group: "Burn", kind: "count", why: "" },
  ];
}

/** The shape of {@link edgeFields}. */
export function edgeShape(context: PlanContext) {
  const { machine } = context;
  return {
    axes: oneOf(AXES_CHOSEN),
    sideX: oneOf(SIDES_X),
    sideY: oneOf(SIDES_Y),
    distanceXMm: positive("the distance of the line, for example 20 mm").default(1),
    distanceYMm: positive("the distance of the line, for example 20 mm").default(1),
    measuredTo: oneOf(MEASURED_TO),
    lineWidthMm: z
      .number({ error: "Give the width of the line, for example 0.2 mm." })
      .min(0, "No less than 0.")
      .max(2, "No line is so wide: 0.1 to 0.3 mm is usual.")
      .optional(),
    repeats: REPEATS_SHAPE,
    knownMm: knownLengthShape(context),
    speedMmPerS: speedShape(machine, "the speed"),
    powerPct: POWER_SHAPE,
  };
}
