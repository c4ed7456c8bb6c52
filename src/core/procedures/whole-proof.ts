/**
 * A proof or a check proves what was measured in it. As long as a point of it is unread, or a result that it has to prove is missing, it is
 * undecided, however good the rest is. What is out of tolerance already stays not proved.
 */
import { countText } from "../metrology/count-text";
import { siteIsDone, sitesLeft } from "./answer";
import type { History } from "./contract";
import type { Verdict } from "./verdict";

/** So many names are listed. */
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
  const unread = sitesLeft(last.spec.sites, last.answers).filter(
    (s) => !last.answers.some((a) => a.site === s.id) && !siteIsDone(s, last.answers),
  );
  const missing = results.filter((label) => !verdict.lines.some((line) => line.label === label));
  if (unread.length === 0 && missing.length === 0) return verdict;
  const advice =
    unread.length > 0
      ? `${countText(unread.length, "point")} not read yet: ${listed(unread.map((s) => s.label))}. Read ${unread.length === 1 ? "it" : "them"} first.`
      : `Not measured in this burn: ${listed(missing)}. Burn it once more and read all of it.`;
  return {
    ...verdict,
    result: "cannot tell",
    headline: unread.length > 0 ? "Not read to the end yet" : "Not all of it is measured",
    advice,
    ways: [],
  };
}

function listed(names: readonly string[]): string {
  const more = names.length - NAMED;
  return names.slice(0, NAMED).join(", ") + (more > 0 ? ` and ${more} more` : "");
}
