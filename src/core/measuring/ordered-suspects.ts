/**
 * Judgements in order (how a pair fits, which cells marked) have no residuals, but they contradict each other all the same: each of them by
 * how likely it is by all the others, or two answers by more than their uncertainty. A person decides about them as about readings.
 */

import { acceptedIds, acceptSuspect, leaveOut } from "../trial/decisions";
import type { Finding } from "../trial/outcome";

export type OrderedSuspect = {
  id: string;
  headline: string;
  text: string;
  /** Where to judge again. */
  site: string | null;
  /** Names of the judgements that can be left out. */
  judgements: readonly string[];
};

/** Those that a person has not accepted. */
export function notAccepted(
  suspects: readonly OrderedSuspect[],
  decisions: Readonly<Record<string, string>>,
): OrderedSuspect[] {
  const accepted = acceptedIds(decisions);
  return suspects.filter((s) => !accepted.has(s.id));
}

/** The finding of judgements that contradict each other. */
export function orderedFinding({ id, headline, text, site, judgements }: OrderedSuspect): Finding {
  return {
    id: `suspect ${id}`,
    tone: "needs you",
    headline,
    text,
    site,
    suspect: { accept: acceptSuspect(id).key, leaveOut: judgements.map((j) => leaveOut(j).key) },
  };
}
