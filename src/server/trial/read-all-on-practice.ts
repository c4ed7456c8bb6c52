/** All readings that a practice piece still asks for, one after the other, as a person would take them. */
import { sitesLeft } from "../../core/trial/answer";
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
  const sites = round.spec?.sites ?? [];
  const answers = round.readings.map((r) => r.answer);
  for (let count = 0, [site] = sitesLeft(sites, answers); site; count++, [site] = sitesLeft(sites, answers)) {
    const repeat = answers.filter((a) => a.site === site?.id).length;
    const { input } = readOnPractice(db, trialId, n, site.id);
    const clientKey = `${name}-${trialId}-${n}-${site.id}-${repeat}`;
    answers.push(takeReading(db, { trialId, n, site: site.id, input, from: "practice", clientKey }, at(count)).answer);
  }
}
