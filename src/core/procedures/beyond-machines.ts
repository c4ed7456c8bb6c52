/**
 * Results that no machine is likely to have: asked about before they are entered. Limits are common practice, no source, unless one is
 * named; each is wide enough for a machine that was never set up.
 */
import { plain } from "../metrology/quantity-text";
import { fromInternal, UNITS } from "../metrology/units";
import type { Estimate, Finding } from "./outcome";

export type MachineLimit = {
  /** Estimates whose id begins so. */
  estimate: string;
  /** Internal unit; usual results lie between them. */
  low: number;
  high: number;
  /** What to look at, as an instruction. */
  check: string;
};

/** A question for each estimate that lies beyond its limits by more than its uncertainty leaves open. */
export function beyondMachines(estimates: readonly Estimate[], limits: readonly MachineLimit[]): Finding[] {
  return estimates.flatMap((estimate): Finding[] => {
    const limit = limits.find((l) => estimate.id.startsWith(l.estimate));
    const { value } = estimate.quantity;
    if (!limit || (value >= limit.low && value <= limit.high)) return [];
    const shown = (internal: number) => plain(fromInternal(internal, estimate.unit), 3);
    const symbol = UNITS[estimate.unit].symbol;
    return [
      {
        id: `beyond ${estimate.id}`,
        tone: "needs you",
        site: null,
        headline: `${estimate.label} of ${shown(value)} ${symbol} is unlikely.`,
        text: `Usual values lie between ${shown(limit.low)} and ${shown(limit.high)} ${symbol}. ${limit.check}`,
      },
    ];
  });
}
