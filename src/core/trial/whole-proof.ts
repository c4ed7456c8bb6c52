/** A proof stays undecided until every point is read and every result is measured. A result outside the tolerance is not proved, whatever is missing. */
import { countText } from "../metrology/count-text";
import { sitesLeft } from "./answer";
import type { History } from "./history";
import type { Verdict } from "./verdict";

/** Most names in a list. */
const NAMED = 4;

/**
 * @param verdict on the newest round
 * @param results labels of the lines that this round has to prove
 */
export function wholeProof<P>(
  history: Pick<History<P>, "rounds">,
  verdict: Verdict,
  results: readonly string[],
): Verdict {
  const last = history.rounds.at(-1);
  if (!last || verdict.result === "not proved") return verdict;
  const unread = sitesLeft(last.spec.sites, last.answers).filter((s) => !last.answers.some((a) => a.site === s.id));
  const missing = results.filter((label) => !verdict.lines.some((line) => line.label === label));
  if (unread.length === 0 && missing.length === 0) return verdict;
  const advice =
    unread.length > 0
      ? `${countText(unread.length, "point")} not read yet: ${listed(unread.map((s) => s.label))}. Read all points first.`
      : `Not measured in this burn: ${listed(missing)}. Burn the coupon again and read all points.`;
  return {
    ...verdict,
    result: "cannot tell",
    headline: unread.length > 0 ? "Points are not read yet" : "Results are missing",
    advice,
    ways: [],
  };
}

function listed(names: readonly string[]): string {
  const more = names.length - NAMED;
  return names.slice(0, NAMED).join(", ") + (more > 0 ? ` and ${more} more` : "");
}
