/**
 * A round part on a rotary that goes as far as it is sent: around it, a step of it, how fast its surface may go, what artwork is multiplied by.
 *
 *   around      C = pi d
 *   a step      rollers: pi D / N at the roller, d_mark / d_rest of that where it is marked;   chuck: pi d_mark / N
 *   top speed   the step times the steps a second that the driver follows
 *   artwork     rollers: times d_rest / d_mark;   chuck: times d_told / d_mark, 1 where it is told what it is
 *
 * [the angle is the same at every diameter: travel = angle d / 2; common practice, no source]
 */
import type { RotaryDrive } from "../machine/part-spec";

export type RoundPart = {
  drive: RotaryDrive;
  /** Across where it is marked, mm. */
  markedMm: number;
  /** Across where it lies on the rollers; of a chuck what the machine is told, mm. */
  turnsByMm: number;
};

export type DriveNumbers = {
  stepsPerRevolution: number;
  /** Rollers only, mm. */
  rollerDiameterMm: number | null;
  /** Steps a second that its driver follows; `null` = not known. */
  mostStepsPerS: number | null;
};

export function circumferenceMm(diameterMm: number): number {
  return Math.PI * diameterMm;
}

/** By what artwork is multiplied along the way around, for this part alone. */
export function artworkFactor({ markedMm, turnsByMm }: Pick<RoundPart, "markedMm" | "turnsByMm">): number {
  return turnsByMm / markedMm;
}

export type PartSteps = {
  /** How far the marked surface goes for a step, mm. */
  stepMm: number;
  /** Steps for one turn of the part: seldom a whole number on rollers. */
  perTurn: number;
  /** The fastest that the surface may go, mm/s; `null` where it is not known. */
  topSpeedMmPerS: number | null;
};

/** @returns `null` where the drive is not known well enough */
export function partSteps(part: RoundPart, drive: DriveNumbers): PartSteps | null {
  const { stepsPerRevolution, rollerDiameterMm, mostStepsPerS } = drive;
  if (part.drive === "roller" && rollerDiameterMm === null) return null;
  const turned = part.drive === "roller" ? (rollerDiameterMm ?? 0) / artworkFactor(part) : part.markedMm;
  const stepMm = circumferenceMm(turned) / stepsPerRevolution;
  return {
    stepMm,
    perTurn: circumferenceMm(part.markedMm) / stepMm,
    topSpeedMmPerS: mostStepsPerS === null ? null : stepMm * mostStepsPerS,
  };
}

/** Drawings that meet within this meet, mm: a tenth is a line's width. (common practice, no source) */
export const MEETS_WITHIN_MM = 0.1;

export type Wraps =
  | { kind: "once" }
  /** What stays free, mm. */
  | { kind: "gap"; mm: number }
  /** What is marked twice, mm, and how often it goes around. */
  | { kind: "overlap"; mm: number; turns: number };

/** Whether a drawing goes once around. @param lengthMm of the drawing, along the way around */
export function wrapsOf(lengthMm: number, diameterMm: number): Wraps {
  const around = circumferenceMm(diameterMm);
  const left = around - lengthMm;
  if (Math.abs(left) <= MEETS_WITHIN_MM) return { kind: "once" };
  return left > 0 ? { kind: "gap", mm: left } : { kind: "overlap", mm: -left, turns: lengthMm / around };
}
