/**
 * What a larger home offset does, as it is said or as two burns with different offsets tell it.
 *
 *   slope = (e2 - e1) / ((new - old) count)      about +1: away from the edge, about -1: toward it
 */
import { elementAt } from "../../fitting/element-at";
import type { Axis } from "../../machine/machine-kind";
import type { MachineSpec } from "../../machine/machine-spec";
import { numberIn } from "../../measuring/number-correction";
import { slopeOfNewest } from "../../settings/learned-sense";
import type { History, RoundRecord } from "../../trial/history";
import { edgesIn } from "./observe";
import { isCount, type OriginPlan } from "./plan";
import { HOME_OFFSETS } from "./setting";

/** A change tells its sense when it is as large as its uncertainty: it can only be one or the other. It tells its size from further off. */
const TELLS_SENSE = 1;
export const TELLS_SIZE = 3;

export type Sense =
  | { known: true; sense: 1 | -1; from: "said" | "learned"; slope: number | null }
  /** Taken as +1 for a first try. */
  | { known: false; sense: 1 };

export function specOf(axis: Axis) {
  return elementAt(HOME_OFFSETS, axis === "x" ? 0 : 1);
}

/** What a change of one moves, mm: a count, or 1 where the number of this axis is a length. */
export function countMm({ countMm: count }: OriginPlan, { held }: Pick<MachineSpec, "held">, axis: Axis): number {
  return isCount(held, axis) ? count : 1;
}

export function senseOf(history: History<OriginPlan>, round: RoundRecord<OriginPlan>, axis: Axis): Sense {
  const slope = learnedSlope(history, axis, TELLS_SENSE);
  const said = axis === "x" ? round.plan.senseX : round.plan.senseY;
  if (said !== "not known") return { known: true, sense: said === "away" ? 1 : -1, from: "said", slope };
  if (slope === null) return { known: false, sense: 1 };
  return { known: true, sense: slope > 0 ? 1 : -1, from: "learned", slope };
}

/** By the newest two rounds between which the number changed, and the mark moved with it `beyond` its uncertainty; `null` before there are such. */
export function learnedSlope(history: History<OriginPlan>, axis: Axis, beyond: number): number | null {
  const known = history.rounds.flatMap((round) => {
    const number = numberIn(round, specOf(axis).key);
    const error = edgesIn(history, round)?.errors[axis];
    if (number === null || !error) return [];
    const { value: result, standardUncertainty: u } = error.quantity;
    return [{ value: number * countMm(round.plan, history.machine, axis), result, u }];
  });
  return slopeOfNewest(known, beyond);
}
