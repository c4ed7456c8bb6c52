/** Is it good enough here, and what to do where that cannot be told. */
import { z } from "zod";
import { countText } from "../metrology/count-text";
import { measuredSchema } from "../metrology/measured";
import { unitIdSchema } from "../metrology/units";
import { sitesLeft } from "./answer";
import type { History } from "./history";
import { findingSchema } from "./outcome";

/** More reading that is expected to settle it. */
export const wayOutSchema = z.object({
  text: z.string(),
  /** Where to read more. */
  sites: z.array(z.string()).min(1),
  /** How many more readings at each of them. */
  more: z.number().int().positive(),
  /** Another gauge to read with; `null` = the one in hand. */
  gauge: z.string().nullable(),
});
export type WayOut = z.infer<typeof wayOutSchema>;

export const verdictSchema = z.object({
  result: z.enum(["proved", "not proved", "cannot tell"]),
  headline: z.string(),
  /** What to do about it. */
  advice: z.string(),
  /** Before and after, line by line. */
  lines: z.array(
    z.object({
      label: z.string(),
      before: measuredSchema.nullable(),
      after: measuredSchema,
      result: z.enum(["proved", "not proved", "cannot tell"]),
    }),
  ),
  tolerance: z.number().positive(),
  unit: unitIdSchema,
  /** Ways to a verdict where there is none yet, cheapest first. */
  ways: z.array(wayOutSchema),
  /** What a check charts: found before anything was corrected. */
  asFound: z.object({ label: z.string(), quantity: measuredSchema }),
  findings: z.array(findingSchema),
});
export type Verdict = z.infer<typeof verdictSchema>;

/**
 * A proof or a check is undecided until every point is read and every result is measured. A result outside the tolerance is not proved, whatever is missing.
 */

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
