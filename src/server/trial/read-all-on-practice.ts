/** All readings that a practice piece still asks for, one after the other, as a person would take them. */
import type { Db } from "../../data/database";
import { readOnPractice } from "./burn-on-practice";
import { fullTrial, roundOf } from "./trial-record";
import { takeReading } from "./trial-steps";

/**
 * @param name begins the key of each taking
 * @param at when the n-th is taken
 */
export function readAllOnPractice(
  db: Db,
  trialId: number,
  n: number,
  name: string,
  at: (taken: number) => number,
): void {
  const round = roundOf(fullTrial(db, trialId), n);
  const unit = round.sessions.at(-1)?.gauge.unit ?? "mm";
  let count = 0;
  for (const site of round.spec?.sites ?? []) {
    const there = round.readings.filter((r) => r.site === site.id).length;
    for (let repeat = there; repeat < site.repeats; repeat++) {
      const { text, value } = readOnPractice(db, trialId, n, site.id);
      const words = value.kind === "quantity" && value.value < 0 ? "negative" : "positive";
      const clientKey = `${name}-${trialId}-${n}-${site.id}-${repeat}`;
      const input = { kind: "quantity", text, words, unit } as const;
      takeReading(db, { trialId, n, site: site.id, input, from: "practice", clientKey }, at(count++));
    }
  }
}
