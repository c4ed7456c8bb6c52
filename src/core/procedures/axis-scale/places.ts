/** Every size of a round that is measured, with what it should be. Coupon, sites and solver go by this one list. */

import { AXES, type Axis } from "../../machine/machine-kind";
import { axesOf } from "../../measuring/axes-field";
import { type AxisScalePlan, isLadder, spanOf } from "./plan";

/** From which side a tick was come to. */
export type Side = "up" | "down";

export type MeasuredPlace = { site: string; axis: Axis; nominalMm: number } & (
  | { kind: "tick"; index: number; side: Side; row: number }
  | { kind: "readout"; end: "from" | "to" }
  | { kind: "distance" }
  /** A side of a part, or of the hole that it left, near one of the two sides across. */
  | { kind: "side"; of: "part" | "hole"; near: "low" | "high" }
);

const SIDE_WORDS: Record<Axis, { low: string; high: string }> = {
  x: { low: "front", high: "back" },
  y: { low: "left", high: "right" },
};

export const sideWord = (axis: Axis, near: "low" | "high") => SIDE_WORDS[axis][near];

/** Rows of ticks, from the guide line outwards: each with the side from which its ticks are come to. */
export function rowsOf({ way, approach, rows }: Pick<AxisScalePlan, "way" | "approach" | "rows">): Side[] {
  if (way !== "ladder" || approach === "one side") return ["up"];
  return Array.from({ length: rows }, () => ["up", "down"] as const).flat();
}

export function placesOf(plan: AxisScalePlan): MeasuredPlace[] {
  return AXES.filter((axis) => axesOf(plan).includes(axis)).flatMap((axis) => onAxis(plan, axis));
}

function onAxis(plan: AxisScalePlan, axis: Axis): MeasuredPlace[] {
  const nominalMm = spanOf(plan, axis);
  switch (plan.way) {
    case "ladder":
    case "pair":
      return rowsOf(plan).flatMap((side, row) => ticks(plan, axis, side, row));
    case "by hand":
      return [
        { site: `${axis} from`, axis, nominalMm: 0, kind: "readout", end: "from" },
        { site: `${axis} to`, axis, nominalMm, kind: "readout", end: "to" },
        { site: `${axis} distance`, axis, nominalMm, kind: "distance" },
      ];
    default: {
      const objects = plan.way === "part" ? (["part"] as const) : (["part", "hole"] as const);
      return objects.flatMap((of) =>
        (["low", "high"] as const).map((near) => ({
          site: `${axis} ${of} ${sideWord(axis, near)}`,
          axis,
          nominalMm,
          kind: "side" as const,
          of,
          near,
        })),
      );
    }
  }
}

/** Ticks from the first, which is the zero of all of them. */
function ticks(plan: AxisScalePlan, axis: Axis, side: Side, row: number): MeasuredPlace[] {
  const count = isLadder(plan) ? plan.intervals : 1;
  const single = rowsOf(plan).length === 1;
  return Array.from({ length: count }, (_, i) => ({
    site: `${axis} ${i + 1}${single ? "" : ` ${side} ${Math.floor(row / 2) + 1}`}`,
    axis,
    nominalMm: (spanOf(plan, axis) * (i + 1)) / count,
    kind: "tick" as const,
    index: i + 1,
    side,
    row,
  }));
}
