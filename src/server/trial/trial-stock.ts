/** The stock of a trial, and what is kept of it on its card. */
import type { StockResult } from "../../core/trial/outcome";
import type { Db } from "../../data/database";
import { addStockResult, batchByKey, resultsOfTrial, takeBackStockResult } from "../../data/stocks";
import { Refusal } from "../refusal";
import { frozenSolution } from "./frozen-solution";
import { type FullTrial, fullTrial, historyOf, readingStamp, roundOf } from "./trial-record";

/** Rounds of which something is kept. */
export type KeptRound = { id: number; n: number; result: StockResult; keptAt: number };

export function keptRounds(db: Db, full: FullTrial): KeptRound[] {
  return resultsOfTrial(db, full.trial.id).flatMap(({ id, roundId, result, keptAt }) => {
    const round = full.rounds.find((r) => r.id === roundId);
    return round ? [{ id, n: round.n, result, keptAt }] : [];
  });
}

/**
 * Keeps what a round told on the card of its stock, in place of what an earlier round of the trial told.
 *
 * @param seen the readings that the page had worked from, as `readingStamp` names them
 * @throws Refusal when there is nothing to keep, its stock has no card here, or readings changed since
 */
export function keepForStock(db: Db, trialId: number, n: number, seen: string, now: number): void {
  const full = fullTrial(db, trialId);
  const round = roundOf(full, n);
  if (seen !== readingStamp(full, n))
    throw new Refusal(
      "readings",
      "Readings were taken or taken back since these numbers were worked out. Look at them again.",
    );
  const outcome = full.procedure.solve(historyOf(full, n));
  const result = outcome.status === "solved" ? outcome.forStock : undefined;
  if (!result) throw new Refusal("stock", "There is nothing to keep yet.");
  const found = batchByKey(db, result.stock);
  if (!found) throw new Refusal("stock", "This stock has no card here any more: make one, and keep it then.");
  db.transaction((tx) => {
    for (const kept of resultsOfTrial(tx, trialId)) takeBackStockResult(tx, kept.id, now);
    const solutionId = frozenSolution(tx, full, n, outcome, now);
    addStockResult(tx, {
      batchId: found.batch.id,
      machineId: full.trial.machineId,
      trialId,
      roundId: round.id,
      solutionId,
      result,
      note: "",
      keptAt: now,
    });
  });
}

/** What was kept of a trial is taken off the card again. */
export function takeOffCard(db: Db, trialId: number, now: number): void {
  const kept = resultsOfTrial(db, trialId);
  if (kept.length === 0) throw new Refusal("stock", "Nothing of this trial is kept.");
  for (const { id } of kept) takeBackStockResult(db, id, now);
}
