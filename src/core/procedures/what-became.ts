/** What became of an error once it was corrected, where it was large enough to tell. */
import type { Measured } from "../metrology/measured";

/** An error this many times its doubt tells what became of it. */
const TELLING = 4;
/** As before, or twice as large, give or take this share. */
const NEAR = 0.28;

/** `unchanged`: the correction did not get there. `doubled`: it went the other way. `null`: neither, or not to be told. */
export function whatBecame(before: Measured | null, after: Measured): "unchanged" | "doubled" | null {
  const doubt = Math.hypot(before?.standardUncertainty ?? 0, after.standardUncertainty);
  if (!before || Math.abs(before.value) < TELLING * doubt) return null;
  const share = after.value / before.value;
  if (Math.abs(share - 1) < NEAR) return "unchanged";
  return Math.abs(share - 2) < NEAR ? "doubled" : null;
}
