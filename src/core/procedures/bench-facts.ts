/** What a whole bench holds, counted. */

/** `newest` is milliseconds; 0 = nothing was ever read or entered. */
export type BenchFacts = { machines: number; trials: number; readings: number; entries: number; newest: number };

/** `3 machines, 12 trials, 380 readings, 1 ledger entry` */
export function benchFactsText({ machines, trials, readings, entries }: BenchFacts): string {
  const counted = (n: number, one: string, many: string) => `${n.toLocaleString("en")} ${n === 1 ? one : many}`;
  return [
    counted(machines, "machine", "machines"),
    counted(trials, "trial", "trials"),
    counted(readings, "reading", "readings"),
    counted(entries, "ledger entry", "ledger entries"),
  ].join(", ");
}
