/** The course of a trial that measures once, corrects and proves: what most procedures do next, and their words for it. */
import type { SettingSpec } from "../settings/setting";
import { sitesLeft } from "../trial/answer";
import type { History, Next, RoundRecord } from "../trial/history";
import type { Outcome } from "../trial/outcome";
import type { Verdict } from "../trial/verdict";

/** Why more is read where a proof or a check decides nothing. */
export const UNDECIDED = "Undecided. The uncertainty is too large for the tolerance. Take more readings.";

export type CourseWords = {
  /** Nothing is read yet. */
  read: string;
  /** Why the proof is burned. */
  prove: string;
  proved: string;
  holding: string;
};

/** How the proof is laid out and what is set before it; or why there is none yet. */
export type ProofPlan<P> = { plan: P; set: string[] } | { why: string };

/** The same once more with all corrections in force, or after what is adjusted by hand. */
export function sameAgain<P>(
  { rounds }: Pick<History<P>, "rounds">,
  outcome: Outcome,
  settings: readonly SettingSpec[],
): ProofPlan<P> {
  const last = rounds.at(-1);
  const corrections = outcome.status === "solved" ? outcome.corrections : [];
  if (last && (corrections.length > 0 || settings.length === 0))
    return { plan: last.plan, set: corrections.map((c) => c.setting) };
  return { why: "Confirm the value in the controller first. The new value builds on it." };
}

/**
 * @param verdict what the proof or check says so far
 * @param proof what is set before it, and how it is laid out
 */
export function plainNext<P>(
  history: History<P>,
  outcome: Outcome,
  verdict: Verdict | null,
  words: CourseWords,
  proof: ProofPlan<NoInfer<P>>,
): Next<P> {
  const last = history.rounds.at(-1);
  if (!last) return { do: "stop", why: "Nothing is laid out yet." };
  const unread = sitesLeft(last.spec.sites, last.answers).map((s) => s.id);
  const isProof = last.purpose === "proof" || last.purpose === "check";
  if (outcome.status !== "solved" || last.answers.length === 0)
    return { do: "read", sites: unread, why: outcome.status === "unsolvable" ? outcome.reason : words.read };
  if (isProof && unread.length > 0)
    return { do: "read", sites: unread, why: `Read the remaining points of the ${last.purpose}.` };
  if (verdict?.result === "proved") return { do: "stop", why: last.purpose === "check" ? words.holding : words.proved };
  if (verdict && isUndecided(verdict, last))
    return {
      do: "read",
      sites: verdict.ways[0]?.sites ?? [],
      why: verdict.ways.length > 0 ? UNDECIDED : verdict.advice,
    };
  if ("why" in proof) return { do: "read", sites: [], why: proof.why };
  return { do: "round", purpose: "proof", ...proof, why: words.prove };
}

/** More readings can still decide this burn. After new values were entered, another burn has to prove them. */
export function isUndecided({ result }: Verdict, { corrected }: Pick<RoundRecord, "corrected">): boolean {
  return result === "cannot tell" && !corrected;
}

const HEADLINES = {
  proof: { proved: "Proved", "not proved": "Not proved" },
  check: { proved: "Still valid", "not proved": "No longer valid" },
} as const;

const MORE_READINGS = 2;

/** The way out where a proof is undecided. @param again how a point is read again, a whole sentence */
export function readMore(
  { spec }: Pick<RoundRecord, "spec">,
  again = "Set the gauge again each time.",
): Verdict["ways"] {
  return [
    {
      text: `Measure every point ${MORE_READINGS} more times. ${again}`,
      sites: spec.sites.map((s) => s.id),
      more: MORE_READINGS,
      gauge: null,
    },
  ];
}

/** The headline of a proof or a check. */
export function headlineOf(purpose: string, result: Verdict["result"]): string {
  return result === "cannot tell" ? "Undecided" : HEADLINES[purpose === "check" ? "check" : "proof"][result];
}
