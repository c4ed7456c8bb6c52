import { createHash } from "node:crypto";
import type { Outcome } from "../../core/trial/outcome";
import type { Db } from "../../data/database";
import { toColumn } from "../../data/json-column";
import { addSolution } from "../../data/solutions";
import { type FullTrial, historyOf, roundOf } from "./trial-record";

/** Keeps what was worked out from a round as it stands, with what it was worked out from. @returns its id */
export function frozenSolution(db: Db, full: FullTrial, n: number, outcome: Outcome, now: number): number {
  const inputHash = createHash("sha256")
    .update(toColumn(historyOf(full, n)))
    .digest("hex");
  const { id, version } = full.procedure;
  const roundId = roundOf(full, n).id;
  return addSolution(db, { roundId, engineVersion: `${id} ${version}`, inputHash, result: outcome }, now);
}
