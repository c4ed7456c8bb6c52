/** For tests: copies of the demo bench, and what a step refuses. */
import { type Database, openDatabase } from "../data/database";
import { addDemoBench } from "../server/demo/demo-bench";
import { Refusal } from "../server/refusal";

export const NOW = Date.UTC(2026, 10, 25, 9);

let made: Buffer | null = null;

/** The demo bench as it stands at `NOW`: made once a file, each test begins with a copy. */
export function demoCopy(): Database {
  if (!made) {
    const fresh = openDatabase(":memory:");
    addDemoBench(fresh, NOW);
    made = fresh.$client.serialize();
  }
  return openDatabase(made);
}

/** @throws Error when nothing is refused, or something else goes wrong */
export function refusal(act: () => unknown): Refusal {
  try {
    act();
  } catch (error) {
    if (error instanceof Refusal) return error;
    throw error;
  }
  throw new Error("nothing was refused");
}
