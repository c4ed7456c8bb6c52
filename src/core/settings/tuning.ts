/**
 * The next value of a coefficient whose effect is not known, by the errors that were found with the values tried so far.
 *
 *   not bracketed   slope from the last two tries that differ: v' = v - e / slope, at most 4 times the tried range further;
 *                   where no two tries differ by 3 sqrt(2) u yet, a step 4 times as large the same way
 *   bracketed       secant between the two tries beside zero, kept 5 % inside; the middle where the error did not halve
 *   stop            |e| <= 3 u or the tolerance; the tries beside zero are one step apart; the end of the range; no smaller error without
 *                   a change of sign; too many burns
 *
 * A parabola in place of the secant needs more burns, and a line through all tries never ends on a curved response.
 */
import { elementAt } from "../fitting/element-at";

export type Try = {
  value: number;
  /** What is left to be corrected, unit of the error; 0 is right. */
  error: number;
  /** Its standard uncertainty. */
  u: number;
};

export type TuningLimits = {
  /** Smallest step of the coefficient. */
  step: number;
  range: { low: number; high: number };
  /** Error that is good enough; 3 standard uncertainties where they are larger. */
  tolerance: number;
  /** Change of the error by one more of the coefficient, where it is known from before; else `null`. */
  slope: number | null;
};

export type TuningStep =
  | { do: "try"; value: number; why: "first step" | "known slope" | "larger step" | "slope" | "secant" | "middle" }
  | { do: "stop"; value: number; why: "good" | "one step" | "end of range" | "nearest" | "too many" };

/** Share of its range by which a coefficient of which nothing is known is changed first. */
const FIRST_SHARE = 0.125;
const [FURTHER, LARGER, INSIDE] = [4, 4, 0.05];
const STOPS_AT_U = 3;
/** A try tells its sign when its error is so many uncertainties. */
const SIGN_AT_U = 2;
/** Tries without a smaller error that end it. */
const FRUITLESS = 3;
const MOST_TRIES = 10;

/**
 * @param tries in their order, one or more
 * @throws RangeError when there is none
 */
export function tuningStep(tries: readonly Try[], limits: TuningLimits): TuningStep {
  const last = elementAt(tries, tries.length - 1);
  const best = tries.reduce((a, b) => (Math.abs(b.error) <= Math.abs(a.error) ? b : a));
  // A known effect makes even a small first error smaller.
  const isFirstOfKnown = tries.length === 1 && limits.slope !== null;
  if (!isFirstOfKnown && Math.abs(last.error) <= Math.max(STOPS_AT_U * last.u, limits.tolerance))
    return { do: "stop", value: last.value, why: "good" };
  if (tries.length >= MOST_TRIES) return { do: "stop", value: best.value, why: "too many" };
  const beside = bracket(tries);
  if (beside) return bracketed(tries, beside, limits);
  const wanted = outward(tries, limits);
  const { low, high } = limits.range;
  const value = rounded(Math.min(high, Math.max(low, wanted.value)), limits);
  if (tries.some((t) => Math.abs(t.value - value) < limits.step / 2))
    return { do: "stop", value: best.value, why: isFirstOfKnown ? "good" : endOr(value, low, high) };
  if (tries.length - 1 - tries.indexOf(best) >= FRUITLESS) return { do: "stop", value: best.value, why: "nearest" };
  return { do: "try", value, why: wanted.why };
}

function endOr(value: number, low: number, high: number): "end of range" | "nearest" {
  return value <= low || value >= high ? "end of range" : "nearest";
}

type Pair = { below: Try; above: Try };

/** The two tries next to each other by value between which the error changes its sign. */
function bracket(tries: readonly Try[]): Pair | null {
  const sure = tries.filter((t) => Math.abs(t.error) > SIGN_AT_U * t.u).sort((a, b) => a.value - b.value);
  for (let i = 1; i < sure.length; i++) {
    const [below, above] = [elementAt(sure, i - 1), elementAt(sure, i)];
    if (below.error * above.error < 0 && below.value !== above.value) return { below, above };
  }
  return null;
}

function bracketed(tries: readonly Try[], { below, above }: Pair, limits: TuningLimits): TuningStep {
  const nearer = Math.abs(below.error) < Math.abs(above.error) ? below : above;
  const width = above.value - below.value;
  if (width <= 1.5 * limits.step) return { do: "stop", value: nearer.value, why: "one step" };
  const [before, last] = tries.slice(-2);
  const wasBracketed = bracket(tries.slice(0, -1)) !== null;
  const halved = !before || !last || Math.abs(last.error) <= Math.abs(before.error) / 2;
  const middle = wasBracketed && !halved;
  const share = middle ? 0.5 : below.error / (below.error - above.error);
  const inside = Math.min(1 - INSIDE, Math.max(INSIDE, share));
  const value = rounded(below.value + inside * width, limits);
  if (value === below.value || value === above.value) return { do: "stop", value: nearer.value, why: "one step" };
  return { do: "try", value, why: middle ? "middle" : "secant" };
}

function outward(tries: readonly Try[], { range, slope }: TuningLimits) {
  const last = elementAt(tries, tries.length - 1);
  const before = tries.at(-2);
  const byKnown = slope !== null && slope !== 0 ? last.value - last.error / slope : null;
  if (!before) {
    if (byKnown !== null) return { value: byKnown, why: "known slope" } as const;
    // Toward the side on which there is more room.
    const way = range.high - last.value >= last.value - range.low ? 1 : -1;
    return { value: last.value + way * FIRST_SHARE * (range.high - range.low), why: "first step" } as const;
  }
  const found = slopeFound(tries);
  if (found === null) {
    if (byKnown !== null) return { value: byKnown, why: "known slope" } as const;
    return {
      value: last.value + LARGER * (last.value - before.value || range.high - last.value),
      why: "larger step",
    } as const;
  }
  const values = tries.map((t) => t.value);
  const [least, most] = [Math.min(...values), Math.max(...values)];
  const far = FURTHER * (most - least);
  const wanted = last.value - last.error / found;
  return { value: Math.min(most + far, Math.max(least - far, wanted)), why: "slope" } as const;
}

function rounded(value: number, { step }: TuningLimits): number {
  return Number((Math.round(value / step) * step).toFixed(9)) || 0;
}

/** Change of the error by one more of the value: by the last two tries, or earlier ones next to each other, that differ plainly. */
export function slopeFound(tries: readonly Try[]): number | null {
  for (let i = tries.length - 1; i > 0; i--) {
    const [before, last] = [elementAt(tries, i - 1), elementAt(tries, i)];
    const moved = last.error - before.error;
    const noise = STOPS_AT_U * Math.SQRT2 * Math.max(last.u, before.u);
    if (before.value !== last.value && Math.abs(moved) >= noise) return moved / (last.value - before.value);
  }
  return null;
}
