/**
 * The effect of a larger value, from two burns with different values.
 *
 *   slope = (result 2 - result 1) / (value 2 - value 1)
 */

/** A result with its standard uncertainty, and the value in force during its burn. */
export type ValueAndResult = { value: number; result: number; u: number };

/**
 * Slope between the two newest burns, in units of the result per unit of the value.
 *
 * @param beyond the result must have changed by more than this many standard uncertainties
 * @returns `null` with fewer than two burns, without a change of the value, or with a smaller change of the result
 */
export function slopeOfNewest(burns: readonly ValueAndResult[], beyond: number): number | null {
  const [before, after] = burns.slice(-2);
  if (!before || !after || before.value === after.value) return null;
  const change = after.result - before.result;
  return Math.abs(change) > beyond * Math.hypot(after.u, before.u) ? change / (after.value - before.value) : null;
}
