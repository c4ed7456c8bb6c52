/** The run sheet of a round, for paper and for the print view. */
import { lengthUnitOf } from "../core/procedures/shown-unit";
import type { Db } from "../data/database";
import { type RunSheet, runSheet } from "../formats/run-sheet/sheet-content";
import { couponCode, type FullTrial, laidOut, roundOf } from "./trial-record";

/** @throws Refusal when there is no such round, or its layout is not complete */
export function roundSheet(db: Db, full: FullTrial, n: number): RunSheet {
  const round = roundOf(full, n);
  const { spec, inForce } = laidOut(db, full, round);
  return runSheet({
    procedure: full.procedure,
    machine: full.machine,
    couponCode: couponCode(full, n),
    purpose: round.purpose,
    ...{ spec, inForce, unit: lengthUnitOf(full.trial) },
  });
}
