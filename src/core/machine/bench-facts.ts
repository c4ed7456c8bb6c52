/** What a whole bench holds, counted. */
import { countText } from "../metrology/count-text";

/** `newest` is milliseconds; 0 = nothing was ever read or entered. */
export type BenchFacts = { machines: number; trials: number; readings: number; entries: number; newest: number };

/** `3 machines, 12 trials, 380 readings, 1 ledger entry` */
export function benchFactsText({ machines, trials, readings, entries }: BenchFacts): string {
  return [
    countText(machines, "machine"),
    countText(trials, "trial"),
    countText(readings, "reading"),
    countText(entries, "ledger entry", "ledger entries"),
  ].join(", ");
}
