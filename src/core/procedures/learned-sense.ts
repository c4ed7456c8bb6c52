/**
 * What a larger number does, as burns with different numbers tell it.
 *
 *   slope = (result 2 - result 1) / (number 2 - number 1)
 */

/** A result and the number in force while it was burned. */
export type NumberAndResult = { number: number; result: number; u: number };

/**
 * Slope between the newest two burns, in the units of the result per unit of the number.
 *
 * @param beyond so many times its doubt the result must have moved
 * @returns `null` before there are two, where the number did not change, or the result moved by less
 */
export function slopeOfNewest(known: readonly NumberAndResult[], beyond: number): number | null {
  const [before, after] = known.slice(-2);
  if (!before || !after || before.number === after.number) return null;
  const moved = after.result - before.result;
  return Math.abs(moved) > beyond * Math.hypot(after.u, before.u) ? moved / (after.number - before.number) : null;
}
