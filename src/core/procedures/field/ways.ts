/** The ways of measuring a field. */
import type { HistoryKnown } from "../../measuring/remembering";
import type { RoundRecord } from "../../trial/history";
import type { FieldFound } from "./found";
import { byGrid } from "./grid/way";
import type { FieldPlan } from "./plan";
import { bySquare } from "./square/way";
import type { FieldWay } from "./way";

/** Burns of before there was a grid say none: they are squares. */
export function fieldWayOf({ how = "square" }: Partial<Pick<FieldPlan, "how">>): FieldWay {
  return how === "grid" ? byGrid : bySquare;
}

export function foundIn(history: HistoryKnown<FieldPlan>, round: RoundRecord<FieldPlan>): FieldFound | null {
  return fieldWayOf(round.plan).found(history, round);
}
