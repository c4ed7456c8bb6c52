/**
 * Is it good enough here? A residual with its expanded uncertainty against a tolerance.
 *
 * Idea of ISO 14253-1:2017 (decision rules), from memory: proved only where the whole interval is inside.
 */

import type { Measured } from "./measured";
import { expandedUncertainty } from "./measured";

export type Ruling = "proved" | "not proved" | "cannot tell";

/**
 * @param residual what is left, in the unit of the tolerance
 * @param tolerance largest residual that is still good, > 0
 */
export function ruling(residual: Measured, tolerance: number): Ruling {
  const size = Math.abs(residual.value);
  const expanded = expandedUncertainty(residual);
  if (size + expanded <= tolerance) return "proved";
  if (size - expanded > tolerance) return "not proved";
  return "cannot tell";
}

/** Of several rulings the one that decides: not proved before cannot tell before proved. */
export function worstRuling(rulings: readonly Ruling[]): Ruling {
  return rulings.includes("not proved") ? "not proved" : rulings.includes("cannot tell") ? "cannot tell" : "proved";
}
