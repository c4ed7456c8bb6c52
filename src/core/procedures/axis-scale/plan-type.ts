/** What is chosen before an axis is measured. */

import type { Axis } from "../../machine/machine-spec";
import type { KnownLength } from "../../measuring/known-length";
import type { Reaches } from "../../measuring/length-gauges";

export const WAYS = {
  ladder: "A ladder of ticks",
  pair: "Two marks far apart",
  "by hand": "Two marks, moved by hand, readout noted",
  part: "A cut rectangle",
  "part and hole": "A cut rectangle and its hole",
} as const;
export type Way = keyof typeof WAYS;
export const AXES_CHOSEN = { "X and Y": "X and Y", X: "X alone", Y: "Y alone" } as const;
export const APPROACHES = {
  "one side": "From one side",
  "both sides": "From both sides: shows play",
} as const;

export type AxisScalePlan = Reaches &
  KnownLength & {
    way: Way;
    axes: keyof typeof AXES_CHOSEN;
    /** Id of the gauge that is read with. */
    gauge: string;
    /** From the first to the last mark, or the side of the part, mm. */
    spanXMm: number;
    spanYMm: number;
    /** Ways between ticks of a ladder. */
    intervals: number;
    approach: keyof typeof APPROACHES;
    /** Rows of ticks from each side; each is an approach of its own. */
    rows: number;
    repeats: number;
    /** Step of the readout of the head, mm; `by hand` only. */
    readoutStepMm?: number;
    /** Width of the cut as far as it is known, mm; `part` only. */
    kerfMm?: number;
    speedMmPerS: number;
    powerPct: number;
    /** `part` ways only. */
    cutSpeedMmPerS?: number;
    cutPowerPct?: number;
    stockAtXMm: number;
    stockAtYMm: number;
  };

export function axesOf({ axes }: Pick<AxisScalePlan, "axes">): Axis[] {
  return axes === "X and Y" ? ["x", "y"] : axes === "X" ? ["x"] : ["y"];
}

export function spanOf({ spanXMm, spanYMm }: Pick<AxisScalePlan, "spanXMm" | "spanYMm">, axis: Axis): number {
  return axis === "x" ? spanXMm : spanYMm;
}

export function isCut({ way }: Pick<AxisScalePlan, "way">): boolean {
  return way === "part" || way === "part and hole";
}

export function isLadder({ way }: Pick<AxisScalePlan, "way">): boolean {
  return way === "ladder";
}
