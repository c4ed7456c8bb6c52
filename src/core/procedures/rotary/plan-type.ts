/** What is chosen before a rotary is measured. */

import type { RotaryDrive } from "../../machine/part-spec";
import type { Reaches } from "../../measuring/length-gauges";

export const WAYS = {
  wrap: "A line once around, and the gap that it leaves",
  span: "Two lines a length apart, burned",
  traced: "A line of known length, traced by the aiming dot",
} as const;
export type Way = keyof typeof WAYS;

export const DRIVES = { roller: "Rollers carry the part", chuck: "A chuck holds it" } as const satisfies Record<
  RotaryDrive,
  string
>;
export const REPLACED = { y: "Y: the part lies along X", x: "X: the part lies along Y" } as const;
export const HELD = {
  both: "Steps per revolution and roller diameter",
  steps: "Steps per revolution alone",
  diameter: "Roller diameter alone",
} as const;
export const RESTS = { same: "Where it is marked", other: "On another diameter: a neck or a step" } as const;
export const SIZED = { across: "Calipers, across", around: "A tape measure, around" } as const;
export const BACK = { yes: "Yes: slip shows", no: "No" } as const;

/** In the place of a name, where no rotary is written down as fitted. */
export const NO_NAME = "not written down";

export type RotaryPlan = Reaches & {
  way: Way;
  drive: RotaryDrive;
  /** Name of the rotary that is fitted. */
  rotary: string;
  replaces: keyof typeof REPLACED;
  /** What its controller holds of it; rollers only. */
  holds?: keyof typeof HELD;
  /** Across where it is marked, as the machine is told, mm. */
  diameterMm: number;
  /** How its size is measured when it is read. */
  sizedBy: keyof typeof SIZED;
  /** Rollers only. */
  rests?: keyof typeof RESTS;
  /** Across where it lies on the rollers, mm. */
  restsOnMm?: number;
  /** How far the surface of a chucked part goes up and down in a turn, mm. */
  runoutMm?: number;
  /** From line to line, mm; `span`, `traced`. */
  spanMm?: number;
  /** Thickness of the tape on which it is burned or drawn, mm; 0 = none. */
  tapeMm?: number;
  thereAndBack: keyof typeof BACK;
  /** Step of the readout, and within what the dot is set on a line, mm; `traced`. */
  readoutStepMm?: number;
  dotMm?: number;
  gauge: string;
  repeats: number;
  /** `traced` is not burned. */
  speedMmPerS?: number;
  powerPct?: number;
  /** Where the marks begin along the part, from the edge of the working area, mm. */
  beginsAtMm?: number;
};

/** From the first line to the last as it is sent, mm: once around, or the length that is chosen. */
export function sentMm({ way, diameterMm, spanMm = 0 }: Pick<RotaryPlan, "way" | "diameterMm" | "spanMm">): number {
  return way === "wrap" ? Math.PI * diameterMm : spanMm;
}

export function isBurned({ way }: Pick<RotaryPlan, "way">): boolean {
  return way !== "traced";
}

/** Whether the part lies on another diameter than the one that is marked. */
export function restsElsewhere({ drive, rests }: Pick<RotaryPlan, "drive" | "rests">): boolean {
  return drive === "roller" && rests === "other";
}

/** Which sizes of the part the travel is worked out from. */
export function sizesNeeded(plan: Pick<RotaryPlan, "way" | "drive" | "rests">): ("marked" | "resting")[] {
  if (restsElsewhere(plan)) return ["marked", "resting"];
  return plan.way === "wrap" || plan.drive === "chuck" ? ["marked"] : [];
}
