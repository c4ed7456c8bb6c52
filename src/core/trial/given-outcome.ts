/** An outcome as a procedure gives it, and as it is completed. */
import type { Budgeted } from "../metrology/budget";
import { sitesLeft } from "./answer";
import type { RoundRecord } from "./history";
import type { Estimate, Outcome } from "./outcome";

/** What an adjustment says where it is smaller than can be set. */
export const LEAVE_IT = "leave it";

/** An estimate as a value with its budget is shown: a length beside the verdict unless said otherwise. */
export function estimate(
  id: string,
  label: string,
  { quantity, parts }: Budgeted,
  of: Partial<Pick<Estimate, "unit" | "headline" | "helps">> = {},
): Estimate {
  return { id, label, quantity, unit: "mm", headline: false, budget: parts, helps: null, ...of };
}

type Given<T, K extends keyof T> = Omit<T, K> & Partial<Pick<T, K>>;
type Open = Extract<Outcome, { status: "open" }>;
type Unsolvable = Extract<Outcome, { status: "unsolvable" }>;
type Solved = Extract<Outcome, { status: "solved" }>;
type OftenEmpty = "corrections" | "adjustments" | "figures" | "learned" | "wishes" | "artefacts" | "findings" | "table";

/** An outcome as a procedure gives it: what is empty is left out, and it is complete once every site is done. */
export type GivenOutcome =
  | Given<Open, "table" | "findings">
  | Given<Unsolvable, "table" | "findings">
  | Given<Solved, OftenEmpty | "complete">;

/** @param round that it is of; `undefined` before anything is read */
export function completed(given: GivenOutcome, round: Pick<RoundRecord, "spec" | "answers"> | undefined): Outcome {
  const shown = { table: given.table ?? null, findings: given.findings ?? [] };
  if (given.status !== "solved") return { ...given, ...shown };
  return {
    complete: round !== undefined && sitesLeft(round.spec.sites, round.answers).length === 0,
    corrections: [],
    adjustments: [],
    figures: [],
    learned: {},
    wishes: [],
    artefacts: [],
    ...given,
    ...shown,
  };
}
