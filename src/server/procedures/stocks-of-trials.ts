import type { AnyProcedure } from "../../core/procedures/contract";
import type { Draft } from "../../core/trial/draft";
import type { Db } from "../../data/database";
import { draftsOfMachine } from "../../data/rounds";

/** On which batch each trial of a procedure is: its key, empty where it is on none. */
export function stocksOfTrials(
  db: Db,
  machineId: number,
  { id, stock }: Pick<AnyProcedure, "id" | "stock">,
): (trialId: number) => string {
  const drafts = stock === undefined ? new Map<number, Draft>() : draftsOfMachine(db, machineId, id);
  return (trialId) => drafts.get(trialId)?.[stock?.field ?? ""] ?? "";
}
