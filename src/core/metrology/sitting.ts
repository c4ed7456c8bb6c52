/** One sitting with one gauge: what its closed jaws read, and how a typed reading stands on it. */
import { z } from "zod";
import { type Gauge, hasJaws, type Jaws } from "./gauge";

/** What the closed jaws read, mm; `null` = that pair was not checked. */
export const zeroSchema = z.object({ outside: z.number(), inside: z.number().nullable() });
export type Zero = z.infer<typeof zeroSchema>;

export type Sitting = { gauge: Gauge; zero: Zero };

/** Larger errors are dirt or damage, not a zero, mm. */
export const MOST_ZERO_MM = 1;

/** What the jaws used read when closed; 0 where there are none; `null` where they were not checked. */
export function zeroOf(sitting: Sitting, jaws: Jaws): number | null {
  return hasJaws(sitting.gauge.kind) ? sitting.zero[jaws] : 0;
}

/**
 * How often the common error and the scatter of a gauge are in a reading made of measured terms.
 *
 * A number added to a rule's reading is its allowance (350+6: the rule's zero is not at its end), not measured.
 *
 * @param terms how often each term is in the value, the first as read
 */
export function sharesOf(terms: readonly number[], gauge: Gauge): { common: number; scatter: number } {
  const measured = gauge.kind === "rule" ? terms.filter((share, i) => i === 0 || share < 0) : terms;
  return {
    common: measured.reduce((sum, share) => sum + share, 0),
    scatter: Math.hypot(...measured),
  };
}
