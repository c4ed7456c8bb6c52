/**
 * Questions about results that are unlikely for any machine. The limits are common practice without a source. They are wide enough for a
 * machine that was never adjusted.
 */
import { inUnit, plain } from "../metrology/quantity-text";
import { fromInternal } from "../metrology/units";
import type { Estimate, Finding } from "../trial/outcome";

export type MachineLimit = {
  /** Beginning of the ids of these estimates. */
  estimate: string;
  /** Usual values are between these, internal unit. */
  low: number;
  high: number;
  /** What to check, as an instruction. */
  check: string;
};

/** Usual kerfs, mm. A focused beam always removes some material, and wider cuts are rare. (common practice, no source) */
export const USUAL_KERF_MM = { low: 0.01, high: 0.6 } as const;

/** A question for each estimate outside its limits. */
export function beyondMachines(estimates: readonly Estimate[], limits: readonly MachineLimit[]): Finding[] {
  return estimates.flatMap((estimate): Finding[] => {
    const limit = limits.find((l) => estimate.id.startsWith(l.estimate));
    const { value } = estimate.quantity;
    if (!limit || (value >= limit.low && value <= limit.high)) return [];
    const shown = (internal: number) => inUnit(internal, estimate.unit);
    return [
      {
        id: `beyond ${estimate.id}`,
        tone: "needs you",
        site: null,
        headline: `${estimate.label} of ${shown(value)} is unlikely.`,
        text: `Usual values are between ${plain(fromInternal(limit.low, estimate.unit), 3)} and ${shown(limit.high)}. ${limit.check}`,
      },
    ];
  });
}
