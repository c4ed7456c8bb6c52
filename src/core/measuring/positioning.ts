/**
 * How well an axis comes to a place again, from ticks come to from both sides.
 *
 *   B_i = mean(up) - mean(down),  B = max |B_i|                                  reversal
 *   R_i = max(2 s_i(up) + 2 s_i(down) + |B_i|, 4 s_i(up), 4 s_i(down)),  R = max R_i      repeatability
 *   s with n - 1; each tick burned anew is one approach;  u(R) = 2 hypot(s(up), s(down)) / sqrt(2 (n - 1))
 *
 * What the gauge scatters stands in s as well: R is never better than what it is read with.
 * [ISO 230-2:2014, 3 and 6, from memory: it asks for five approaches from each side]
 */
import { mean } from "../fitting/repeats";
import { type Measured, measured } from "../metrology/measured";

export type Approaches = { nominalMm: number; up: readonly number[]; down: readonly number[] };

export type Positioning = {
  /** At each place, mm; up minus down. */
  reversals: number[];
  /** B, mm. */
  reversalMm: number;
  /** R, mm; `null` below two approaches from each side. */
  repeatability: Measured | null;
};

/** @param places with at least one approach from each side, mm from where it should be */
export function positioning(places: readonly Approaches[]): Positioning | null {
  const both = places.filter((p) => p.up.length > 0 && p.down.length > 0);
  if (both.length === 0) return null;
  const reversals = both.map((p) => mean(p.up) - mean(p.down));
  const repeated = both.flatMap((p, i) =>
    p.up.length > 1 && p.down.length > 1 ? [repeatability(p, reversals[i] ?? 0)] : [],
  );
  return {
    reversals,
    reversalMm: Math.max(...reversals.map(Math.abs)),
    repeatability: repeated.sort((a, b) => b.value - a.value)[0] ?? null,
  };
}

function repeatability(at: Approaches, reversal: number): Measured {
  const [up, down] = [deviation(at.up), deviation(at.down)];
  const freedom = Math.min(at.up.length, at.down.length) - 1;
  const value = Math.max(2 * up + 2 * down + Math.abs(reversal), 4 * up, 4 * down);
  return measured(value, (2 * Math.hypot(up, down)) / Math.sqrt(2 * freedom), freedom);
}

function deviation(values: readonly number[]): number {
  const middle = mean(values);
  return Math.sqrt(values.reduce((sum, v) => sum + (v - middle) ** 2, 0) / (values.length - 1));
}
