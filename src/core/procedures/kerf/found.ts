/** What a round tells of the kerf, whichever way it was cut. */

import { AXES, type Axis } from "../../machine/machine-kind";
import { type Budgeted, times } from "../../metrology/budget";
import type { Measured } from "../../metrology/measured";
import type { History, RoundRecord } from "../../trial/history";
import { isMateWay, type KerfPlan } from "./plan";
import { type KerfRead, readCuts } from "./read-cuts";
import { kerfOfSnug, type MatesRead, readMates } from "./read-mates";

export type KerfFound = {
  kerf: Budgeted;
  cuts: KerfRead | null;
  mates: MatesRead | null;
  /** Of mates alone: told without a word about how large the gap of a snug fit is. */
  snug: Measured | null;
};

/** @returns `null` while it is not told */
export function kerfIn(history: History<KerfPlan>, round: RoundRecord<KerfPlan>): KerfFound | null {
  if (!isMateWay(round.plan.way)) {
    const cuts = readCuts(history, round);
    return cuts && { kerf: cuts.kerf, cuts, mates: null, snug: null };
  }
  const mates = readMates(history.decisions, round);
  if (!mates?.snug) return null;
  return { kerf: kerfOfSnug(round.plan, mates.snug), cuts: null, mates, snug: mates.snug };
}

/**
 * The offset per side that was used in a round minus the one that it tells: what is left, mm; `null` while it is not told.
 *
 * Of mates the snug offset is held against the one around which they were laid: no gap is supposed. Of a part or a hole alone the size
 * itself is held against what it should be: whatever of it is scale was taken for kerf before, and is still right at this size.
 */
export function leftIn(history: History<KerfPlan>, round: RoundRecord<KerfPlan>): Measured | null {
  const { plan } = round;
  const found = kerfIn(history, { ...round, plan: { ...plan, scaleWithin: 0 } });
  if (!found) return null;
  const own = found.snug ?? times(found.kerf, 0.5).quantity;
  return { ...own, value: (isMateWay(plan.way) ? middleOffset(plan) : plan.grownMm) - own.value };
}

/** The same for each axis with measured sizes. */
export function leftAlong(history: History<KerfPlan>, round: RoundRecord<KerfPlan>): Partial<Record<Axis, Measured>> {
  const { plan } = round;
  const cuts = isMateWay(plan.way) ? null : kerfIn(history, { ...round, plan: { ...plan, scaleWithin: 0 } })?.cuts;
  const left: Partial<Record<Axis, Measured>> = {};
  for (const axis of AXES) {
    const kerf = cuts?.along[axis];
    if (!kerf) continue;
    const own = times(kerf, 0.5).quantity;
    left[axis] = { ...own, value: plan.grownMm - own.value };
  }
  return left;
}

/** The offset in the middle of the mates of a round. */
export function middleOffset({ firstMm, stepMm, mates }: Pick<KerfPlan, "firstMm" | "stepMm" | "mates">): number {
  return firstMm + ((mates - 1) / 2) * stepMm;
}
