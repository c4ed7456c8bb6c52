/**
 * How well an axis comes to a place again, from ticks come to from both sides.
 *
 *   B_i = mean(up) - mean(down),  B = max |B_i|                                  reversal
 *   R_i = max(2 s_i(up) + 2 s_i(down) + |B_i|, 4 s_i(up), 4 s_i(down)),  R = max R_i      repeatability
 *   s with n - 1; each tick burned anew is one approach
 *
 * [ISO 230-2:2014, 3 and 6, from memory: it asks for five approaches from each side]
 */
import { mean } from "../../fitting/repeats";

export type Approaches = { nominalMm: number; up: readonly number[]; down: readonly number[] };

export type Positioning = {
  /** At each place, mm; up minus down. */
  reversals: number[];
  /** B, mm. */
  reversalMm: number;
  /** R, mm; `null` below two approaches from each side. */
  repeatabilityMm: number | null;
};

/** @param places with at least one approach from each side, mm from where it should be */
export function positioning(places: readonly Approaches[]): Positioning | null {
  const both = places.filter((p) => p.up.length > 0 && p.down.length > 0);
  if (both.length === 0) return null;
  const reversals = both.map((p) => mean(p.up) - mean(p.down));
  const repeated = both.flatMap((p, i) =>
    p.up.length > 1 && p.down.length > 1 ? [repeatability(deviation(p.up), deviation(p.down), reversals[i] ?? 0)] : [],
  );
  return {
    reversals,
    reversalMm: Math.max(...reversals.map(Math.abs)),
    repeatabilityMm: repeated.length > 0 ? Math.max(...repeated) : null,
  };
}

function repeatability(up: number, down: number, reversal: number): number {
  return Math.max(2 * up + 2 * down + Math.abs(reversal), 4 * up, 4 * down);
}

function deviation(values: readonly number[]): number {
  const middle = mean(values);
  return Math.sqrt(values.reduce((sum, v) => sum + (v - middle) ** 2, 0) / (values.length - 1));
}
